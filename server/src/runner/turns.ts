// Why a step does not go on as planned.
import type { Ask } from '@lastmark/contract';

/** A person asked for something else. */
export class Turn extends Error {
  constructor(readonly ask: Exclude<Ask, { kind: 'note' | 'go on' }>) {
    super(ask.kind);
  }
}

/** Loads are off and someone has to look: a limit, a lost instrument, an empty chair. */
export class Fault extends Error {}

/** The step cannot be done, the sheet goes on: what it says becomes its outcome. */
export class StepFailed extends Error {}

/** The server is being stopped. */
export class Closing extends Error {}
