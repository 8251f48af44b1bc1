// What a driver says when a rig cannot be set as a step wants it, or a load not be trusted.
import { ScpiError } from '@lastmark/bench/scpi';

/** Why a step cannot be set up, in a sentence for the person at the bench. */
export class SettingProblem extends Error {}

/** A port offers nothing at all. */
export class NoOffers extends SettingProblem {}

/** Loads were switched off meanwhile: what wanted to switch one on is too late. */
export class SwitchedOff extends Error {}

/** A load was told to go off and has not said that it is: in the sentence for the person at the bench. */
export class NobodyKnows extends Error {}

/** An instrument did not do what it was told, or did not answer: a rig has several, so the sentence names it. */
export class InstrumentProblem extends Error {}

/** Silence, in whichever way it came. */
const SILENCE: readonly ScpiError['kind'][] = ['down', 'timeout'];

/** Speak to an instrument; where that fails, say to which. What must not be commanded now is no fault of its. */
export async function saying<T>({ name }: { readonly name: string }, speak: () => Promise<T>): Promise<T> {
  try {
    return await speak();
  } catch (error) {
    if (!(error instanceof ScpiError) || error.kind === 'barred' || error.kind === 'closed') throw error;
    const help = SILENCE.includes(error.kind) ? ' Is it on, and connected?' : '';
    throw new InstrumentProblem(`"${name}": ${error.message}${help}`);
  }
}
