// Two series side by side: where their conditions match the difference with its uncertainty, else what differs.
import { formatPlain } from '../quantity/index.ts';
import { type EvidenceKind, type Mains, mainsLabel, type Output } from '../reading/index.ts';
import { difference, expandedUncertainty, type Measured } from '../uncertainty/index.ts';
import type { SeriesResult } from './series.ts';

/** One side of a comparison. */
export interface Side {
  /** How it is called in sentences. */
  readonly name: string;
  readonly series: SeriesResult;
  readonly rigId: string;
  /** Warm-up behind its points, s; null where nobody recorded it. */
  readonly warmUp: number | null;
}

export interface Pair {
  readonly mains: Mains;
  /** Fraction of nameplate current; null for the four-point average. */
  readonly load: number | null;
  readonly a: Measured;
  readonly b: Measured;
  /** b − a. */
  readonly difference: Measured;
  /** Whether it exceeds its own uncertainty. */
  readonly differs: boolean;
}

export interface SeriesComparison {
  readonly pairs: readonly Pair[];
  /** Conditions that differ, a sentence each. With a load or level that differs nothing is compared. */
  readonly unlike: readonly string[];
}

const near = (a: number, b: number): boolean => Math.abs(a - b) <= 0.01 * Math.max(a, b);
const outputText = (outputs: readonly Output[]): string =>
  outputs.map(({ volts, amps }) => `${formatPlain(volts, 'voltage')} ${formatPlain(amps, 'current')}`).join(' + ');
const byStrength = (outputs: readonly Output[]): Output[] =>
  [...outputs].sort((a, b) => b.volts * b.amps - a.volts * a.amps || b.volts - a.volts);
const WORDS: Readonly<Partial<Record<EvidenceKind, string>>> = { load: 'an electronic load', device: 'a real device' };

function unlikeSides(a: Side, b: Side): { readonly says: string[]; readonly fatal: boolean } {
  const left = byStrength(a.series.setup.outputs);
  const right = byStrength(b.series.setup.outputs);
  const sameLoading =
    left.length === right.length &&
    left.every((one, index) => {
      const other = right[index];
      return other !== undefined && near(one.volts, other.volts) && near(one.amps, other.amps);
    });
  const says: string[] = [];
  if (!sameLoading) says.push(`100 % is ${outputText(left)} for ${a.name}, ${outputText(right)} for ${b.name}.`);
  const [one, other] = [a.series.setup.evidence, b.series.setup.evidence];
  if (one !== other) says.push(`${a.name} was loaded by ${WORDS[one] ?? one}, ${b.name} by ${WORDS[other] ?? other}.`);
  const fatal = says.length > 0;
  if (a.warmUp !== null && b.warmUp !== null && Math.abs(a.warmUp - b.warmUp) > 60)
    says.push(
      `${a.name} was warmed up ${formatPlain(a.warmUp, 'duration', 'min')}, ${b.name} ${formatPlain(b.warmUp, 'duration', 'min')}.`,
    );
  return { says, fatal };
}

/** Compare two series, mains by mains and load by load, only where conditions match. */
export function compareSeries(a: Side, b: Side): SeriesComparison {
  const { says, fatal } = unlikeSides(a, b);
  if (fatal) return { pairs: [], unlike: says };
  const pair = (mains: Mains, load: number | null, left: Measured, right: Measured): Pair => {
    const between = difference(left, right);
    return {
      mains,
      load,
      a: left,
      b: right,
      difference: between,
      differs: Math.abs(between.value) > expandedUncertainty(between),
    };
  };
  const only: string[] = [];
  const pairs = a.series.byMains.flatMap((left) => {
    const right = b.series.byMains.find((one) => mainsLabel(one.mains) === mainsLabel(left.mains));
    if (!right) {
      only.push(`Only ${a.name} was measured at ${mainsLabel(left.mains)}.`);
      return [];
    }
    const loads = left.loads.flatMap((one) => {
      const other = right.loads.find(({ load }) => Math.abs(load - one.load) < 1e-6);
      return other ? [pair(left.mains, one.load, one.efficiency, other.efficiency)] : [];
    });
    const average = left.average && right.average ? [pair(left.mains, null, left.average, right.average)] : [];
    return [...average, ...loads];
  });
  for (const { mains } of b.series.byMains)
    if (!a.series.byMains.some((one) => mainsLabel(one.mains) === mainsLabel(mains)))
      only.push(`Only ${b.name} was measured at ${mainsLabel(mains)}.`);
  return { pairs, unlike: [...says, ...only] };
}

/** A side that may be chosen, with the readings it is made of. */
export interface Candidate {
  readonly id: string;
  readonly side: Side;
  readonly pointIds: readonly string[];
}

/**
 * The first two sides of two lists that can be compared, so that a comparison opens on something to see. What is made of
 * the same readings says nothing about itself.
 * @returns null where no two can be
 */
export function firstComparable<S extends Candidate>(a: readonly S[], b: readonly S[]): readonly [S, S] | null {
  for (const left of a)
    for (const right of b) {
      const shared = left.pointIds.some((id) => right.pointIds.includes(id));
      if (!shared && compareSeries(left.side, right.side).pairs.length > 0) return [left, right];
    }
  return null;
}
