// Several samples of one report beside each other: what was found of each, row by row.
import { inLanguage } from '@lastmark/core/conclusion';
import { figuresOfReport, REPORT_WORDS } from '@lastmark/core/report';
import { judgeSample } from '@lastmark/core/verdict';
import { toJudge } from '../dossier/judged.ts';
import { ownContent, type ReportContent } from './content.ts';
import { claimRows, factRows, NOTHING } from './rows.ts';

/** Facts worth a row where samples stand beside each other. */
const FACTS = ['unit', 'serial', 'revision', 'size', 'mass'] as const;

export interface Beside {
  /** A head a sample. */
  readonly heads: readonly string[];
  /** What it is of, and what is told of each sample. */
  readonly rows: readonly { readonly name: string; readonly cells: readonly string[] }[];
}

/** Null for a report of one sample. Claims and figures told of one sample alone stand in its own part. */
export function besideOf(content: ReportContent): Beside | null {
  if (content.others.length === 0) return null;
  const { language } = content;
  const words = REPORT_WORDS[language];
  const all = [content, ...content.others.map((own) => ownContent(content, own))].map((own) => {
    const judged = toJudge(own.dossier);
    const verdict = judgeSample(judged);
    const figures = figuresOfReport(judged, verdict);
    const facts = new Map(factRows(own));
    const found = (key: 'average' | 'idle') => {
      const figure = figures.get(key);
      return figure === undefined ? NOTHING : inLanguage(figure.words, language);
    };
    const { model } = own.dossier.sample;
    const cells = new Map<string, string>([
      ...FACTS.map((name) => [words[name], facts.get(words[name]) ?? NOTHING] as const),
      [words.average, found('average')],
      [words.idle, found('idle')],
      ...claimRows(own, verdict).map(
        (row) => [row.promise, row.found === NOTHING ? row.stateWords : `${row.stateWords}: ${row.found}`] as const,
      ),
    ]);
    return { head: `${model.maker} ${model.model} ${own.dossier.sample.tag}`, cells };
  });
  const names = [...new Set(all.flatMap(({ cells }) => [...cells.keys()]))];
  return {
    heads: all.map(({ head }) => head),
    rows: names.flatMap((name) => {
      const cells = all.map((one) => one.cells.get(name) ?? NOTHING);
      return cells.filter((cell) => cell !== NOTHING).length > 1 ? [{ name, cells }] : [];
    }),
  };
}
