// Rows of a report in its language: claims, limits, instruments, facts, record; what prints them only lays them out.
import { cableWords } from '@lastmark/core/cable';
import { CLAIM_STATES, type ClaimState } from '@lastmark/core/claim';
import { dayIn, draftFigures, filled, inLanguage, type Language, OBTAINED_WORDS } from '@lastmark/core/conclusion';
import { formatPlain } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { REPORT_WORDS, STATE_WORDS } from '@lastmark/core/report';
import type { Verdict } from '@lastmark/core/verdict';
import { toJudge } from '../dossier/judged.ts';
import { indicativeBecause, qualitySentences } from '../sheet/quality.ts';
import { ambientsOf, momentsOf } from '../sheet/record.ts';
import type { ReportContent } from './content.ts';

export interface ClaimRowOf {
  readonly id: string;
  readonly promise: string;
  readonly printed: string;
  readonly state: ClaimState;
  readonly stateWords: string;
  readonly loud: boolean;
  readonly found: string;
  readonly limit: string;
  readonly condition: string;
  /** Points and runs behind what decided it. */
  readonly sources: readonly string[];
}

export const NOTHING = '–';

/** Every claim, the worst first. */
export function claimRows({ dossier, language }: ReportContent, verdict: Verdict): readonly ClaimRowOf[] {
  const say = (text: string | undefined) => (text === undefined ? NOTHING : inLanguage(text, language));
  const rows = dossier.claims.flatMap((claim, at): ClaimRowOf[] => {
    const result = verdict.claims[at];
    if (!result) return [];
    const { state, sentence, tests } = result;
    const { promise, found, limit, condition } = draftFigures(claim, result, toJudge(dossier));
    return [
      {
        id: claim.id,
        promise: say(promise),
        printed: claim.printed,
        state,
        stateWords: STATE_WORDS[language][state],
        loud: state === 'short' || state === 'unreachable',
        // Where nothing measured decided it, the judgement says why, in its own words.
        found: found === undefined && language === 'en' ? sentence : say(found),
        limit: say(limit),
        condition: say(condition),
        sources: tests.find((test) => test.state === state)?.evidence.pointIds ?? [],
      },
    ];
  });
  return CLAIM_STATES.flatMap((state) => rows.filter((row) => row.state === state));
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

export interface LimitRowOf {
  readonly title: string;
  readonly quantity: string;
  readonly limit: string;
  readonly found: string;
  readonly outcome: string;
  readonly meets: boolean;
}

/** Limit sets it was held against with a verdict. */
export const limitRows = ({ language, leaves }: ReportContent, verdict: Verdict): readonly LimitRowOf[] =>
  (leaves.includes('limits')
    ? []
    : [
        ...(verdict.results.idle?.limits ?? []),
        ...(verdict.results.efficiency?.limits ?? []).flatMap(({ lines: own }) => own),
      ]
  )
    .filter(({ standing }) => standing === 'verdict')
    .map((line) => {
      const quantity = line.quantity === 'no-load-power' ? 'power' : 'efficiency';
      const bound = line.limit.kind === 'at-most' ? line.limit.high : line.limit.low;
      const side = line.limit.kind === 'at-most' ? 'at most' : 'at least';
      return {
        title: line.title,
        quantity: QUANTITIES[language][line.quantity] ?? line.quantity,
        limit: inLanguage(`${side} ${formatPlain(bound, quantity)}`, language),
        found: inLanguage(line.words, language),
        outcome: OUTCOMES[language][line.decision.outcome] ?? '',
        meets: line.decision.outcome === 'proven',
      };
    });

export interface InstrumentRowOf {
  readonly name: string;
  readonly class: string;
  readonly firmware: string;
  readonly calibrated: string;
  readonly due: string;
  readonly passed: boolean;
}

/** Instruments that were used, with their calibration as it was when the report was issued. */
export function instrumentRows({ dossier, language, issuedAt }: ReportContent): readonly InstrumentRowOf[] {
  const words = REPORT_WORDS[language];
  const today = issuedAt.slice(0, 10);
  return dossier.instruments.map((one) => {
    const due = one.calibrationDue ?? null;
    const passed = due !== null && due < today;
    return {
      name: one.name,
      class: one.class,
      firmware: one.firmware || NOTHING,
      calibrated: one.calibratedOn ?? words.notStated,
      due: due === null ? words.notStated : passed ? `${due}: ${words.passed}` : due,
      passed,
    };
  });
}

type Pair = readonly [name: string, value: string];

/** What it is, as somebody entered it. */
export function factRows({ dossier, language, makerSaw }: ReportContent): readonly Pair[] {
  const words = REPORT_WORDS[language];
  const { model, unit, tag } = dossier.sample;
  const sides = [model.length, model.width, model.height];
  const number = (text: string) => inLanguage(text, language);
  const size = sides.every((side) => side !== null)
    ? number(`${sides.map((side) => formatPlain(side ?? 0, 'length').replace(' mm', '')).join(' × ')} mm`)
    : words.notRecorded;
  const obtained = OBTAINED_WORDS[language][unit.obtained] ?? unit.obtained;
  return [
    [words.maker, `${model.maker} ${model.model}`],
    [words.unit, tag],
    [words.serial, unit.serial || words.notRecorded],
    [words.revision, [unit.revision, unit.dateCode].filter(Boolean).join(', ') || words.notRecorded],
    [words.size, size],
    [words.mass, model.mass === null ? words.notRecorded : number(formatPlain(model.mass, 'mass'))],
    ...(model.cable
      ? ([[words.ports, cableWords(model.cable)]] as const)
      : ([
          [words.input, model.inputRating || words.notRecorded],
          [words.ports, model.ports.map(({ label }) => label).join(', ') || words.notRecorded],
        ] as const)),
    [
      words.obtained,
      [
        unit.disclosure ? `${obtained}. ${unit.disclosure}` : obtained,
        ...(makerSaw === null ? [] : [makerSaw ? words.makerSaw : words.makerDidNot]),
      ].join(makerSaw === null || unit.disclosure.endsWith('.') ? ' ' : '. '),
    ],
  ];
}

/** When, how warm, at which mains, by which rule; what is missing is missing in words. */
export function recordRows({ dossier, language }: ReportContent): readonly Pair[] {
  const words = REPORT_WORDS[language];
  const { profile, points, captures } = dossier;
  const moments = momentsOf(dossier);
  const [first, last] = [moments[0], moments.at(-1)];
  const ambients = ambientsOf(dossier);
  const supplies = [...new Set([...points, ...captures].flatMap((one) => (one.mains ? [mainsLabel(one.mains)] : [])))];
  const say = (text: string) => inLanguage(text, language);
  const allowance = filled(words.allowance, { part: say(formatPlain(profile.allowance, 'efficiency')) });
  return [
    [words.when, first && last ? `${dayIn(first, language)} – ${dayIn(last, language)}` : words.notRecorded],
    [words.ambient, ambients.length > 0 ? say(ambients.join(', ')) : words.notRecorded],
    [words.mains, supplies.length > 0 ? say(supplies.join(', ')) : words.notRecorded],
    [words.rule, profile.rule === 'guarded' ? words.guarded : words.simple],
    ['U', `${words.uncertainty} ${allowance}`],
  ];
}

/** What was done otherwise than the procedures ask, in the words of the judgement. */
export function deviationsOf({ dossier }: ReportContent, verdict: Verdict): readonly string[] {
  const because = indicativeBecause(verdict);
  return [...(because ? [because] : []), ...qualitySentences(dossier.captures, verdict)];
}
