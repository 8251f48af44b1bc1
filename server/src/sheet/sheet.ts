// The printable sheet as PDF.
import type { SampleDossier } from '@lastmark/contract';
import { judgeSample, type Verdict } from '@lastmark/core/verdict';
import { toJudge } from '../dossier/judged.ts';
import { sheetContent } from './content.ts';
import { SHEET_FONT } from './fonts.ts';
import { printer } from './printer.ts';

/** Size of the text, pt; and the smaller one taken only where that keeps it to one page. */
const USUAL = 8;
const SMALL = 7.25;

interface Printed {
  readonly pdf: Buffer;
  readonly pages: number;
}

async function print(dossier: SampleDossier, verdict: Verdict, printedAt: Date, size: number): Promise<Printed> {
  const { sample } = dossier;
  let pages = 0;
  const document = (await printer()).createPdf({
    pageSize: 'A4',
    pageMargins: [36, 34, 36, 34],
    info: { title: `${sample.model.maker} ${sample.model.model} ${sample.tag}`, producer: 'Lastmark' },
    defaultStyle: { font: SHEET_FONT, fontSize: size, lineHeight: 1.1 },
    styles: {
      title: { fontSize: 17, bold: true },
      facts: { fontSize: 8.5, margin: [0, 2, 0, 4] },
      section: { fontSize: 10.5, bold: true, margin: [0, 6, 0, 2] },
      head: { bold: true, fontSize: size - 0.5 },
      note: { fontSize: size - 0.5, italics: true, margin: [0, 0, 0, 4] },
      method: { fontSize: size - 0.5, margin: [0, 8, 0, 0] },
    },
    footer: (page, count) => {
      pages = count;
      return {
        text: `Lastmark · ${sample.tag} · printed ${printedAt.toISOString().slice(0, 10)}${count > 1 ? ` · page ${page} of ${count}` : ''}`,
        alignment: 'center',
        fontSize: 7,
      };
    },
    content: sheetContent(dossier, verdict, printedAt.toISOString().slice(0, 10)),
  });
  return { pdf: await document.getBuffer(), pages };
}

/** The sheet of a sample, real text on A4: one page where it fits, running on where it does not. Nothing judged is cut. */
export async function sheetPdf(dossier: SampleDossier, printedAt: Date): Promise<Buffer> {
  const verdict = judgeSample(toJudge(dossier));
  const usual = await print(dossier, verdict, printedAt, USUAL);
  if (usual.pages <= 1) return usual.pdf;
  const small = await print(dossier, verdict, printedAt, SMALL);
  return small.pages <= 1 ? small.pdf : usual.pdf;
}
