// The conclusion drafted from the judged claims: rules that turn figures into sentences, each with what stands behind it.
import type { ClaimResult } from '../claim/index.ts';
import type { Limit } from '../decision/index.ts';
import type { ClaimState, ClaimTest } from '../evidence/index.ts';
import { yearWords } from '../idle/index.ts';
import { type Claim, describeDuration, describePromise, type Promised } from '../promise/index.ts';
import { formatMeasured, formatPlain, type QuantityId } from '../quantity/index.ts';
import { mainsLabel } from '../reading/index.ts';
import type { SafetyReading } from '../safety/index.ts';
import { STATIONS_ABOUT } from '../station/index.ts';
import { expandedUncertainty } from '../uncertainty/index.ts';
import type { Dossier, Verdict } from '../verdict/types.ts';
import type { SentenceId } from './sentences.ts';

/** One drafted sentence: which one, its figures, and the readings behind it. */
export interface Drafted {
  /** Stays the same while the same thing is said of the same claim. */
  readonly key: string;
  readonly sentence: SentenceId;
  /** Figures by their places, numbers with a point, words in English. */
  readonly figures: Readonly<Record<string, string>>;
  readonly claimIds: readonly string[];
  readonly pointIds: readonly string[];
  /** Where its readings are shown; null for none in particular. */
  readonly station: string | null;
}

/** What of a unit's intake a conclusion discloses. */
export interface Disclosed {
  readonly obtained: string;
  readonly disclosure: string;
}

/** Worst first: each of these is a sentence of its own. */
const EACH = ['short', 'unreachable', 'borderline', 'cannot be decided', 'at least'] as const;
/** These are lists, before the figures and after them. */
const LISTED = ['advertised only', 'not visible', 'assumed'] as const;
const LAST = ['not tested', 'undefined'] as const;

/** The unit a conclusion is written in, by the size of what it is held against; undefined for the usual. */
const unitOf = (quantity: QuantityId, limit: Limit): string | undefined => {
  const most = limit.kind === 'at-least' ? limit.low : limit.high;
  if (quantity === 'voltage' && Math.abs(most) < 1) return 'mV';
  return quantity === 'resistance' ? 'mΩ' : undefined;
};

/** @example limitWords({ kind: 'at-least', low: 63.7 }, 'power') // 'at least 63.7 W' */
export function limitWords(limit: Limit, quantity: QuantityId): string {
  const number = (bound: number) => formatPlain(bound, quantity, unitOf(quantity, limit));
  if (limit.kind === 'at-least') return `at least ${number(limit.low)}`;
  if (limit.kind === 'at-most') return `at most ${number(limit.high)}`;
  return `${number(limit.low).replace(/ \D+$/, '')} to ${number(limit.high)}`;
}

/** What was found, as far as it is known. */
function foundWords({ words, state, value, expanded, quantity, limit }: ClaimTest): string {
  if (words !== undefined) return words;
  const unit = unitOf(quantity, limit);
  if (state === 'at least' && value !== null)
    return `at least ${formatPlain(value - (Number.isFinite(expanded) ? expanded : 0), quantity, unit)}`;
  return value === null ? 'not known' : formatMeasured(value, expanded, quantity, unit);
}

/** Counts have no unit: their limit is said by the promise. */
const isCount = ({ kind }: Promised): boolean => kind === 'bends' || kind === 'data-rate';

function named({ promise, duration }: Claim): string {
  const words = describePromise(promise);
  if (promise.kind === 'wording') return words;
  // What somebody typed stays as it was typed, in every language.
  if (promise.kind === 'signal') return `${promise.port}: “${promise.title}”`;
  if (promise.kind === 'charge-time' && promise.device !== '')
    return words.replace(promise.device, `“${promise.device}”`);
  return duration.kind === 'unstated' ? words : `${words}, ${describeDuration(duration)}`;
}

interface Judged {
  readonly claim: Claim;
  readonly result: ClaimResult;
  /** Names somebody gave: of devices, of cables. */
  readonly names: readonly string[];
}

/** The test that decided it; undefined where something else did. */
const deciding = ({ state, tests }: ClaimResult): ClaimTest | undefined => tests.find((test) => test.state === state);

const namesOf = (devices: Dossier['devices']): readonly string[] =>
  devices.map(({ name }) => name).filter((name) => name !== '');

/** What somebody typed stands between quotation marks: it is nobody's to translate. */
function quoted(words: string, { claim, names }: Judged): string {
  if (claim.promise.kind === 'data-rate') return `“${words}”`;
  return names.reduce((text, name) => text.replaceAll(name, `“${name}”`), words);
}

const figuresOf = (one: Judged): Record<string, string> => {
  const { claim, result } = one;
  const test = deciding(result);
  if (!test) return { promise: named(claim), because: result.sentence };
  return {
    promise: named(claim),
    found: foundWords(test),
    limit: isCount(claim.promise) ? named(claim) : limitWords(test.limit, test.quantity),
    condition: quoted(test.evidence.conditions.replace(/^at /, ''), one),
  };
};

/** Figures of one judged claim: what was promised, found, what counts as kept, under which condition. */
export const draftFigures = (
  claim: Claim,
  result: ClaimResult,
  { devices }: Pick<Dossier, 'devices'>,
): Readonly<Record<string, string>> => figuresOf({ claim, result, names: namesOf(devices) });

const stationOf = ({ claim }: Judged): string | null =>
  STATIONS_ABOUT.find(({ settles }) => (settles as readonly string[]).includes(claim.promise.kind))?.id ?? null;

const base = (key: string, sentence: SentenceId, all: readonly Judged[]): Omit<Drafted, 'figures'> => ({
  key,
  sentence,
  claimIds: all.map(({ claim }) => claim.id),
  pointIds: [...new Set(all.flatMap(({ result }) => deciding(result)?.evidence.pointIds ?? []))],
  station: all.length === 1 && all[0] ? stationOf(all[0]) : null,
});

/** How far inside its limit a value sits, in units of its uncertainty; Infinity where that says nothing. */
function room({ result }: Judged): number {
  const test = deciding(result);
  if (!test || test.value === null || !(test.expanded > 0) || !Number.isFinite(test.expanded))
    return Number.POSITIVE_INFINITY;
  const { limit, value } = test;
  const low = limit.kind === 'at-most' ? Number.POSITIVE_INFINITY : value - limit.low;
  const high = limit.kind === 'at-least' ? Number.POSITIVE_INFINITY : limit.high - value;
  return Math.min(low, high) / test.expanded;
}

/** Claims of a state as one list. */
function listed(all: readonly Judged[], state: (typeof LISTED)[number] | (typeof LAST)[number]): Drafted[] {
  const some = all.filter(({ result }) => result.state === state);
  if (some.length === 0) return [];
  const sentence = state === 'undefined' ? 'untestable' : state;
  return [{ ...base(sentence, sentence, some), figures: { list: some.map(({ claim }) => named(claim)).join('; ') } }];
}

/** What is proven as one list, and which of it only just. */
function proven(all: readonly Judged[]): Drafted[] {
  const some = all.filter(({ result }) => result.state === 'proven');
  const nearest = some
    .filter(({ result }) => deciding(result))
    .reduce<Judged | null>((a, b) => (a && room(a) <= room(b) ? a : b), null);
  if (!nearest) return [];
  const list = some.map(({ claim }) => named(claim)).join('; ');
  return [{ ...base('proven', 'proven', some), figures: { ...figuresOf(nearest), list } }];
}

const each = (all: readonly Judged[]): Drafted[] =>
  EACH.flatMap((state) =>
    all
      .filter(({ result }) => result.state === state)
      .map((one) => {
        const plain = state === 'unreachable' || deciding(one.result) === undefined;
        return {
          ...base(`claim ${one.claim.id}`, plain && state !== 'unreachable' ? 'plain' : state, [one]),
          figures: { ...figuresOf(one), ...(plain ? { state } : null) },
        };
      }),
  );

function summary(all: readonly Judged[]): Drafted[] {
  if (all.length === 0) return [];
  const count = (...states: readonly ClaimState[]) => all.filter(({ result }) => states.includes(result.state)).length;
  const untested = count('not tested', 'undefined', 'advertised only', 'not visible', 'assumed');
  return [
    {
      ...base('summary', 'summary', all),
      station: 'claims',
      pointIds: [],
      figures: {
        claims: String(all.length),
        tested: String(all.length - untested),
        proven: String(count('proven')),
        short: String(count('short', 'unreachable')),
        open: String(count('borderline', 'cannot be decided', 'at least')),
      },
    },
  ];
}

const alone = (key: string, sentence: SentenceId, station: string, figures: Drafted['figures']): Drafted => ({
  key,
  sentence,
  figures,
  claimIds: [],
  pointIds: [],
  station,
});

function figures({ sample, profile }: Dossier, { figures: key, results }: Verdict): Drafted[] {
  if (sample.kind === 'cable') return [];
  const empty = results.idle.draws
    .filter(({ attached }) => attached === 'nothing')
    .reduce<(typeof results.idle.draws)[number] | null>((a, b) => (a && a.watts.value >= b.watts.value ? a : b), null);
  const year = empty && yearWords(empty, profile.tariff, profile.currency);
  return [
    ...(key.efficiency
      ? [
          alone('average', 'average', 'efficiency', {
            found: key.efficiency.words,
            condition: key.efficiency.condition,
          }),
        ]
      : []),
    ...(key.idle && year && empty
      ? [
          alone('idle', 'idle', 'idle', {
            found: key.idle.words,
            condition: mainsLabel(empty.mains),
            energy: year.energy,
            cost: year.cost,
          }),
        ]
      : []),
    ...(key.massPerWatt !== null && key.watts !== null
      ? [
          alone('per-watt', 'per-watt', 'intake', {
            mass: `${(key.massPerWatt * 1000).toFixed(2)} g`,
            watts: formatPlain(key.watts, 'power'),
          }),
        ]
      : []),
  ];
}

/** Most that is proven at one port, of what is promised there: what it is good for. */
function bestUse(all: readonly Judged[]): Drafted[] {
  const lines = all.flatMap((one) => {
    const { promise } = one.claim;
    return one.result.state === 'proven' && promise.kind === 'port-line'
      ? [{ one, port: promise.port, watts: promise.volts * promise.amps, promise }]
      : [];
  });
  const most = lines.reduce<(typeof lines)[number] | null>((a, b) => (a && a.watts >= b.watts ? a : b), null);
  if (!most) return [];
  const { port, watts, promise, one } = most;
  return [
    {
      ...base('best-use', 'best-use', [one]),
      figures: {
        level: `${formatPlain(promise.volts, 'voltage')} ${formatPlain(promise.amps, 'current')}`,
        watts: formatPlain(watts, 'power'),
        port,
      },
    },
  ];
}

/** The highest touch current, held against the first limit it has. */
function safety({ results }: Verdict): Drafted[] {
  const { touch } = results.safety ?? { touch: [] };
  const worst = touch.reduce<(typeof touch)[number] | null>((a, b) => (a && part(a) >= part(b) ? a : b), null);
  const [judged] = worst?.judged ?? [];
  if (!worst || !judged || judged.limit.kind !== 'at-most') return [];
  const { measured, unit, conditions } = worst;
  const [mains = '', , earth = ''] = conditions.split(', ');
  return [
    alone('safety', 'safety', 'safety', {
      found: `${formatMeasured(measured.value, expandedUncertainty(measured), 'current', unit)} ${judged.title.split(', ').at(-1)}`,
      condition: `${mains}, ${earth}`,
      state: judged.state === 'proven' ? 'within' : judged.state === 'short' ? 'over' : 'too close to call against',
      limit: formatPlain(judged.limit.high, 'current', 'µA'),
    }),
  ];
}

/** How much of its limit a reading takes. */
const part = ({ measured, judged: [first] }: SafetyReading): number =>
  first?.limit.kind === 'at-most' ? measured.value / first.limit.high : 0;

/**
 * The conclusion of a sample as the rules draft it, the exception first.
 * @param unit how it came to the bench, and who gains
 * @returns nothing but the disclosure for a sample without claims and figures
 */
export function draftConclusion(dossier: Dossier, verdict: Verdict, unit: Disclosed): readonly Drafted[] {
  const names = namesOf(dossier.devices);
  const all = dossier.claims.flatMap((claim, index): Judged[] => {
    const result = verdict.claims[index];
    return result ? [{ claim, result, names }] : [];
  });
  return [
    ...summary(all),
    ...each(all),
    ...proven(all),
    ...LISTED.flatMap((state) => listed(all, state)),
    ...figures(dossier, verdict),
    ...bestUse(all),
    ...safety(verdict),
    ...LAST.flatMap((state) => listed(all, state)),
    alone('gains', 'gains', 'intake', { obtained: unit.obtained, disclosure: unit.disclosure }),
  ];
}
