// Who is there, and free, for a stretch of time.
import type { DayProblem, Person, Presence } from './types.ts';

/** Stretches in order, those that meet or overlap as one: a task may run from one day into the next. */
function joined(there: readonly Presence[]): readonly Presence[] {
  const found: Presence[] = [];
  for (const one of [...there].sort((a, b) => a.from - b.from)) {
    const last = found.at(-1);
    if (last && one.from <= last.to) found[found.length - 1] = { from: last.from, to: Math.max(last.to, one.to) };
    else found.push(one);
  }
  return found;
}

/** The same problem, where every person is there in stretches that lie apart. */
export const withPresences = <Problem extends Pick<DayProblem, 'people'>>(problem: Problem): Problem => ({
  ...problem,
  people: problem.people.map((person) => ({ ...person, there: joined(person.there) })),
});

interface Calendar {
  readonly person: Person;
  /** Stretches already given away, by their start. */
  readonly busy: { from: number; to: number }[];
}

/** Earliest start from some moment at which a stretch fits into a presence beside what is busy; null where it never does. */
function earliest({ person, busy }: Calendar, from: number, length: number): number | null {
  for (const { from: comes, to: goes } of person.there) {
    let at = Math.max(from, comes);
    for (const one of busy) {
      if (one.to <= at) continue;
      if (one.from >= at + length) break;
      at = one.to;
    }
    if (at + length <= goes + 1e-9) return at;
  }
  return null;
}

/** People of a day, and what each does. */
export class People {
  readonly #calendars: readonly Calendar[];

  /** @param people as {@link withPresences} has them */
  constructor(people: readonly Person[]) {
    this.#calendars = people.map((person) => ({ person, busy: [] }));
  }

  /** Whoever can first; null where nobody ever can. */
  first(from: number, length: number): { readonly personId: string; readonly at: number } | null {
    let best: { personId: string; at: number } | null = null;
    for (const calendar of this.#calendars) {
      const at = earliest(calendar, from, length);
      if (at !== null && (best === null || at < best.at)) best = { personId: calendar.person.id, at };
    }
    return best;
  }

  take(personId: string, from: number, to: number): void {
    const calendar = this.#calendars.find(({ person }) => person.id === personId);
    if (!calendar || to <= from) return;
    calendar.busy.push({ from, to });
    calendar.busy.sort((a, b) => a.from - b.from);
  }
}
