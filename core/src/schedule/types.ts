// A bench day: tasks with length, instruments, order and people; when each begins.

/** Something only one task uses at a time: an instrument, a rig, a chamber. */
export interface Resource {
  readonly id: string;
  readonly title: string;
  /** It may be used until then, s from the beginning: its calibration ends. Null for as long as it takes. */
  readonly until: number | null;
}

/** When somebody is there, s from the beginning. */
export interface Presence {
  readonly from: number;
  readonly to: number;
}

export interface Person {
  readonly id: string;
  readonly title: string;
  readonly there: readonly Presence[];
}

export interface Task {
  readonly id: string;
  readonly title: string;
  /** What it is done with: the same thing is set up once for tasks in a row. */
  readonly sampleId: string;
  /** s */
  readonly seconds: number;
  /** Ids of what it needs all the time. */
  readonly needs: readonly string[];
  /** Somebody must be there all the time. */
  readonly attended: boolean;
  /** Ids of tasks that are over before, each with the time that has to pass between, s. */
  readonly after: readonly { readonly id: string; readonly gap: number }[];
  /** What it is done with is not there before, s: a delivery. Null or left out for there already. */
  readonly from?: number | null | undefined;
  /** It must be over by then, s: what it is done with goes back. Null or left out for whenever. */
  readonly due?: number | null | undefined;
  /** Begun already, or held there by somebody, s; null for free. */
  readonly fixed: number | null;
}

export interface DayProblem {
  readonly tasks: readonly Task[];
  readonly resources: readonly Resource[];
  readonly people: readonly Person[];
  /** Another sample is set up on what is shared, s: time nobody measures in, with somebody there. */
  readonly setUp: number;
  /** Nothing free begins before, s: the day is that far on. */
  readonly now: number;
}

export interface Placed {
  readonly id: string;
  readonly start: number;
  readonly end: number;
  /** Who is there; null for a task nobody attends. */
  readonly personId: string | null;
  /** How long before its start what it needs is set up for it, s; 0 where it stands already. */
  readonly setUp: number;
}

export interface DayPlan {
  /** By start. */
  readonly placed: readonly Placed[];
  /** When everything is over, s. */
  readonly finish: number;
  /** No plan is over before, s: proven. */
  readonly bound: number;
  /** Time somebody has to be there, set-ups included, s. */
  readonly attended: number;
  /** Tasks that cannot be placed at all, each with why. */
  readonly left: readonly { readonly id: string; readonly why: string }[];
  /** What holds it up, in a sentence. */
  readonly holdsUp: string;
}
