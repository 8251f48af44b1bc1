// What follows from how a step turned out, and the steps a run then has.
import { mainsLabel } from '../reading/index.ts';
import { plugOrder } from '../split/sets.ts';
import type { Condition } from './condition-types.ts';
import { conditionOf, percentWords } from './conditions.ts';
import { loadOf, mainsOf, outputsOf, proofPoint, splitStep } from './steps.ts';
import type { NewStep, SheetStep } from './types.ts';

/** What a step turned out as; unknown is null or empty, and nothing follows from it. */
export interface StepFound {
  /** U of what was read over what was read, with all readings of it in this run. */
  readonly relative: number | null;
  /** The part of that no repeat takes away: what the meters share. */
  readonly floor: number | null;
  /** Share of what was asked that each port gave; null for one that fell to another level. */
  readonly given: readonly { readonly port: string; readonly share: number | null }[];
  /** Ports that dropped out while others came, went or were loaded. */
  readonly dropped: readonly string[];
  /** Ports that were gone under load. */
  readonly gone: readonly string[];
}

export const NOTHING_FOUND: StepFound = { relative: null, floor: null, given: [], dropped: [], gone: [] };

/** What follows from a step. */
export interface FollowUp {
  /** Steps right behind it, in their order. */
  readonly add: readonly { readonly step: NewStep; readonly because: string }[];
  /** Steps of the sheet that are left out. */
  readonly leave: readonly { readonly id: string; readonly because: string }[];
  /** What it says where nothing follows although a condition asks for it. */
  readonly says: string | null;
}

const rootOf = ({ id, repeats }: SheetStep): string => repeats ?? id;
const turnsOf = (steps: readonly SheetStep[], step: SheetStep): number =>
  steps.filter((one) => rootOf(one) === rootOf(step)).length;

/** Whether a step reads something that gets surer by being read again. */
export const isRepeated = (step: SheetStep): boolean =>
  step.kind === 'idle' || (step.kind === 'point' && step.station === 'efficiency' && step.load > 0);

/** A step again, as it was planned. */
function again(step: SheetStep): NewStep {
  const { id: _id, because: _because, ...rest } = step;
  return { ...rest, repeats: rootOf(step) } as NewStep;
}

function repeated(
  { within, most }: Condition & { kind: 'repeat' },
  steps: readonly SheetStep[],
  step: SheetStep,
  { relative, floor }: StepFound,
): Partial<FollowUp> {
  if (relative === null) return { says: 'U is not known, so it is not read again.' };
  if (relative <= within) return {};
  if (floor !== null && floor > within)
    return {
      says: `U ${percentWords(relative)}: the meters alone leave ${percentWords(floor)}, so reading again would not reach ${percentWords(within)}. A finer meter would.`,
    };
  const turns = turnsOf(steps, step);
  if (turns >= most)
    return { says: `U ${percentWords(relative)} after ${turns} readings, more than ${percentWords(within)}.` };
  return {
    add: [{ step: again(step), because: `U was ${percentWords(relative)}, more than ${percentWords(within)}.` }],
  };
}

/** Later steps of a sheet at the supply and level of some ports of a step. */
export function restOfLevel(
  steps: readonly SheetStep[],
  step: SheetStep,
  ports: readonly string[],
): readonly SheetStep[] {
  const mains = mainsOf(step);
  const levels = outputsOf(step).filter(({ port }) => ports.includes(port));
  const at = steps.findIndex(({ id }) => id === step.id);
  return steps.slice(at + 1).filter((one) => {
    const own = mainsOf(one);
    if (one.skip !== null || loadOf(one) === 0 || !mains || !own || mainsLabel(own) !== mainsLabel(mains)) return false;
    return outputsOf(one).some(({ port, volts }) =>
      levels.some((level) => level.port === port && Math.abs(level.volts - volts) < 1e-6),
    );
  });
}

const sameSet = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((one) => b.includes(one));

/** Pairs of a port with each other of a set that no step of the sheet reads. */
export function pairsOf(
  steps: readonly SheetStep[],
  order: readonly string[],
  ports: readonly string[],
): readonly string[][] {
  const known = steps.flatMap((one) => (one.kind === 'split' && one.skip === null ? [one.order] : []));
  const pairs: string[][] = [];
  for (const port of ports)
    for (const other of order) {
      const pair = plugOrder([other, port]);
      if (other === port || [...known, ...pairs].some((one) => sameSet(one, pair))) continue;
      pairs.push([...pair]);
    }
  return pairs;
}

export function provedAgain(step: SheetStep, ports: readonly string[]): FollowUp['add'] {
  const mains = mainsOf(step);
  if (!mains) return [];
  return outputsOf(step)
    .filter(({ port }) => ports.includes(port))
    .flatMap((output) =>
      ([0, 1] as const).map((load) => ({
        step: proofPoint(step.by, mains, [output], load),
        because: `${output.port} went away under load.`,
      })),
    );
}

/**
 * What follows from how a step turned out.
 * @param steps of the run, in their order, what was added before among them
 * @param step the one that ended
 * @returns nothing where no condition asks for anything, or where what it asks is not known
 */
export function followUp(
  conditions: readonly Condition[],
  steps: readonly SheetStep[],
  step: SheetStep,
  found: StepFound,
): FollowUp {
  const add: FollowUp['add'][number][] = [];
  const leave: FollowUp['leave'][number][] = [];
  let says: string | null = null;
  const folded = conditionOf(conditions, 'folded');
  const less = folded ? found.given.filter(({ share }) => share === null || share < folded.share) : [];
  for (const one of restOfLevel(
    steps,
    step,
    less.map(({ port }) => port),
  )) {
    const [first] = less;
    if (first)
      leave.push({
        id: one.id,
        because:
          first.share === null
            ? `${first.port} fell to another level.`
            : `${first.port} gave ${percentWords(first.share)} of what was asked.`,
      });
  }
  const repeat = conditionOf(conditions, 'repeat');
  // What folded back is read again by nobody: it would fold again.
  if (repeat && isRepeated(step) && less.length === 0) {
    const then = repeated(repeat, steps, step, found);
    add.push(...(then.add ?? []));
    says = then.says ?? null;
  }
  if (conditionOf(conditions, 'dropped') && step.kind === 'split' && step.order.length > 2)
    for (const pair of pairsOf(steps, step.order, found.dropped))
      add.push({
        step: splitStep(step.by, step.mains, pair),
        because: `${found.dropped.filter((port) => pair.includes(port)).join(', ')} dropped out of ${step.order.join(' + ')}.`,
      });
  // Once a step: what was added for it stands behind it.
  const behind = steps[steps.findIndex(({ id }) => id === step.id) + 1];
  const isProving = (one: SheetStep | undefined) => one?.kind === 'point' && one.because !== undefined && !one.repeats;
  if (conditionOf(conditions, 'gone') && found.gone.length > 0 && !isProving(step) && !isProving(behind))
    add.push(...provedAgain(step, found.gone));
  return { add, leave, says };
}

/** The steps with what follows from one of them; ids of those added are new. */
export function withFollowUp(
  steps: readonly SheetStep[],
  after: string,
  { add, leave }: Pick<FollowUp, 'add' | 'leave'>,
): readonly SheetStep[] {
  const ids = new Set(steps.map(({ id }) => id));
  let number = 1;
  const newId = (): string => {
    while (ids.has(`a${number}`)) number += 1;
    ids.add(`a${number}`);
    return `a${number}`;
  };
  return steps.flatMap((step) => {
    const left = leave.find(({ id }) => id === step.id);
    const own = left && step.skip === null ? { ...step, skip: left.because } : step;
    if (step.id !== after) return [own];
    return [own, ...add.map((one) => ({ ...one.step, id: newId(), because: one.because }) as SheetStep)];
  });
}
