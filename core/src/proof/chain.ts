// The meter chain: what lies between the meter at the port and the one at the load end, and which of them is off.
import { memoOf, memoOfLists } from '../memo/index.ts';
import { decimalsFor, formatMeasured, formatValue } from '../quantity/index.ts';
import {
  asMeasured,
  type Instrument,
  type Point,
  type Rig,
  readAt,
  readingAt,
  type Setup,
  specFor,
} from '../reading/index.ts';
import {
  expandedUncertainty,
  isStated,
  type Measured,
  meanOfCommon,
  measured,
  propagate,
  unstatedOf,
} from '../uncertainty/index.ts';

/** The two meters' readings of one output at one step. */
interface Rung {
  readonly pointId: string;
  readonly title: string;
  readonly port: string;
  readonly amps: Measured;
  readonly portVolts: Measured | null;
  readonly endVolts: Measured | null;
  readonly portAmps: Measured | null;
  readonly endAmps: Measured | null;
  readonly displayVolts: Measured | null;
  readonly displayAmps: Measured | null;
}

/** Drop between port and load end at one step. */
export interface ChainDrop {
  readonly pointId: string;
  readonly title: string;
  /** A */
  readonly amps: number;
  /** V: port less load end */
  readonly drop: number;
  /** V: drop less what the line through all steps says */
  readonly residual: number;
}

export interface Chain {
  readonly rigId: string;
  /** Loop resistance of everything between the two meters, Ω; null while nothing tells. */
  readonly resistance: Measured | null;
  /** What the two voltmeters differ by without current, V; null with fewer than two different currents. */
  readonly offset: Measured | null;
  readonly drops: readonly ChainDrop[];
  /** What the chain says, one sentence each, worst first. */
  readonly findings: readonly string[];
}

const LEAST_AMPS = 0.2;

interface Drops {
  /** A, and V at both ends of the line, at one step. */
  readonly amps: Measured;
  readonly port: Measured;
  readonly end: Measured;
}

/**
 * Loop resistance from the drops at several currents: the slope of a straight line (least squares), so that what the
 * two voltmeters differ by without current does not matter. JCGM 100:2008, H.3.
 * - Three steps or more: the scatter about the line tells how far the meters err from step to step, with n − 2 degrees
 *   of freedom; a gain, which scatter does not show, counts over the span of the voltages.
 * - Two steps: nothing tells the scatter, so each of the four readings may be off by its whole spec.
 * - One current: R = (Vport − Vend)/I, and the whole of all three specs counts.
 * @param rounding standard uncertainty the last digits of both voltmeters bring to a drop, V
 */
function resistanceOf(rungs: readonly Rung[], rounding: number): Pick<Chain, 'resistance' | 'offset'> {
  const pairs = rungs.flatMap(({ amps, portVolts, endVolts }): Drops[] =>
    portVolts && endVolts ? [{ amps, port: portVolts, end: endVolts }] : [],
  );
  const n = pairs.length;
  if (n === 0) return { resistance: null, offset: null };
  const mean = (of: (pair: Drops) => number) => pairs.reduce((sum, pair) => sum + of(pair), 0) / n;
  const dropAt = ({ port, end }: Drops) => port.value - end.value;
  const x = mean(({ amps }) => amps.value);
  const drop = mean(dropAt);
  const sxx = pairs.reduce((sum, { amps }) => sum + (amps.value - x) ** 2, 0);
  const currents = pairs.map(({ amps }) => amps.value);
  /** Mean of one meter's readings: what it reads wrong, it may read wrong every time. */
  const common = (of: (pair: Drops) => Measured) => meanOfCommon(pairs.map(of));
  const ends = [common(({ port }) => port), common(({ end }) => end)] as const;
  const alone = propagate(drop, [
    { weight: 1, of: ends[0] },
    { weight: -1, of: ends[1] },
  ]);
  if (Math.max(...currents) - Math.min(...currents) < LEAST_AMPS) {
    if (x < LEAST_AMPS) return { resistance: null, offset: null };
    const resistance = propagate(drop / x, [
      { weight: 1 / x, of: alone },
      { weight: -drop / x ** 2, of: common(({ amps }) => amps) },
    ]);
    return { resistance, offset: null };
  }
  const weights = pairs.map(({ amps }) => (amps.value - x) / sxx);
  const slope = pairs.reduce((sum, pair, index) => sum + (weights[index] ?? 0) * dropAt(pair), 0);
  const start = drop - slope * x;
  /** Each reading off by itself, at the weight it has in the result. */
  const apart = (value: number, weightOf: (index: number) => number) =>
    propagate(
      value,
      pairs.flatMap(({ port, end, amps }, index) => [
        { weight: weightOf(index), of: port },
        { weight: -weightOf(index), of: end },
        { weight: -weightOf(index) * slope, of: amps },
      ]),
    );
  if (n === 2)
    return {
      resistance: apart(slope, (index) => weights[index] ?? 0),
      offset: apart(start, (index) => 1 / n - x * (weights[index] ?? 0)),
    };
  const squares = pairs.reduce((sum, pair) => sum + (dropAt(pair) - start - slope * pair.amps.value) ** 2, 0);
  // Coarse meters may show no scatter at all; their rounding is there all the same.
  const scatter = Math.max(Math.sqrt(squares / (n - 2)), rounding);
  // A gain error of a voltmeter tilts the line by as much as its readings change with the current.
  const leverage = (of: (pair: Drops) => number) =>
    Math.abs(pairs.reduce((sum, pair, index) => sum + (weights[index] ?? 0) * of(pair), 0));
  const relative = ({ value, uInstrument }: Measured) => (value === 0 ? 0 : uInstrument / Math.abs(value));
  const gains = Math.hypot(
    relative(ends[0]) * leverage(({ port }) => port.value),
    relative(ends[1]) * leverage(({ end }) => end.value),
    relative(common(({ amps }) => amps)) * slope,
  );
  const unstated = unstatedOf(pairs.flatMap(({ amps, port, end }) => [amps, port, end]));
  const spread = scatter * Math.sqrt(1 / n + x ** 2 / sxx);
  return {
    resistance: measured(slope, gains, scatter / Math.sqrt(sxx), n - 2, unstated),
    offset: measured(start, alone.uInstrument, spread, n - 2, unstated),
  };
}

/** |a − b| over what both could be wrong by: above 1 they disagree. ISO 13528:2022, 9.7 (E_n). */
function disagreement(
  a: Measured,
  b: Measured,
): { readonly size: number; readonly allowed: number; readonly en: number } {
  const size = Math.abs(a.value - b.value);
  const allowed = Math.hypot(expandedUncertainty(a), expandedUncertainty(b));
  return { size, allowed, en: allowed > 0 ? size / allowed : size > 0 ? Number.POSITIVE_INFINITY : 0 };
}

interface Named {
  readonly name: string;
  readonly value: Measured;
}

/** Which of several meters reading the same thing stands apart; null when it cannot be told. */
function oddOne(meters: readonly Named[]): Named | null {
  if (meters.length < 3) return null;
  const odd = meters.filter((one) => {
    const others = meters.filter((other) => other !== one);
    const apart = others.every((other) => disagreement(one.value, other.value).en > 1);
    const [a, b] = others;
    return apart && a && b && disagreement(a.value, b.value).en <= 1;
  });
  return odd.length === 1 ? (odd[0] ?? null) : null;
}

interface Clash {
  readonly en: number;
  readonly sentence: string;
}

/** The worst clash among meters that should read the same, in a sentence. */
function clashAt(title: string, what: 'voltage' | 'current', meters: readonly Named[]): Clash | null {
  let worst: Clash | null = null;
  meters.forEach((a, index) => {
    for (const b of meters.slice(index + 1)) {
      const { size, allowed, en } = disagreement(a.value, b.value);
      if (en <= 1 || (worst && worst.en >= en)) continue;
      const unit = what === 'voltage' ? 'mV' : 'mA';
      const odd = oddOne(meters);
      const who = odd
        ? `${odd.name} stands alone against the other two`
        : `which of the two is off cannot be told from these readings`;
      const plain = (value: number) => formatValue(value, what, Math.min(1, decimalsFor(value * 1000, 0)), unit);
      worst = {
        en,
        sentence: `${title}: ${a.name} and ${b.name} differ by ${plain(size)} in ${what}, their specs allow ${plain(allowed)}; ${who}.`,
      };
    }
  });
  return worst;
}

function clashes(rungs: readonly Rung[], resistance: Measured | null): string[] {
  const worstOf = (all: readonly (Clash | null)[]) =>
    all.reduce<Clash | null>((worst, one) => (one && (!worst || one.en > worst.en) ? one : worst), null);
  const named = (name: string, value: Measured | null): Named[] => (value ? [{ name, value }] : []);
  const currents = rungs.map((rung) =>
    clashAt(rung.title, 'current', [
      ...named('the meter at the port', rung.portAmps),
      ...named('the load', rung.endAmps),
      ...named('the display', rung.displayAmps),
    ]),
  );
  const voltages = rungs.map((rung) => {
    const corrected =
      rung.endVolts && resistance
        ? propagate(rung.endVolts.value + rung.amps.value * resistance.value, [
            { weight: 1, of: rung.endVolts },
            { weight: rung.amps.value, of: resistance },
            { weight: resistance.value, of: rung.amps },
          ])
        : null;
    return clashAt(rung.title, 'voltage', [
      ...named('the meter at the port', rung.portVolts),
      ...named('the load with the lead’s drop put back', corrected),
      ...named('the display', rung.displayVolts),
    ]);
  });
  return [worstOf(currents), worstOf(voltages)]
    .flatMap((clash) => clash ?? [])
    .sort((a, b) => b.en - a.en)
    .map(({ sentence }) => sentence);
}

/** A reading with what its meter's spec gives it today, where that is more than it was accepted with. */
function bySpec(reading: Measured, today: Measured): Measured {
  if (!isStated(today) || !isStated(reading) || today.uInstrument <= reading.uInstrument) return reading;
  return measured(reading.value, today.uInstrument, reading.uRepeat, reading.degrees);
}

const rungsAt = memoOf((point: Point, setup: Setup, rig: Rig, instruments: readonly Instrument[]): readonly Rung[] =>
  setup.outputs.flatMap(({ port, volts, amps }): Rung[] => {
    const at = (quantity: 'voltage' | 'current', place: 'port' | 'load-end' | 'display') => {
      const reading = readingAt(point, quantity, place, port);
      if (!reading) return null;
      const own = asMeasured(reading);
      return place === 'display' ? own : bySpec(own, readAt(own.value, quantity, place, rig, instruments));
    };
    const portAmps = at('current', 'port');
    const endAmps = at('current', 'load-end');
    const best = portAmps ?? endAmps ?? (point.load === 0 ? measured(0, 0) : null);
    if (!best) return [];
    const asked = point.load === 0 ? 'no load' : `${Number((amps * point.load).toFixed(3))} A`;
    return [
      {
        pointId: point.id,
        title: `${port} ${Number(volts.toFixed(3))} V, ${asked}`,
        port,
        amps: best,
        portVolts: at('voltage', 'port'),
        endVolts: at('voltage', 'load-end'),
        portAmps,
        endAmps,
        displayVolts: at('voltage', 'display'),
        displayAmps: at('current', 'display'),
      },
    ];
  }),
);

function rungsOf(
  setups: readonly Setup[],
  points: readonly Point[],
  rig: Rig,
  instruments: readonly Instrument[],
): readonly Rung[] {
  const byId = new Map(setups.map((setup) => [setup.id, setup]));
  return points.flatMap((point) => {
    const setup = byId.get(point.setupId ?? '');
    return setup && point.rigId === rig.id ? rungsAt(point, setup, rig, instruments) : [];
  });
}

/** Everything the steps of one rig say of its meters; kept while the steps stay the same. */
const chainOf = memoOfLists(
  (
    rig: Rig,
    setups: readonly Setup[],
    points: readonly Point[],
    [instruments]: readonly [readonly Instrument[]],
  ): Chain => {
    const rungs = rungsOf(setups, points, rig, instruments);
    const roundingOf = (place: 'port' | 'load-end') =>
      (specFor('voltage', place, rig, instruments)?.resolution ?? 0) / Math.sqrt(12);
    const { resistance, offset } = resistanceOf(rungs, Math.hypot(roundingOf('port'), roundingOf('load-end')));
    const drops = rungs.flatMap(({ pointId, title, amps, portVolts, endVolts }): ChainDrop[] => {
      if (!portVolts || !endVolts) return [];
      const drop = portVolts.value - endVolts.value;
      const line = (offset?.value ?? 0) + (resistance?.value ?? 0) * amps.value;
      return [{ pointId, title, amps: amps.value, drop, residual: resistance ? drop - line : 0 }];
    });
    const findings: string[] = [];
    if (resistance && resistance.value < -expandedUncertainty(resistance))
      findings.push('The load end reads higher than the port, and more so with current: are the two meters swapped?');
    if (offset && Math.abs(offset.value) > expandedUncertainty(offset))
      findings.push(
        `Without current the two voltmeters differ by ${formatMeasured(offset.value, expandedUncertainty(offset), 'voltage', 'mV')}: more than their specs allow. Compare both with a third before going on.`,
      );
    findings.push(...clashes(rungs, resistance));
    return { rigId: rig.id, resistance, offset, drops, findings };
  },
);

/**
 * Reconcile the meters of one rig over all steps taken with it.
 * @param points of one sample; those of other rigs are left out
 * @param instruments the meters as they are stated today
 */
export const reconcile = (
  rig: Rig,
  setups: readonly Setup[],
  points: readonly Point[],
  instruments: readonly Instrument[] = [],
): Chain => chainOf(rig, setups, points, [instruments]);
