// The printable sheet as PDF.
import type { SampleDossier } from '@lastmark/contract';
import { judgeSample } from '@lastmark/core/verdict';
import pdfmake from 'pdfmake';
import { toJudge } from '../samples/dossier.ts';
import { sheetContent } from './content.ts';
import { FONTS, SHEET_FONT } from './fonts.ts';

pdfmake.setFonts(FONTS);
// The sheet is made of text alone: nothing may be fetched, and only the fonts are read.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => Object.values(FONTS[SHEET_FONT]).includes(path));

/** The sheet of a sample: one A4 page of real text. */
export async function sheetPdf(dossier: SampleDossier, printedAt: Date): Promise<Buffer> {
  const { sample } = dossier;
  const document = pdfmake.createPdf({
    pageSize: 'A4',
    pageMargins: [36, 34, 36, 34],
    info: { title: `${sample.model.maker} ${sample.model.model} ${sample.tag}`, producer: 'Lastmark' },
    defaultStyle: { font: SHEET_FONT, fontSize: 8, lineHeight: 1.1 },
    styles: {
      title: { fontSize: 17, bold: true },
      facts: { fontSize: 8.5, margin: [0, 2, 0, 4] },
      section: { fontSize: 10.5, bold: true, margin: [0, 6, 0, 2] },
      head: { bold: true, fontSize: 7.5 },
      note: { fontSize: 7.5, italics: true, margin: [0, 0, 0, 4] },
      method: { fontSize: 7.5, margin: [0, 8, 0, 0] },
    },
    footer: {
      text: `Lastmark · ${sample.tag} · printed ${printedAt.toISOString().slice(0, 10)}`,
      alignment: 'center',
      fontSize: 7,
    },
    content: sheetContent(dossier, judgeSample(toJudge(dossier))),
  });
  return document.getBuffer();
}
