// Ripple as a station: every level without and with load, at each mains, against limits and the level's own tolerance.
import type { DecisionRule, Limit } from '../decision/index.ts';
import { type ClaimState, levelTolerance, testOf, worstOf } from '../evidence/index.ts';
import { bestReadOut, offersOf, type ReadOut } from '../read-out/index.ts';
import {
  type Instrument,
  type Mains,
  mainsLabel,
  type Output,
  type Probe,
  type Rig,
  suppliesFor,
} from '../reading/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { expandedUncertainty, isStated, type Measured, readBy } from '../uncertainty/index.ts';
import type { RippleFigures } from './ripple.ts';

/** One record of ripple as the station reads it. */
export interface RippleRecord {
  readonly id: string;
  readonly kind: string;
  readonly mains: Mains;
  readonly port: string | null;
  readonly outputs?: readonly Output[] | null | undefined;
  readonly rigId: string;
  readonly takenAt: string;
  readonly samples: number;
  readonly figures: { readonly kind: string };
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

/** What the user lets ripple be; nothing where nobody set it. */
export interface RippleLimit {
  /** V peak to peak */
  readonly volts: number | null;
  /** Fraction of the level. */
  readonly part: number | null;
  /** Whether the unloaded case counts. */
  readonly unloaded: boolean;
}

export const RIPPLE_LOADS = ['no load', 'light load', 'part load', 'rated load', 'combination'] as const;
export type RippleLoad = (typeof RIPPLE_LOADS)[number];

export interface RippleStationFacts {
  readonly sample: {
    readonly kind: 'wall' | 'desktop' | 'car' | 'cable';
    readonly ports: readonly { readonly label: string }[];
  };
  readonly captures: readonly RippleRecord[];
  readonly readOuts: readonly ReadOut[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly profile: {
    readonly mains: readonly Mains[];
    readonly rule: DecisionRule;
    readonly tolerance: number | null;
    readonly ripple?: RippleLimit | null | undefined;
  };
}

export interface RippleCell {
  readonly captureId: string;
  readonly port: string;
  /** Level and current of the port itself. */
  readonly volts: number;
  readonly amps: number;
  readonly load: RippleLoad;
  readonly outputs: readonly Output[];
  readonly mains: Mains;
  readonly figures: RippleFigures;
  /** Peak to peak with its uncertainty. */
  readonly measured: Measured;
  readonly probe: Probe | null;
  /** Conditions in words. */
  readonly conditions: string;
  /** Against the user's own limit; null without one, or where it does not count. */
  readonly limit: { readonly high: number; readonly state: ClaimState } | null;
  /** Whether ripple and set-point error together stay in the level's tolerance; null where the record does not tell the level. */
  readonly tolerance: { readonly low: number; readonly high: number; readonly state: 'inside' | 'outside' } | null;
}

/** A record the work asks for and nobody took yet. */
export interface RippleWanted {
  readonly port: string;
  readonly volts: number;
  readonly amps: number;
  readonly mains: Mains;
}

export interface RippleConclusion {
  readonly cells: readonly RippleCell[];
  readonly missing: readonly RippleWanted[];
  readonly total: number;
  readonly highest: RippleCell | null;
  readonly lowest: RippleCell | null;
}

/** From so much of its rated current on, a load counts as the rated one; up to so much as a light one. */
const RATED = 0.8;
const LIGHT = 0.3;
const SAME_LEVEL = 0.02;
/** Below this part of its level a record does not hold the level itself: it is coupled by AC. */
const HOLDS_LEVEL = 0.5;

const alike = (a: number, b: number, within: number): boolean =>
  Math.abs(a - b) <= within * Math.max(Math.abs(a), Math.abs(b));

/** Levels a port offers, with what may be drawn at each. */
function levelsOf(
  readOuts: readonly ReadOut[],
  port: string,
): readonly { readonly volts: number; readonly amps: number }[] {
  const best = bestReadOut(readOuts, port);
  if (!best) return [];
  return offersOf(best).flatMap(({ object, unreachable }) =>
    object.kind === 'fixed' && object.volts > 0 && object.amps > 0 && unreachable === null
      ? [{ volts: object.volts, amps: object.amps }]
      : [],
  );
}

/** Records that stand: neither replaced nor taken back. */
export function standingRipple(all: readonly RippleRecord[]): readonly RippleRecord[] {
  const replaced = new Set(all.flatMap(({ supersedes }) => supersedes ?? []));
  return all.filter(({ id, kind, withdrawn }) => kind === 'ripple' && !withdrawn && !replaced.has(id));
}

function loadOf(own: Output, outputs: readonly Output[], rated: number | null): RippleLoad {
  if (outputs.some(({ port, amps }) => port !== own.port && amps > 0)) return 'combination';
  if (own.amps === 0) return 'no load';
  if (rated === null || own.amps >= RATED * rated) return 'rated load';
  return own.amps <= LIGHT * rated ? 'light load' : 'part load';
}

function cellOf(record: RippleRecord, facts: RippleStationFacts): RippleCell[] {
  const { port, outputs } = record;
  const own = outputs?.find((one) => one.port === port);
  if (record.figures.kind !== 'ripple' || !own || !outputs || port === null) return [];
  // Only the kind says which figures these are.
  const figures = record.figures as unknown as RippleFigures;
  const { rigs, instruments, profile, readOuts } = facts;
  const rig = rigs.find(({ id }) => id === record.rigId);
  const scope = instruments.find(({ id }) => id === rig?.drives?.scope);
  const measured = readBy(scope?.specs.voltage, figures.peakToPeak, { meter: scope?.id ?? null, quantity: 'voltage' });
  const rated = levelsOf(readOuts, port).find(({ volts }) => alike(volts, own.volts, SAME_LEVEL))?.amps ?? null;
  const load = loadOf(own, outputs, rated);
  const loaded = outputs.map((one) => `${one.port} ${one.volts} V${one.amps > 0 ? ` ${one.amps} A` : ''}`).join(' + ');
  const conditions = `${loaded}${load === 'no load' ? ', no load' : ''}, ${mainsLabel(record.mains)}`;
  const set = profile.ripple;
  const highs = [set?.volts ?? null, set?.part == null ? null : set.part * own.volts].filter((one) => one !== null);
  const counts = highs.length > 0 && (load !== 'no load' || set?.unloaded !== false);
  const high = Math.min(...highs);
  const limit: Limit = { kind: 'at-most', high };
  const state = counts ? testOf('voltage', limit, measured, 'load', conditions, [], profile.rule).state : null;
  const band = levelTolerance(own.volts, profile.tolerance, own.supply);
  const holds = figures.samples > 0 && figures.mean > HOLDS_LEVEL * own.volts;
  const [low, top] = [figures.mean - figures.peakToPeak / 2, figures.mean + figures.peakToPeak / 2];
  return [
    {
      captureId: record.id,
      port,
      volts: own.volts,
      amps: own.amps,
      load,
      outputs,
      mains: record.mains,
      figures,
      measured,
      probe: rig?.probe ?? null,
      conditions,
      limit: state === null ? null : { high, state },
      tolerance: holds ? { low, high: top, state: low >= band.low && top <= band.high ? 'inside' : 'outside' } : null,
    },
  ];
}

/** The newest of each port, level, load and mains, in the order of ports and levels. */
function newest(cells: readonly RippleCell[], ports: readonly string[]): readonly RippleCell[] {
  const byKey = new Map(
    cells.map((cell) => [
      `${cell.port} ${cell.volts} ${cell.load} ${cell.load === 'combination' ? cell.conditions : mainsLabel(cell.mains)}`,
      cell,
    ]),
  );
  return [...byKey.values()].sort(
    (a, b) =>
      ports.indexOf(a.port) - ports.indexOf(b.port) ||
      a.volts - b.volts ||
      RIPPLE_LOADS.indexOf(a.load) - RIPPLE_LOADS.indexOf(b.load),
  );
}

const inMillivolts = (volts: number): string => `${Number((volts * 1000).toPrecision(3))} mV`;

/** A cell in a sentence, the number first. */
export function rippleSays({ figures, measured, conditions, probe, limit }: RippleCell): string {
  const u = isStated(measured) ? ` ± ${inMillivolts(expandedUncertainty(measured))}` : '';
  const floor = probe?.floor ? `; floor of the scope ${inMillivolts(probe.floor)}` : '';
  const against = limit ? `; ${limit.state} against ${inMillivolts(limit.high)}` : '';
  return `${inMillivolts(figures.peakToPeak)}${u} peak to peak at ${conditions}${floor}${against}.`;
}

export const rippleStation: Station<'ripple', RippleStationFacts, object, RippleConclusion> = {
  ...aboutStation('ripple'),
  reads: ['sample', 'captures', 'readOuts', 'rigs', 'instruments', 'profile'],
  needs: [],
  conclude(facts) {
    const { sample, readOuts, profile } = facts;
    const ports = sample.ports.map(({ label }) => label);
    const cells = newest(
      standingRipple(facts.captures).flatMap((record) => cellOf(record, facts)),
      ports,
    );
    const supplies = suppliesFor(sample.kind, profile.mains);
    const wanted = ports.flatMap((port) =>
      levelsOf(readOuts, port).flatMap(({ volts, amps }) =>
        supplies.flatMap((mains) => [0, amps].map((drawn): RippleWanted => ({ port, volts, amps: drawn, mains }))),
      ),
    );
    const taken = ({ port, volts, amps, mains }: RippleWanted) =>
      cells.some(
        (cell) =>
          cell.port === port &&
          alike(cell.volts, volts, SAME_LEVEL) &&
          cell.load === (amps === 0 ? 'no load' : 'rated load') &&
          mainsLabel(cell.mains) === mainsLabel(mains),
      );
    const bySize = [...cells].sort((a, b) => a.figures.peakToPeak - b.figures.peakToPeak);
    return {
      cells,
      missing: wanted.filter((one) => !taken(one)),
      total: Math.max(wanted.length, cells.length),
      highest: bySize.at(-1) ?? null,
      lowest: bySize[0] ?? null,
    };
  },
  evidence: ({ cells }) => ({ ripple: cells }),
  progress({ cells, missing, total }, _facts, settles) {
    const own = cells.flatMap(({ limit, tolerance }): ClaimState[] => [
      ...(limit ? [limit.state] : []),
      ...(tolerance?.state === 'outside' ? (['short'] as const) : []),
    ]);
    return { done: cells.length === 0 ? 0 : total - missing.length, total, worst: worstOf([...settles, ...own]) };
  },
  says({ cells, highest, lowest }) {
    const outside = cells.filter(({ tolerance }) => tolerance?.state === 'outside');
    return [
      ...(highest ? [`Highest ripple ${rippleSays(highest)}`] : []),
      ...(lowest && lowest !== highest ? [`Lowest ripple ${rippleSays(lowest)}`] : []),
      ...outside.map(
        ({ conditions, tolerance }) =>
          `Ripple and level together leave the tolerance at ${conditions}: ${tolerance?.low.toFixed(2)} to ${tolerance?.high.toFixed(2)} V.`,
      ),
    ];
  },
};
