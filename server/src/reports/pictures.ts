// Pictures of a report for those who publish elsewhere: each as SVG with its data as CSV beside it, in one archive.
import { type Picture, toSvg } from '@lastmark/core/picture';
import { pictureWords } from '@lastmark/core/report';
import { csvText } from '@lastmark/core/table';
import { strToU8, type Zippable, zipSync } from 'fflate';
import type { ReportContent } from './content.ts';
import { allPictures, partsOf } from './parts.ts';
import { claimRows } from './rows.ts';

/** A name every file system takes. */
const fileName = (picture: Picture, at: number): string =>
  `${String(at + 1).padStart(2, '0')}-${picture.title
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60)
    .toLowerCase()}`;

/** The archive; the same content makes the same bytes. */
export function picturesZip(content: ReportContent): Uint8Array {
  const parts = partsOf(content);
  const { language, issuedAt } = content;
  const say = (text: string) => pictureWords(text, language);
  const files: Zippable = {};
  allPictures(parts).forEach((picture, at) => {
    const name = fileName(picture, at);
    files[`${name}.svg`] = strToU8(
      toSvg(picture, {
        width: 900,
        font: 'sans-serif',
        words: say,
        ...(picture.kind === 'plot' ? { height: 400 } : null),
      }),
    );
    files[`${name}.csv`] = strToU8(csvText(picture.table));
  });
  const rows = claimRows(content, parts.verdict);
  files['claims.csv'] = strToU8(
    csvText([
      ['promised', 'printed', 'state', 'found', 'counts_as_kept', 'condition'],
      ...rows.map(({ promise, printed, stateWords, found, limit, condition }) => [
        promise,
        printed,
        stateWords,
        found,
        limit,
        condition,
      ]),
    ]),
  );
  return zipSync(files, { level: 6, mtime: new Date(issuedAt) });
}
