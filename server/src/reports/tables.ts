// Tables of a report: what it holds of claims, limits and instruments.

import { CLAIM_STATES } from '@lastmark/core/claim';
import { draftFigures, inLanguage, type Language } from '@lastmark/core/conclusion';
import { formatPlain } from '@lastmark/core/quantity';
import { REPORT_WORDS, STATE_WORDS } from '@lastmark/core/report';
import type { Verdict } from '@lastmark/core/verdict';
import type { Content, TableCell } from 'pdfmake/interfaces.js';
import { toJudge } from '../dossier/dossier.ts';
import type { ReportContent } from './content.ts';

const head = (...cells: readonly string[]): TableCell[] => cells.map((text) => ({ text, style: 'head' }));

/** A table whose head comes again on every page it runs over. */
export const table = (
  widths: readonly (string | number)[],
  body: TableCell[][],
  heads: readonly string[],
): Content => ({
  table: { headerRows: 1, widths: [...widths], body: [head(...heads), ...body], dontBreakRows: true },
  layout: 'lightHorizontalLines',
  margin: [0, 2, 0, 10],
});

/** Two columns of a name and what there is to say. */
export const pairs = (rows: readonly (readonly [string, string])[]): Content => ({
  table: { widths: ['auto', '*'], body: rows.map(([name, value]) => [{ text: name, color: '#4a5952' }, value]) },
  layout: 'noBorders',
  margin: [0, 2, 0, 8],
});

/** Every claim, the worst first, with what was found, what counts as kept, and under which condition. */
export function claimTable({ dossier, language }: ReportContent, verdict: Verdict): Content[] {
  const words = REPORT_WORDS[language];
  if (dossier.claims.length === 0) return [{ text: words.nothing, style: 'note' }];
  const say = (text: string) => inLanguage(text, language);
  const rows = dossier.claims.flatMap((claim, at) => {
    const result = verdict.claims[at];
    return result ? [{ claim, result, figures: draftFigures(claim, result, toJudge(dossier)) }] : [];
  });
  const sorted = CLAIM_STATES.flatMap((state) => rows.filter(({ result }) => result.state === state));
  const body = sorted.map(({ claim, result: { state, sentence }, figures }): TableCell[] => {
    const loud = state === 'short' || state === 'unreachable';
    return [
      { text: say(figures.promise ?? ''), bold: true },
      claim.printed,
      { text: `${loud ? '▼ ' : ''}${STATE_WORDS[language][state]}`, bold: loud, color: loud ? '#a1261d' : '#16211d' },
      figures.found === undefined ? (language === 'en' ? sentence : '–') : say(figures.found),
      figures.limit === undefined ? '–' : say(figures.limit),
      figures.condition === undefined ? '–' : say(figures.condition),
    ];
  });
  const heads = [words.promised, words.printed, words.state, words.found, words.limit, words.condition];
  return [table(['*', 'auto', 'auto', '*', 'auto', '*'], body, heads)];
}

const OUTCOMES: Readonly<Record<Language, Readonly<Record<string, string>>>> = {
  en: { proven: 'meets', short: 'misses', borderline: 'too close to call', 'cannot be decided': 'cannot be decided' },
  de: { proven: 'eingehalten', short: 'verfehlt', borderline: 'zu knapp', 'cannot be decided': 'nicht entscheidbar' },
};
const QUANTITIES: Readonly<Record<Language, Readonly<Record<string, string>>>> = {
  en: {
    'average-efficiency': 'average efficiency',
    'light-load-efficiency': 'efficiency at 10 % load',
    'no-load-power': 'power without load',
  },
  de: {
    'average-efficiency': 'mittlerer Wirkungsgrad',
    'light-load-efficiency': 'Wirkungsgrad bei 10 % Last',
    'no-load-power': 'Leistung ohne Last',
  },
};

/** Limit sets it was held against; indicative ones say so. */
export function limitTable({ language }: ReportContent, verdict: Verdict): Content[] {
  const words = REPORT_WORDS[language];
  const lines = [
    ...(verdict.results.idle?.limits ?? []),
    ...(verdict.results.efficiency?.limits ?? []).flatMap(({ lines: own }) => own),
  ].filter(({ standing }) => standing === 'verdict');
  if (lines.length === 0) return [];
  const body = lines.map((line): TableCell[] => {
    const quantity = line.quantity === 'no-load-power' ? 'power' : 'efficiency';
    const bound = line.limit.kind === 'at-most' ? line.limit.high : line.limit.low;
    const side = line.limit.kind === 'at-most' ? 'at most' : 'at least';
    return [
      line.title,
      QUANTITIES[language][line.quantity] ?? line.quantity,
      inLanguage(`${side} ${formatPlain(bound, quantity)}`, language),
      inLanguage(line.words, language),
      { text: OUTCOMES[language][line.decision.outcome] ?? '', bold: line.decision.outcome !== 'proven' },
    ];
  });
  return [
    { text: words.limits, style: 'part' },
    table(['auto', '*', 'auto', 'auto', 'auto'], body, [
      words.set,
      words.quantity,
      words.limit,
      words.measured,
      words.outcome,
    ]),
    { text: words.confirm, style: 'note' },
  ];
}

/** Instruments that were used, with their calibration as it was when the report was issued. */
export function instrumentTable({ dossier, language, issuedAt }: ReportContent): Content[] {
  const words = REPORT_WORDS[language];
  const today = issuedAt.slice(0, 10);
  const body = dossier.instruments.map((one): TableCell[] => {
    const due = one.calibrationDue ?? null;
    const passed = due !== null && due < today;
    return [
      one.name,
      one.class,
      one.firmware || '–',
      one.calibratedOn ?? words.notStated,
      { text: due === null ? words.notStated : passed ? `${due}: ${words.passed}` : due, bold: passed },
    ];
  });
  return [
    { text: words.instruments, style: 'part' },
    body.length === 0
      ? { text: words.notRecorded, style: 'note' }
      : table(['*', 'auto', 'auto', 'auto', 'auto'], body, [
          words.instrument,
          words.class,
          words.firmware,
          words.calibrated,
          words.due,
        ]),
  ];
}
