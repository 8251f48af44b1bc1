// What a complete result will still lack after a sheet, and why: said before it starts.

import type { ReadOut } from '../read-out/index.ts';
import { type Mains, mainsLabel, type Output, sameOutputs } from '../reading/index.ts';
import { isOffered, stepTitle } from '../steps/index.ts';
import { ofKind } from './steps.ts';
import type { SheetStep } from './types.ts';

/** Loads an average is made of. */
const FOUR = [1, 0.75, 0.5, 0.25];
const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.005;

interface Wanted {
  readonly outputs: readonly Output[];
  /** Where it is wanted; null for every mains. */
  readonly mains: Mains | null;
  /** Labels of the mains it is averaged at already. */
  readonly measuredAt: readonly string[];
}

interface Asked {
  readonly steps: readonly SheetStep[];
  readonly wanted: readonly Wanted[];
  /** The mains a complete result has. */
  readonly mains: readonly Mains[];
  /** Loadings of the efficiency station there are. */
  readonly loadings: readonly (readonly Output[])[];
  readonly readOuts: readonly ReadOut[];
}

/**
 * Sentences about what is missing after every step of a sheet is done; empty when nothing is.
 * @example sheetGaps({ steps: [], wanted: [], mains: [], loadings: [], readOuts: [] }) // []
 */
export function sheetGaps({ steps, wanted, mains, loadings, readOuts }: Asked): readonly string[] {
  const done = steps.filter(({ skip }) => skip === null);
  const points = ofKind(done, 'point').filter(({ station }) => station === 'efficiency');
  const idle = ofKind(done, 'idle').filter(({ attached }) => attached === 'nothing');
  const at = (one: { readonly mains: Mains }, label: string) => mainsLabel(one.mains) === label;
  const says: string[] = [];
  for (const label of mains.map(mainsLabel)) {
    const here = wanted.filter((one) => one.mains === null || mainsLabel(one.mains) === label);
    const missing = here.filter(
      ({ outputs, measuredAt }) =>
        !measuredAt.includes(label) &&
        !FOUR.every((load) =>
          points.some((one) => at(one, label) && near(one.load, load) && sameOutputs(one.outputs, outputs)),
        ),
    );
    if (missing.length > 0 && !points.some((one) => at(one, label)))
      says.push(`Efficiency at ${label}: the sheet has no points there.`);
    else
      for (const { outputs } of missing)
        says.push(`${stepTitle({ outputs, load: 1 })} at ${label}: the sheet has not all four loads.`);
    if (!idle.some((one) => at(one, label))) says.push(`Idle at ${label}: the sheet does not read it.`);
  }
  for (const outputs of loadings) {
    const refused = outputs.find((one) => !isOffered(readOuts, one));
    if (refused)
      says.push(`${stepTitle({ outputs, load: 1 })}: the read-out of ${refused.port} does not offer that current.`);
  }
  return says;
}
