// Why a step does not go on as planned, and what is said of it.
import { ScpiError } from '@lastmark/bench/scpi';
import type { Ask, RunInput, StepOutcome } from '@lastmark/contract';
import { ProfileError } from '@lastmark/core/instrument';
import { type SheetStep, stepsDone } from '@lastmark/core/plan';
import { ProblemError } from '../http/problem.ts';
import { InstrumentProblem, NobodyKnows, SettingProblem, SwitchedOff } from './driver-problems.ts';

/** A person asked for something else. */
export class Turn extends Error {
  constructor(readonly ask: Exclude<Ask, { kind: 'note' | 'go on' }>) {
    super(ask.kind);
  }
}

/** Loads are off and someone has to look: a limit, a lost instrument, an empty chair. */
export class Fault extends Error {}

/** A load draws nothing from an output that is there: it may not be connected, or have gone off by itself. */
export class DrawsNothing extends Fault {
  constructor(readonly found: string) {
    super(`${found}. Is it connected?`);
  }
}

/** How an output went that should be there. */
export type Gone = 'cut off' | 'dropped a level';

/** An output that should be there is gone. After a cut-off nothing counts until it is proved again. */
export class Silent extends Error {
  constructor(
    readonly ports: readonly string[],
    readonly how: Gone,
    says: string,
    /** What it is for the record, where a load was on; null where there is none, or where it is stored already. */
    readonly finding: Omit<RunInput & { kind: 'hold' }, 'id' | 'rigId' | 'takenAt'> | null = null,
    /** The step is finished and has said so: only what comes next waits. */
    readonly finished = false,
  ) {
    super(says);
  }
}

/** The step cannot be done, the sheet goes on: what it says becomes its outcome. */
export class StepFailed extends Error {
  constructor(
    says: string,
    readonly madeIds: readonly string[] = [],
  ) {
    super(says);
  }
}

/** The server is being stopped. */
export class Closing extends Error {}

/** The database stopped answering: nothing more can be kept, and nobody could take the run over. */
export class DatabaseGone extends Error {
  constructor() {
    super('The database stopped answering.');
  }
}

/** What is proposed when an output fell silent. */
const AFTER_SILENCE =
  'Let it cool, replug it, or cycle the supply, then go on: the output is proved again before anything counts.';

const ON_HOLD = 'On hold: loads are off.';

/**
 * What a run that holds says of itself.
 * @param why it holds
 * @param unknown what nobody knows about its load; null when the load said that it is off
 * @param loadName of that load
 * @returns what it says now, and once a load that was in doubt has said that it is off
 */
export function heldWords(why: string, unknown: string | null, loadName: string): { now: string; offSince: string } {
  const known = why === ON_HOLD ? 'On hold.' : why;
  if (unknown === null) return { now: why, offSince: why };
  // The doubt may be why it holds: it is said once.
  const itself = unknown.startsWith(why);
  const late = `"${loadName}" did not say in time that it was off.`;
  return {
    now: itself ? unknown : `${known} ${unknown}`,
    offSince: `${itself ? late : known} Loads are off now.`,
  };
}

/** Why the run holds after an error; null for one that is no reason to hold. */
export function whyHeld(error: unknown): string | null {
  if (error instanceof Fault) return error.message;
  if (error instanceof Silent) return `${error.message} ${AFTER_SILENCE}`;
  if (error instanceof SwitchedOff) return 'Loads were switched off.';
  if (error instanceof Turn && error.ask.kind === 'hold') return ON_HOLD;
  const aboutTheRig = [NobodyKnows, SettingProblem, InstrumentProblem, ScpiError, ProfileError, ProblemError];
  return error instanceof Error && aboutTheRig.some((kind) => error instanceof kind) ? error.message : null;
}

/** How a run ended, in a sentence. */
export function runSummary(outcomes: Readonly<Record<string, StepOutcome>>, steps: readonly SheetStep[]): string {
  const all = Object.values(outcomes);
  const whole = stepsDone(steps, outcomes);
  const count = (state: StepOutcome['state']) => all.filter((one) => one.state === state).length;
  const rest = [
    count('failed') > 0 ? `${count('failed')} could not be done` : '',
    count('skipped') > 0 ? `${count('skipped')} left out` : '',
  ].filter(Boolean);
  return `${whole.done} of ${whole.steps} steps done${rest.length > 0 ? `, ${rest.join(', ')}` : ''}.`;
}
