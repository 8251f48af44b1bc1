// What one looks at in the morning.
import type { RunState, SampleName } from './plan-types.ts';

/** Something that stands on the shelf, and why it is told. */
interface OfSample {
  sample: SampleName;
}

export interface Today {
  /** Day of the server, ISO 8601. */
  day: string;
  /** Runs that are not over. */
  runs: (OfSample & { id: string; title: string; state: RunState; person: string; says: string })[];
  /** Meters whose calibration ends soon, or ended; the most overdue first. */
  calibration: { id: string; name: string; due: string; days: number }[];
  /** Samples that were lent and go back by a day; the most urgent first. */
  loans: (OfSample & { by: string; days: number })[];
  /** Reports nobody followed up for months. */
  followUps: (OfSample & { code: string; issued: string })[];
  /** Samples with promises left borderline. */
  borderline: (OfSample & { claims: number })[];
  /** Of samples with most promises open, what would settle most for its time; the best first. */
  next: (OfSample & { title: string; seconds: number; expected: number; open: number })[];
}
