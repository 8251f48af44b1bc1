// Where each step's voltage stands in its tolerance: −100 % at the lower end, 100 % at the upper one.
import { stepTitle } from '../steps/index.ts';
import type { StepResult } from './judge.ts';

export interface StepMark {
  readonly title: string;
  readonly port: string;
  /** V as read; null where the step was not read. */
  readonly volts: number | null;
  /** Place in the tolerance, %; null as well where it has no two ends. */
  readonly place: number | null;
  /** Its expanded uncertainty, % of half the tolerance; null where it is not known. */
  readonly u: number | null;
  readonly state: StepResult['state'];
}

/**
 * The marks of a step: one an output. A step that was not read has one without a place.
 * @example a 20 V level, ±5 %, read at 19.5 V ± 0.1 V → place −50, u 10
 */
export function marksOf({ step, tests, state }: StepResult): readonly StepMark[] {
  const title = stepTitle(step);
  const volts = tests.filter(({ quantity }) => quantity === 'voltage').slice(0, step.outputs.length);
  if (volts.length === 0) {
    return [{ title, port: step.outputs[0]?.port ?? '', volts: null, place: null, u: null, state }];
  }
  return volts.map(({ value, expanded, limit }, index) => {
    const port = step.outputs[index]?.port ?? '';
    const none = { title, port, volts: value, place: null, u: null, state };
    if (value === null || limit.kind !== 'within') return none;
    const middle = (limit.low + limit.high) / 2;
    const half = (limit.high - limit.low) / 2;
    if (!(half > 0)) return none;
    const u = Number.isFinite(expanded) ? (expanded / half) * 100 : null;
    return { ...none, place: ((value - middle) / half) * 100, u };
  });
}
