// The label of a sample: its tag as a QR code and in letters, to stick on the charger.
import type { Sample } from '@lastmark/contract';
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { SHEET_FONT } from './fonts.ts';
import { printer } from './printer.ts';

/** What the code says; a scanner types it. */
export const labelText = ({ tag }: Pick<Sample, 'tag'>): string => `LASTMARK:${tag}`;

const MILLIMETRE = 72 / 25.4;

/** A code keeps four of its modules clear around it, ISO/IEC 18004, 6.3.8; here a module is 2 pt. */
const CLEAR = 8;

/** One label, 50 × 25 mm, as it is laid out. */
export function labelDocument({ tag, model, unit }: Pick<Sample, 'tag' | 'model' | 'unit'>): TDocumentDefinitions {
  const cut = (text: string) => (text.length > 34 ? `${text.slice(0, 33)}…` : text);
  return {
    pageSize: { width: 50 * MILLIMETRE, height: 25 * MILLIMETRE },
    pageMargins: [CLEAR, CLEAR, 5, 5],
    info: { title: `Label ${tag}`, producer: 'Lastmark' },
    defaultStyle: { font: SHEET_FONT, fontSize: 6.5, lineHeight: 1.1 },
    content: [
      {
        columns: [
          { qr: labelText({ tag }), fit: 54, width: 42 + CLEAR },
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
  };
}

export const labelPdf = async (sample: Sample): Promise<Buffer> =>
  (await printer()).createPdf(labelDocument(sample)).getBuffer();
