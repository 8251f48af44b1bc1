// Drills in words.
import type { DrillRow } from '@lastmark/contract/practice';
import type { Basis, DrillResult } from '@lastmark/core/drill';

export const BASIS_WORDS: Readonly<Record<Basis, string>> = {
  measured: 'Measured',
  'listed only': 'Listed only',
  'not measured': 'Not measured',
};

/** Hours and minutes of bench time: `1 h 05 min`. */
export function benchTime(seconds: number): string {
  const minutes = Math.max(0, Math.round(seconds / 60));
  const hours = Math.floor(minutes / 60);
  return hours === 0 ? `${minutes} min` : `${hours} h ${String(minutes % 60).padStart(2, '0')} min`;
}

const count = (number: number, one: string, many: string): string =>
  number === 0 ? `no ${many}` : number === 1 ? `one ${one}` : `${number} ${many}`;

/** How a drill went, in a line. */
export function resultWords({ found, hidden, slips, passed }: DrillResult): string {
  const what = hidden === 0 ? 'nothing was hidden' : `${found === hidden ? 'all' : found} of ${hidden} found`;
  return passed
    ? `Passed: ${what}`
    : `${what[0]?.toUpperCase()}${what.slice(1)}, ${count(slips.length, 'slip', 'slips')}`;
}

/** How a drill stands, for a list. */
export const drillWords = ({ state, result }: DrillRow): string =>
  state === 'under way' ? 'under way' : state === 'left' || !result ? 'left without a verdict' : resultWords(result);

export interface Progress {
  readonly person: string;
  readonly tried: number;
  readonly passed: number;
  /** Levels passed at least once. */
  readonly levels: ReadonlySet<string>;
}

/** How far each person is, who practised last first. @param rows newest first */
export function progressOf(rows: readonly DrillRow[]): readonly Progress[] {
  const people = [...new Set(rows.map(({ person }) => person))];
  return people.map((person) => {
    const own = rows.filter((row) => row.person === person && row.state === 'stated');
    const passed = own.filter(({ result }) => result?.passed);
    return {
      person,
      tried: own.length,
      passed: passed.length,
      levels: new Set(passed.map(({ levelId }) => levelId)),
    };
  });
}
