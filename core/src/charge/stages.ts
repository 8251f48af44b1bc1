// The stages of a charge: from the course of power between voltage changes, swings told apart first.
import { noiseOf } from '../changes/index.ts';
import { bend, refined } from './cuts.ts';
import { meanOf, medianOf, type Range, smoothed } from './parts.ts';
import { type Piece, piecesOf } from './segments.ts';
import type { ChargeSeries } from './series.ts';
import { huntingOf, voltageChanges } from './swings.ts';

/**
 * - `constant`: power stays within a tenth
 * - `rising`: it grows
 * - `stepping down`: several shorter constants, each lower
 * - `tail`: it falls towards the end
 * - `falling`: it falls, and is not the end
 * - `hunting`: it swings to and fro again and again
 */
export const STAGE_KINDS = ['constant', 'rising', 'stepping down', 'tail', 'falling', 'hunting'] as const;
export type StageKind = (typeof STAGE_KINDS)[number];

export interface Stage {
  /** s from the first sample */
  readonly from: number;
  readonly to: number;
  /** Mean W. */
  readonly watts: number;
  /** Mean V; null where not logged. */
  readonly volts: number | null;
  readonly kind: StageKind;
}

/** Pieces are looked for among so many values at most; their ends are then set among all. */
const MOST_COARSE = 1200;
/** What no curve of ours explains, as a part of the highest power. */
const UNEXPLAINED = 0.006;
/** A stage lasts at least, s. */
const LEAST_STAGE = 90;
/** Change over a piece below which it counts as constant, as a part of it. */
const CONSTANT = 0.1;
/** Pieces whose ends meet within this part of the highest power may be one stage. */
const MEET = 0.05;
/** Constants nearer than this are one. */
const SAME = 0.04;
/** A fall that ends this low goes on, however flat. */
const LOW = 0.12;
/** Power that is away for less than half of this says nothing of a stage, s. */
const SMOOTHED = 60;
/** Steps that make one stage of their own, each lower by this part of the one before. */
const LEAST_STEPS = 3;
const STEP_DOWN = 0.05;

/** Coarse values: medians of so many, so that a step stays one. */
function coarse(values: Float64Array, { from, to }: Range, by: number): Float64Array {
  return Float64Array.from({ length: Math.max(1, Math.ceil((to - from) / by)) }, (_, index) =>
    by === 1
      ? (values[from + index] as number)
      : medianOf(values, from + index * by, Math.min(to, from + (index + 1) * by)),
  );
}

interface Part extends Range {
  readonly begins: number;
  readonly ends: number;
  readonly hunting: boolean;
  /** Whether the voltage changed right before it: then it is joined to nothing. */
  readonly fixed: boolean;
}

/** A short slope from one piece to the next is the step between them, drawn out by the values it is made of. */
function withoutBridges(pieces: readonly Part[], top: number, most: number): Part[] {
  const out: Part[] = [];
  for (const [index, part] of pieces.entries()) {
    const before = out.at(-1);
    const next = pieces[index + 1];
    const between =
      before &&
      next &&
      !part.hunting &&
      !part.fixed &&
      !next.fixed &&
      part.to - part.from <= most &&
      Math.abs(part.ends - part.begins) > MEET * top &&
      Math.abs(next.begins - before.ends) > MEET * top &&
      Math.sign(part.ends - part.begins) === Math.sign(next.begins - before.ends);
    if (!(before && between)) out.push(part);
  }
  return out.map((part, index) => ({ ...part, to: out[index + 1]?.from ?? part.to }));
}

function partsOf({ watts, step }: ChargeSeries, range: Range, top: number, noise: number, fixed: boolean): Part[] {
  const length = range.to - range.from;
  if (length <= 0) return [];
  const by = Math.max(1, Math.ceil(length / MOST_COARSE), Math.floor(10 / step));
  const values = coarse(watts, range, by);
  const pieces = piecesOf(values, {
    noise: Math.max(noise / Math.sqrt(by), UNEXPLAINED * top),
    least: Math.max(2, Math.round(LEAST_STAGE / (step * by))),
  });
  const cuts = pieces.map(({ to }) => Math.min(range.to, range.from + to * by));
  return pieces.map((piece: Piece, index): Part => {
    const from = index === 0 ? range.from : (cuts[index - 1] as number);
    return {
      from,
      to: cuts[index] as number,
      begins: piece.begins,
      ends: piece.ends,
      hunting: false,
      fixed: index === 0 && fixed,
    };
  });
}

const courseOf = ({ begins, ends }: Part): 'constant' | 'rising' | 'falling' => {
  const change = (ends - begins) / Math.max(Math.abs(begins), Math.abs(ends), 1e-9);
  return Math.abs(change) <= CONSTANT ? 'constant' : change > 0 ? 'rising' : 'falling';
};

/** Neighbours that are one course: constants alike, or a fall that goes on where the last one ended. */
function joinedParts(parts: readonly Part[], top: number): Part[] {
  const out: Part[] = [];
  for (const part of parts) {
    const last = out.at(-1);
    const join =
      last &&
      !part.fixed &&
      !part.hunting &&
      !last.hunting &&
      (courseOf(last) === 'constant' && courseOf(part) === 'constant'
        ? Math.abs(part.begins + part.ends - last.begins - last.ends) / 2 < SAME * top
        : (courseOf(last) === courseOf(part) || (courseOf(last) === 'falling' && last.ends < LOW * top)) &&
          Math.abs(part.begins - last.ends) < MEET * top);
    if (last && join) out[out.length - 1] = { ...last, to: part.to, ends: part.ends };
    else out.push(part);
  }
  return out;
}

/** Runs of constants, each lower than the one before, as one stage each. */
function stepped(stages: readonly (Stage & { readonly fixed: boolean })[]): Stage[] {
  const out: Stage[] = [];
  let at = 0;
  while (at < stages.length) {
    let end = at + 1;
    const lower = (index: number) => {
      const [before, now] = [stages[index - 1], stages[index]];
      return (
        before !== undefined &&
        now !== undefined &&
        before.kind === 'constant' &&
        now.kind === 'constant' &&
        !now.fixed &&
        now.watts < before.watts * (1 - STEP_DOWN)
      );
    };
    while (end < stages.length && lower(end)) end += 1;
    // The first constant is what it steps down from.
    const steps = stages.slice(at + 1, end);
    const { fixed: _, ...first } = stages[at] as Stage & { fixed: boolean };
    out.push(first);
    if (steps.length >= LEAST_STEPS) {
      const [begin, last] = [steps[0] as Stage, steps.at(-1) as Stage];
      const seconds = last.to - begin.from;
      const mean = (pick: (one: Stage) => number) =>
        steps.reduce((sum, one) => sum + pick(one) * (one.to - one.from), 0) / seconds;
      out.push({
        from: begin.from,
        to: last.to,
        watts: mean(({ watts }) => watts),
        volts: begin.volts === null ? null : mean(({ volts }) => volts ?? 0),
        kind: 'stepping down',
      });
    } else for (const { fixed: __, ...one } of steps) out.push(one);
    at = Math.max(end, at + 1);
  }
  return out;
}

/**
 * Stages between two indexes of a series.
 * @param ended whether the session reached its end there: a fall to it is then the tail
 */
export function stagesOf(whole: ChargeSeries, range: Range, ended: boolean): readonly Stage[] {
  const { volts, step } = whole;
  const series = { ...whole, watts: smoothed(whole.watts, Math.round(SMOOTHED / step / 2)) };
  const { watts } = series;
  if (range.to - range.from < 4) return [];
  const sorted = watts.slice(range.from, range.to).sort();
  const top = sorted[Math.floor(0.97 * (sorted.length - 1))] ?? 0;
  if (!(top > 0)) return [];
  const noise = noiseOf(whole.watts.subarray(range.from, range.to));
  const changes = new Set(voltageChanges(series, range));
  const hunting = huntingOf(whole, range, top);
  const bounds = [
    ...new Set([range.from, ...changes, ...hunting.flatMap(({ from, to }) => [from, to]), range.to]),
  ].sort((a, b) => a - b);
  const parts = bounds.slice(1).flatMap((to, index): Part[] => {
    const from = bounds[index] as number;
    const fixed = changes.has(from);
    if (hunting.some((one) => from >= one.from && to <= one.to)) {
      const mean = meanOf(watts, { from, to });
      return [{ from, to, begins: mean, ends: mean, hunting: true, fixed }];
    }
    return partsOf(series, { from, to }, top, noise, fixed);
  });
  const joined = joinedParts(withoutBridges(parts, top, Math.round((2.2 * LEAST_STAGE) / step)), top);
  const by = Math.max(1, Math.ceil((range.to - range.from) / MOST_COARSE), Math.floor(10 / step));
  for (let at = 1; at < joined.length; at += 1) {
    const [left, right] = [joined[at - 1] as Part, joined[at] as Part];
    if (changes.has(left.to) || left.hunting || right.hunting) continue;
    const bends =
      courseOf(left) === 'constant' && courseOf(right) === 'falling' && Math.abs(left.ends - right.begins) < MEET * top;
    const cut = (bends ? bend(series, left, right) : null) ?? refined(series, left, right, by);
    joined[at - 1] = { ...left, to: cut };
    joined[at] = { ...right, from: cut };
  }
  const long = joined
    .filter(({ from, to, fixed }) => fixed || (to - from) * step >= LEAST_STAGE / 2)
    // What is too short to be one of its own belongs to the one before.
    .map((part, index, all) => ({ ...part, to: all[index + 1]?.from ?? range.to }));
  const named = long.map((part, index) => {
    const course = courseOf(part);
    const isLast = index === long.length - 1;
    const kind: StageKind = part.hunting
      ? 'hunting'
      : course !== 'falling'
        ? course
        : (isLast && ended) || part.ends < 0.4 * top
          ? 'tail'
          : 'falling';
    return {
      from: part.from * step,
      to: part.to * step,
      watts: meanOf(whole.watts, part),
      volts: volts && meanOf(volts, part),
      kind,
      fixed: part.fixed,
    };
  });
  return stepped(named);
}
