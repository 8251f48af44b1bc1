// Heat as a station: soaks at each mains, where they lead, what they say of touch, and of other loads and places.
import type { DecisionRule, Limit } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import { type ClaimState, stateOf, worstOf } from '../evidence/index.ts';
import { type Mains, mainsLabel, type Output, suppliesFor } from '../reading/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { EVENT_WORDS } from './events.ts';
import { exponentOf, type Prediction, perWatt, predicted } from './predict.ts';
import type { SensorFigures, SoakFigures } from './soak.ts';
import { type Surface, TOUCH_TS1 } from './touch.ts';

/** One soak as the station reads it. */
export interface SoakRecord {
  readonly id: string;
  readonly kind: string;
  readonly mains: Mains;
  readonly outputs?: readonly Output[] | null | undefined;
  readonly takenAt: string;
  readonly soak?:
    | { readonly place: string; readonly touched: Surface; readonly ambient: number | null; readonly surface: string }
    | null
    | undefined;
  readonly figures: { readonly kind: string };
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

export interface HeatStationFacts {
  readonly sample: { readonly kind: 'wall' | 'desktop' | 'car' | 'cable' };
  readonly captures: readonly SoakRecord[];
  readonly profile: {
    readonly mains: readonly Mains[];
    readonly rule: DecisionRule;
    /** The user's own limit for what is touched, °C at 25 °C; null or left out for none. */
    readonly touch?: number | null | undefined;
  };
}

/** What a soak comes to. */
export interface SoakResult {
  readonly captureId: string;
  readonly mains: Mains;
  readonly outputs: readonly Output[];
  /** Where it stood: air that stands still cools otherwise than that of a room. */
  readonly place: string;
  /** Load, place and mains in words. */
  readonly conditions: string;
  readonly figures: SoakFigures;
  /** The sensor that leads highest. */
  readonly hottest: SensorFigures | null;
  /** Rise over ambient it leads to, K, with its interval; null where ambient or steady value is not known. */
  readonly rise: { readonly steady: number; readonly interval: readonly [number | null, number | null] } | null;
  /** The same over 25 °C, °C. */
  readonly at25: { readonly steady: number; readonly interval: readonly [number | null, number | null] } | null;
  /** Loss at this load by the sample's own efficiency, W; null where it was not measured. */
  readonly loss: number | null;
  /** K per watt of loss. */
  readonly perWatt: number | null;
  /** Against what may be touched; null where it cannot be told. */
  readonly touch: readonly { readonly title: string; readonly high: number; readonly state: ClaimState }[];
  /** What it says of other places and loads: predictions, never measured. */
  readonly predictions: readonly { readonly title: string; readonly at: Prediction }[];
}

export interface HeatConclusion {
  readonly soaks: readonly SoakResult[];
  /** Mains without a soak. */
  readonly missing: readonly Mains[];
  readonly total: number;
  /** What two soaks of the same load tell apart: a timer, or heat. */
  readonly causes: readonly string[];
}

const REFERENCE = 25;

export function standingSoaks(all: readonly SoakRecord[]): readonly SoakRecord[] {
  const replaced = new Set(all.flatMap(({ supersedes }) => supersedes ?? []));
  return all.filter(({ id, kind, withdrawn }) => kind === 'soak' && !withdrawn && !replaced.has(id));
}

const wattsOf = (outputs: readonly Output[]): number => outputs.reduce((sum, { volts, amps }) => sum + volts * amps, 0);
const key = (outputs: readonly Output[]): string =>
  outputs
    .filter(({ amps }) => amps > 0)
    .map(({ port, volts, amps }) => `${port} ${volts} ${amps.toFixed(2)}`)
    .sort()
    .join('+');

/** Loss at a load, from the efficiency measured at it. */
function lossOf(
  series: readonly SeriesResult[],
  { mains, outputs }: Pick<SoakResult, 'mains' | 'outputs'>,
): number | null {
  const watts = wattsOf(outputs);
  for (const { setup, byMains } of series) {
    if (key(setup.outputs) !== key(outputs)) continue;
    const own = byMains.find((one) => mainsLabel(one.mains) === mainsLabel(mains));
    const load = own?.loads.find((one) => Math.abs(one.output.value - watts) < 0.1 * watts);
    if (load) return load.loss.value;
  }
  return null;
}

const LIKELY: Readonly<
  Record<HeatStationFacts['sample']['kind'], { readonly celsius: number; readonly title: string }>
> = {
  wall: { celsius: 35, title: 'in a hut at 35 °C' },
  desktop: { celsius: 35, title: 'in a hut at 35 °C' },
  car: { celsius: 50, title: 'in a car at 50 °C' },
  cable: { celsius: 35, title: 'in a hut at 35 °C' },
};

function resultOf(record: SoakRecord, facts: HeatStationFacts, series: readonly SeriesResult[]): SoakResult[] {
  if (record.figures.kind !== 'soak' || !record.outputs) return [];
  // Only the kind says which figures these are.
  const figures = record.figures as unknown as SoakFigures;
  const { mains, outputs, soak } = record;
  const sensors = [...figures.sensors].sort((a, b) => (b.steady ?? b.atEnd) - (a.steady ?? a.atEnd));
  const hottest = sensors[0] ?? null;
  const { ambient } = figures;
  const over = (value: number | null) => (value === null || ambient === null ? null : value - ambient);
  const steady = over(hottest?.steady ?? null);
  const [low, high] = hottest?.steadyInterval ?? [null, null];
  const rise = steady === null ? null : { steady, interval: [over(low), over(high)] as const };
  const plus = (value: number | null) => (value === null ? null : value + REFERENCE);
  const at25 = rise && {
    steady: rise.steady + REFERENCE,
    interval: [plus(rise.interval[0]), plus(rise.interval[1])] as const,
  };
  const loss = lossOf(series, { mains, outputs });
  const surface = soak?.touched ?? 'plastic';
  const place = soak?.place ?? 'open room';
  const limits = [
    { title: `${TOUCH_TS1.title}, ${surface}, gripped`, high: TOUCH_TS1.gripped[surface] },
    ...(facts.profile.touch == null ? [] : [{ title: 'Your own limit', high: facts.profile.touch }]),
  ];
  const touch = limits.map((one) => {
    const limit: Limit = { kind: 'at-most', high: one.high };
    const interval = at25 && {
      low: at25.interval[0] ?? Number.NEGATIVE_INFINITY,
      high: at25.interval[1] ?? Number.POSITIVE_INFINITY,
    };
    return { ...one, state: interval ? stateOf({ kind: 'load', interval }, limit) : ('cannot be decided' as const) };
  });
  const loaded = outputs
    .filter(({ amps }) => amps > 0)
    .map(({ port, volts, amps }) => `${port} ${volts} V ${amps} A`)
    .join(' + ');
  return [
    {
      captureId: record.id,
      mains,
      outputs,
      place,
      conditions: `${loaded || 'no load'}, ${mainsLabel(mains)}, ${place}${ambient === null ? '' : ` at ${ambient.toFixed(0)} °C`}`,
      figures,
      hottest,
      rise,
      at25,
      loss,
      perWatt: rise && loss !== null ? perWatt(rise.steady, loss) : null,
      touch,
      predictions: [],
    },
  ];
}

/** What a soak says of other places and loads, once all are known: two losses tell how rise goes with loss. */
function withPredictions(
  soak: SoakResult,
  all: readonly SoakResult[],
  kind: HeatStationFacts['sample']['kind'],
): SoakResult {
  const { rise, loss } = soak;
  if (!rise) return soak;
  const other = all.find(
    (one) =>
      one !== soak &&
      one.rise &&
      one.loss !== null &&
      loss !== null &&
      mainsLabel(one.mains) === mainsLabel(soak.mains),
  );
  const exponent =
    other?.rise && other.loss !== null && loss !== null
      ? exponentOf({ rise: rise.steady, loss }, { rise: other.rise.steady, loss: other.loss })
      : null;
  const { celsius, title } = LIKELY[kind];
  // At the same loss only the ambient moves; then no exponent is needed.
  const place = predicted(rise, loss ?? 1, loss ?? 1, celsius, 1);
  const half = loss === null ? null : predicted(rise, loss, loss / 2, REFERENCE, exponent);
  return {
    ...soak,
    predictions: [
      ...(place ? [{ title, at: place }] : []),
      ...(half ? [{ title: 'at half the loss, at 25 °C', at: half }] : []),
    ],
  };
}

/** What holds and soaks of one loading tell together: a timer, or heat. Only where a soak is among them. */
function causesOf(soaks: readonly SoakResult[], { holds, causes }: HeatNeeds['proof']): readonly string[] {
  const isSoak = (id: string) => soaks.some(({ captureId }) => captureId === id);
  const own = holds.filter(({ lines, cause }) => cause && lines.some(({ run, ended }) => ended && isSoak(run.id)));
  return [
    ...own.map(({ title, sentence }) => `${title}: ${sentence}`),
    ...causes.filter(({ runIds }) => runIds.some(isSoak)).map(({ sentence }) => sentence),
  ];
}

interface HeatNeeds {
  readonly efficiency: { readonly series: readonly SeriesResult[] };
  readonly proof: {
    readonly holds: readonly {
      readonly title: string;
      readonly lines: readonly { readonly run: { readonly id: string }; readonly ended: boolean }[];
      readonly cause: string | null;
      readonly sentence: string;
    }[];
    readonly causes: readonly { readonly runIds: readonly string[]; readonly sentence: string }[];
  };
}

export const heatStation: Station<'heat', HeatStationFacts, HeatNeeds, HeatConclusion> = {
  ...aboutStation('heat'),
  reads: ['sample', 'captures', 'profile'],
  needs: ['efficiency', 'proof'],
  conclude(facts, { efficiency, proof }) {
    const plain = standingSoaks(facts.captures).flatMap((record) => resultOf(record, facts, efficiency.series));
    const soaks = plain.map((soak) => withPredictions(soak, plain, facts.sample.kind));
    const supplies = suppliesFor(facts.sample.kind, facts.profile.mains);
    const missing = supplies.filter(
      (mains) => !soaks.some((soak) => mainsLabel(soak.mains) === mainsLabel(mains) && soak.at25),
    );
    return { soaks, missing, total: supplies.length, causes: causesOf(soaks, proof) };
  },
  evidence: ({ soaks }) => ({ soaks }),
  progress({ soaks, missing, total }, _facts, settles) {
    const own = soaks.flatMap(({ touch, figures }): ClaimState[] => [
      ...touch.map(({ state }) => state).filter((state) => state !== 'cannot be decided'),
      // Output that does not last is a finding, whatever was promised.
      ...(figures.events.length > 0 ? (['short'] as const) : []),
    ]);
    return { done: soaks.length === 0 ? 0 : total - missing.length, total, worst: worstOf([...settles, ...own]) };
  },
  says({ soaks, causes }) {
    return [...soaks.flatMap((soak) => soakSays(soak)), ...causes];
  },
};

/** A soak in sentences: what happened first, then where it leads. */
export function soakSays({ figures, hottest, at25, conditions }: SoakResult): readonly string[] {
  const events = figures.events.map(
    ({ kind, at, from, to, temperature }) =>
      `Output ${EVENT_WORDS[kind]} after ${(at / 60).toFixed(1)} min: ${from.toFixed(1)} to ${to.toFixed(1)} W${temperature === null ? '' : ` at ${temperature.toFixed(0)} °C`} (${conditions}).`,
  );
  if (!hottest) return events;
  const steady = at25
    ? `${hottest.name} leads to ${at25.steady.toFixed(1)} °C at 25 °C (${bound(at25.interval[0])} to ${bound(at25.interval[1])})`
    : `${hottest.name} ${hottest.atEnd.toFixed(1)} °C at the end`;
  const still = hottest.settled === false ? `, ${Math.abs(hottest.remaining ?? 0).toFixed(1)} K still to come` : '';
  return [...events, `${steady}${still} (${conditions}).`];
}

const bound = (value: number | null): string => (value === null ? '?' : value.toFixed(1));
