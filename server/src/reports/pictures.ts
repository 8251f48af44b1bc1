// Pictures of a report for those who publish elsewhere: each as SVG with its data as CSV beside it, in one archive.
import { type Picture, toSvg } from '@lastmark/core/picture';
import { pictureWords } from '@lastmark/core/report';
import { csvText } from '@lastmark/core/table';
import { strToU8, type Zippable, zipSync } from 'fflate';
import { besideOf } from './beside.ts';
import { ownContent, type ReportContent } from './content.ts';
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

/** A picture with its data beside it. */
const drawn = (picture: Picture, name: string, say: (text: string) => string): Zippable => ({
  [`${name}.svg`]: strToU8(
    toSvg(picture, {
      width: 900,
      font: 'sans-serif',
      words: say,
      ...(picture.kind === 'plot' ? { height: 400 } : null),
    }),
  ),
  [`${name}.csv`]: strToU8(csvText(picture.table)),
});

/** Files of one sample. @param folder what their names begin with */
function filesOf(content: ReportContent, folder: string): Zippable {
  const parts = partsOf(content);
  const say = (text: string) => pictureWords(text, content.language);
  const files: Zippable = {};
  allPictures(parts).forEach((picture, at) => {
    Object.assign(files, drawn(picture, `${folder}${fileName(picture, at)}`, say));
  });
  const rows = claimRows(content, parts.verdict);
  files[`${folder}claims.csv`] = strToU8(
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
  return files;
}

/** The archive; the same content makes the same bytes. Other samples of a report stand in folders of their tags. */
export function picturesZip(content: ReportContent): Uint8Array {
  const table = besideOf(content);
  const files: Zippable = {
    ...filesOf(content, ''),
    ...Object.assign(
      {},
      ...(table?.pictures ?? []).map((picture, at) =>
        drawn(picture, `beside/${fileName(picture, at)}`, (text) => text),
      ),
    ),
    ...(table && {
      'beside.csv': strToU8(
        csvText([['figure', ...table.heads], ...table.rows.map(({ name, cells }) => [name, ...cells])]),
      ),
    }),
    ...Object.assign(
      {},
      ...content.others.map((own) => filesOf(ownContent(content, own), `${own.dossier.sample.tag}/`)),
    ),
  };
  return zipSync(files, { level: 6, mtime: new Date(content.issuedAt) });
}
