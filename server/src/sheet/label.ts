// The label of a sample: its tag as a QR code and in letters, to stick on the charger.
import type { Sample } from '@lastmark/contract';
import pdfmake from 'pdfmake';
import { FONTS, SHEET_FONT } from './fonts.ts';

pdfmake.setFonts(FONTS);

/** What the code says; a scanner types it. */
export const labelText = ({ tag }: Pick<Sample, 'tag'>): string => `LASTMARK:${tag}`;

const MILLIMETRE = 72 / 25.4;

/** One label, 50 × 25 mm. */
export async function labelPdf({ tag, model, unit }: Sample): Promise<Buffer> {
  const cut = (text: string) => (text.length > 34 ? `${text.slice(0, 33)}…` : text);
  return pdfmake
    .createPdf({
      pageSize: { width: 50 * MILLIMETRE, height: 25 * MILLIMETRE },
      pageMargins: [5, 5, 5, 5],
      info: { title: `Label ${tag}`, producer: 'Lastmark' },
      defaultStyle: { font: SHEET_FONT, fontSize: 6.5, lineHeight: 1.1 },
      content: [
        {
          columns: [
            { qr: labelText({ tag }), fit: 58, width: 62 },
            {
              width: '*',
              stack: [
                { text: tag, fontSize: 13, bold: true },
                cut(model.maker),
                cut(model.model),
                unit.serial ? cut(unit.serial) : '',
              ],
            },
          ],
        },
      ],
    })
    .getBuffer();
}
