// The printable sheet as PDF.
import type { SampleDossier } from '@lastmark/contract';
import { judgeSample, type Verdict } from '@lastmark/core/verdict';
import { toJudge } from '../dossier/dossier.ts';
import { type Room, sheetContent } from './content.ts';
import { SHEET_FONT } from './fonts.ts';
import { pdfmake } from './printer.ts';

/** From roomy to tight: the first that fits one page is printed. */
const ROOMS: readonly Room[] = [
  { claims: 16, limits: 12, loadings: 3, characters: 160 },
  { claims: 12, limits: 8, loadings: 2, characters: 120 },
  { claims: 10, limits: 6, loadings: 2, characters: 100 },
  { claims: 8, limits: 4, loadings: 1, characters: 80 },
  { claims: 5, limits: 2, loadings: 1, characters: 50 },
];

interface Printed {
  readonly pdf: Buffer;
  readonly pages: number;
}

async function print(dossier: SampleDossier, verdict: Verdict, printedAt: Date, room: Room): Promise<Printed> {
  const { sample } = dossier;
  let pages = 0;
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
    footer: (_page, count) => {
      pages = count;
      return {
        text: `Lastmark · ${sample.tag} · printed ${printedAt.toISOString().slice(0, 10)}`,
        alignment: 'center',
        fontSize: 7,
      };
    },
    content: sheetContent(dossier, verdict, room),
  });
  return { pdf: await document.getBuffer(), pages };
}

/** The sheet of a sample: one A4 page of real text. What does not fit is counted on it. */
export async function sheetPdf(dossier: SampleDossier, printedAt: Date): Promise<Buffer> {
  const verdict = judgeSample(toJudge(dossier));
  let printed: Printed = { pdf: Buffer.alloc(0), pages: 0 };
  for (const room of ROOMS) {
    printed = await print(dossier, verdict, printedAt, room);
    if (printed.pages <= 1) break;
  }
  return printed.pdf;
}
