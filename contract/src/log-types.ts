// The log: who did what when, as it is read.

/** One field of what was done, in words and units. */
export interface LogChange {
  field: string;
  /** Null where there was nothing. */
  was: string | null;
  is: string | null;
}

export interface LogRow {
  id: string;
  at: string;
  who: string;
  personId: string | null;
  /** What let them in. */
  through: string;
  operation: string;
  /** What was done, in words. */
  what: string;
  sampleId: string | null;
  /** The sample's name; null where there is none, or none any more. */
  sample: string | null;
  changes: LogChange[];
  /** It changed something that was there, and what was there is in no entry. */
  unknownBefore: boolean;
  /** How many changes are not told. */
  moreChanges: number;
  /** Whether it can be undone: nothing was done to the same thing since. */
  canUndo: boolean;
  /** The entry it undid. */
  undoes: string | null;
  sealed: boolean;
}

export interface LogQuery {
  /** Of one person; `machine` for whoever was not told apart. */
  readonly person?: string;
  readonly sample?: string;
  /** Whatever happened to one thing: a reading, a claim, an instrument. */
  readonly thing?: string;
  readonly q?: string;
  /** Those before an entry. */
  readonly before?: string;
  readonly size?: number;
}

export interface LogPage {
  items: LogRow[];
  /** What to ask for as `before` to go on; null at the end. */
  next: string | null;
}

export interface LogCheck {
  /** Entries in the chain, as far as they are in the database. */
  sealed: number;
  /** Entries before them that were put into archives. */
  archived: number;
  /** Entries that are not in it yet. */
  waiting: number;
  /** The last seal: kept elsewhere, it shows later that nothing before it was changed. */
  head: string;
  wrong: { place: number; why: string }[];
}
