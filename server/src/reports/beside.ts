// Several samples of one report beside each other: what was found of each, row by row, like with like.
import { measuresOf } from '@lastmark/core/measure';
import type { Bars } from '@lastmark/core/picture';
import { besideMeasures, besidePictures, REPORT_WORDS } from '@lastmark/core/report';
import { judgeSample } from '@lastmark/core/verdict';
import { toJudge } from '../dossier/judged.ts';
import { ownContent, type ReportContent } from './content.ts';
import { claimRows, factRows, NOTHING } from './rows.ts';

/** Facts worth a row where samples stand beside each other. */
const FACTS = ['unit', 'serial', 'revision', 'size'] as const;

export interface Beside {
  /** A head a sample. */
  readonly heads: readonly string[];
  /** What it is of, and what is told of each sample. */
  readonly rows: readonly { readonly name: string; readonly cells: readonly string[] }[];
  /** Every measure with a better side, a bar a sample. */
  readonly pictures: readonly Bars[];
}

/** Null for a report of one sample. Claims and figures told of one sample alone stand in its own part. */
export function besideOf(content: ReportContent): Beside | null {
  if (content.others.length === 0) return null;
  const { language } = content;
  const words = REPORT_WORDS[language];
  const all = [content, ...content.others.map((own) => ownContent(content, own))].map((own) => {
    const judged = toJudge(own.dossier);
    const verdict = judgeSample(judged);
    const facts = new Map(factRows(own));
    const { model, tag } = own.dossier.sample;
    return {
      name: `${model.maker} ${model.model} ${tag}`,
      values: measuresOf(judged, verdict),
      facts: new Map(FACTS.map((name) => [words[name], facts.get(words[name]) ?? NOTHING] as const)),
      claims: new Map(
        claimRows(own, verdict).map(
          (row) => [row.promise, row.found === NOTHING ? row.stateWords : `${row.stateWords}: ${row.found}`] as const,
        ),
      ),
    };
  });
  const told = (pick: (one: (typeof all)[number]) => ReadonlyMap<string, string>): Beside['rows'] => {
    const names = [...new Set(all.flatMap((one) => [...pick(one).keys()]))];
    return names.flatMap((name) => {
      const cells = all.map((one) => pick(one).get(name) ?? NOTHING);
      return cells.filter((cell) => cell !== NOTHING).length > 1 ? [{ name, cells }] : [];
    });
  };
  return {
    heads: all.map(({ name }) => name),
    rows: [
      ...told(({ facts }) => facts),
      ...besideMeasures(all, language).map(({ title, condition, cells }) => ({
        name: condition === '' ? title : `${title}, ${condition}`,
        cells: cells.map((cell) => cell?.words ?? NOTHING),
      })),
      ...told(({ claims }) => claims),
    ],
    pictures: besidePictures(all, language),
  };
}
