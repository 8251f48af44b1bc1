// What the steps say of an offer: each offer of a read-out with the state its steps give it.

import { type ClaimState, settle } from '../evidence/index.ts';
import { describeOffer, type SourceObject } from '../pd/index.ts';
import type { StepResult } from './judge.ts';

/** The loaded steps that stand for an offer of a port. */
function stepsOf(results: readonly StepResult[], port: string, object: SourceObject): readonly StepResult[] {
  return results.filter(({ step: { outputs, load, supply, from } }) => {
    const [only, ...others] = outputs;
    if (load === 0 || !only || others.length > 0 || only.port !== port) return false;
    if (object.kind !== 'fixed') return supply === object.kind && from === describeOffer(object);
    return (
      !only.supply && Math.abs(only.volts - object.volts) < 0.01 * object.volts && only.amps >= object.amps - 0.011
    );
  });
}

/**
 * State of an offer by its load steps: proven once all of them are, short or borderline as soon as one is; else it is
 * only advertised.
 */
export function offerState(results: readonly StepResult[], port: string, object: SourceObject): ClaimState {
  const states = stepsOf(results, port, object).map(({ state }) => state);
  if (states.includes('short')) return 'short';
  if (states.includes('borderline')) return 'borderline';
  if (states.includes('cannot be decided')) return 'cannot be decided';
  const all = states.length > 0 && states.every((state) => state === 'proven');
  return object.kind === 'fixed'
    ? settle(states).state === 'proven'
      ? 'proven'
      : 'advertised only'
    : all
      ? 'proven'
      : 'advertised only';
}
