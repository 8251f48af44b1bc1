// What the sheet says, taken from the verdict and nothing else. The exception stands first, and nothing is left out.
import type { SampleDossier } from '@lastmark/contract';
import { cableWords } from '@lastmark/core/cable';
import { CLAIM_STATES, describeDuration, describePromise } from '@lastmark/core/claim';
import { drawWords, yearWords } from '@lastmark/core/idle';
import { formatMeasured, formatPlain, formatValue } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { stateWord } from '@lastmark/core/station';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import type { Verdict } from '@lastmark/core/verdict';
import type { Content, TableCell } from 'pdfmake/interfaces.js';
import { indicativeBecause, qualitySentences } from './quality.ts';
import { recordSentences } from './record.ts';

const STATE_MARKS: Record<string, string> = {
  proven: '+',
  short: '–',
  unreachable: '×',
  borderline: '~',
  'at least': '>',
  'cannot be decided': '?',
};

const head = (...cells: string[]): TableCell[] => cells.map((text) => ({ text, style: 'head' }));

const table = (widths: (string | number)[], body: TableCell[][]): Content => ({
  table: { headerRows: 1, widths, body },
  layout: 'lightHorizontalLines',
  margin: [0, 2, 0, 8],
});

const section = (text: string): Content => ({ text, style: 'section' });

function facts({ sample }: SampleDossier): string {
  const { model, unit } = sample;
  const size = [model.length, model.width, model.height].every((side) => side !== null)
    ? [model.length, model.width, model.height]
        .map((side) => formatPlain(side ?? 0, 'length').replace(' mm', ''))
        .join(' × ')
        .concat(' mm')
    : null;
  return [
    `Unit ${sample.tag}`,
    unit.serial && `serial ${unit.serial}`,
    unit.revision && `revision ${unit.revision}`,
    size,
    model.mass === null ? null : `${formatPlain(model.mass, 'mass')} ${model.withPlug ? 'with' : 'without'} plug`,
    model.inputRating && `input ${model.inputRating}`,
    model.cable
      ? cableWords(model.cable)
      : `ports ${model.ports.map(({ label }) => label).join(', ') || 'not entered'}`,
  ]
    .filter(Boolean)
    .join(' · ');
}

/** Every claim, the worst first; as printed where they stand alike. */
function claimsTable({ claims }: SampleDossier, verdict: Verdict): Content[] {
  if (claims.length === 0) return [section('Claims'), { text: 'No claim was entered.', style: 'note' }];
  const judged = claims.map((claim, index) => {
    const result = verdict.claims[index];
    return { claim, state: result?.state ?? ('not tested' as const), sentence: result?.sentence ?? '' };
  });
  const rows = CLAIM_STATES.flatMap((state) => judged.filter((one) => one.state === state)).map(
    ({ claim, state, sentence }): TableCell[] => [
      { text: describePromise(claim.promise), bold: true },
      claim.duration.kind === 'unstated' ? claim.printed : `${claim.printed}, ${describeDuration(claim.duration)}`,
      {
        text: `${STATE_MARKS[state] ?? '·'} ${stateWord(state)}`,
        bold: state === 'short' || state === 'unreachable',
        noWrap: true,
      },
      sentence,
    ],
  );
  return [
    section('Claims'),
    table(['auto', 'auto', 'auto', '*'], [head('Promised', 'Printed', 'State', 'Found'), ...rows]),
  ];
}

function efficiencyTables(verdict: Verdict): Content[] {
  const measured = (verdict.results.efficiency?.series ?? []).filter(({ byMains }) => byMains.length > 0);
  const tables = measured.flatMap(({ setup, byMains, best, worst }): Content[] => {
    const loads = [...new Set(byMains.flatMap((one) => one.loads.map(({ load }) => load)))].sort((a, b) => a - b);
    const body = byMains.map((one): TableCell[] => [
      mainsLabel(one.mains),
      ...loads.map((load) => {
        const found = one.loads.find((result) => result.load === load);
        return found
          ? formatMeasured(found.efficiency.value, expandedUncertainty(found.efficiency), 'efficiency').replace(
              ' %',
              '',
            )
          : '–';
      }),
      one.average
        ? { text: formatMeasured(one.average.value, expandedUncertainty(one.average), 'efficiency'), bold: true }
        : 'incomplete',
    ]);
    const range =
      best && worst
        ? `Best ${formatValue(best.efficiency.value, 'efficiency', 1)} at ${mainsLabel(best.mains)}, ${Math.round(best.load * 100)} % load; worst ${formatValue(worst.efficiency.value, 'efficiency', 1)} at ${mainsLabel(worst.mains)}, ${Math.round(worst.load * 100)} % load.`
        : '';
    return [
      { text: setup.name, bold: true },
      table(
        ['auto', ...loads.map(() => '*'), 'auto'],
        [
          head('Efficiency, %', ...loads.map((load) => `${Math.round(load * 100)} % load`), 'Four-point average'),
          ...body,
        ],
      ),
      { text: range, style: 'note' },
    ];
  });
  if (tables.length === 0) return [section('Efficiency'), { text: 'Not measured.', style: 'note' }];
  return [section('Efficiency'), ...tables];
}

function idleTable(dossier: SampleDossier, verdict: Verdict): Content[] {
  const { tariff, currency } = dossier.profile;
  if ((verdict.results.idle?.draws ?? []).length === 0)
    return [section('Idle'), { text: 'Not measured.', style: 'note' }];
  const rows = (verdict.results.idle?.draws ?? []).map((one): TableCell[] => {
    const { energy, cost } = yearWords(one, tariff, currency);
    return [mainsLabel(one.mains), `${one.attached} attached`, drawWords(one), `${energy} a year, ${cost}`];
  });
  return [
    section('Idle'),
    table(['auto', 'auto', 'auto', '*'], [head('Mains', 'Attached', 'Draw', 'If left plugged in'), ...rows]),
  ];
}

const OUTCOME = {
  proven: 'meets',
  short: 'misses',
  borderline: 'too close to call',
  'cannot be decided': 'cannot be decided: an accuracy is not stated',
} as const;

function limitsTable({ setups }: SampleDossier, verdict: Verdict): Content[] {
  const ofLoadings = (verdict.results.efficiency?.limits ?? []).flatMap(({ setupId, lines }) =>
    lines.map((line) => ({ line, of: setups.find(({ id }) => id === setupId)?.name ?? '' })),
  );
  const all = [...(verdict.results.idle?.limits ?? []).map((line) => ({ line, of: '' })), ...ofLoadings].filter(
    ({ line }) => line.standing === 'verdict',
  );
  if (all.length === 0) return [];
  const worstFirst = [...all].sort(
    (a, b) => CLAIM_STATES.indexOf(a.line.decision.outcome) - CLAIM_STATES.indexOf(b.line.decision.outcome),
  );
  const rows = worstFirst.map(({ line, of }): TableCell[] => {
    const quantity = line.quantity === 'no-load-power' ? 'power' : 'efficiency';
    const bound = line.limit.kind === 'at-most' ? line.limit.high : line.limit.low;
    return [
      line.title,
      [line.quantity.replaceAll('-', ' '), of].filter(Boolean).join(', '),
      `${line.limit.kind === 'at-most' ? 'at most' : 'at least'} ${formatPlain(bound, quantity)}`,
      line.words,
      { text: OUTCOME[line.decision.outcome], bold: line.decision.outcome !== 'proven' },
    ];
  });
  return [
    section('Limit sets'),
    table(['auto', '*', 'auto', 'auto', 'auto'], [head('Set', 'Quantity', 'Limit', 'Measured', 'Outcome'), ...rows]),
    { text: 'Confirm against the current text. One sample is never compliance.', style: 'note' },
  ];
}

/** Sentences under a title. */
const listed = (title: string, sentences: readonly string[]): Content[] =>
  sentences.length === 0 ? [] : [section(title), { ul: [...sentences], margin: [0, 2, 0, 4] }];

/** What the stations say, in the order of the work. */
const stationLines = ({ stations }: Verdict): Content[] => stations.flatMap(({ title, says }) => listed(title, says));

function qualityLines({ captures }: SampleDossier, verdict: Verdict): Content[] {
  const because = indicativeBecause(verdict);
  return [
    ...(because ? [{ text: because, style: 'note' }] : []),
    ...listed('Mains and supply', qualitySentences(captures, verdict)),
  ];
}

/** The body of the sheet. @param today the day it is printed, for calibrations */
export function sheetContent(dossier: SampleDossier, verdict: Verdict, today = ''): Content[] {
  const { sample, profile } = dossier;
  const inLine = sample.model.kind === 'cable';
  const rule =
    profile.rule === 'guarded'
      ? 'A claim is proven only if value − U clears its limit.'
      : 'Values are held against limits without a guard band.';
  const disclosure = `Obtained: ${sample.unit.obtained}.${sample.unit.disclosure ? ` ${sample.unit.disclosure}` : ''}`;
  return [
    { text: `${sample.model.maker} ${sample.model.model}`, style: 'title' },
    { text: facts(dossier), style: 'facts' },
    ...claimsTable(dossier, verdict),
    ...stationLines(verdict),
    // What sits in the line has neither: nothing is missing of it.
    ...(inLine ? [] : [...efficiencyTables(verdict), ...idleTable(dossier, verdict)]),
    ...limitsTable(dossier, verdict),
    ...qualityLines(dossier, verdict),
    { text: recordSentences(dossier, verdict, today).join(' '), style: 'method' },
    {
      text: `Values ± U (k = 2, about 95 %). ${rule} Power within ${formatPlain(profile.allowance, 'efficiency')} of a promise counts as reached.${inLine ? '' : ' Efficiency at the port.'} ${disclosure} This is not a safety certification.`,
      style: 'method',
    },
  ];
}
