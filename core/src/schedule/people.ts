// Who is there, and free, for a stretch of time.
import type { Person, Presence } from './types.ts';

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

  constructor(people: readonly Person[]) {
    this.#calendars = people.map((person) => ({
      person: { ...person, there: [...person.there].sort((a: Presence, b: Presence) => a.from - b.from) },
      busy: [],
    }));
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
