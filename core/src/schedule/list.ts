// One plan by a rule of priority: tasks are placed one after the other, each as early as it fits.
import { inPrecedence } from './order.ts';
import { People } from './people.ts';
import type { DayProblem, Placed, Task } from './types.ts';

/** How the next task is chosen among those that could begin. */
export interface Rule {
  /** Lower is earlier; told the earliest start of a task and whether it needs a set-up. */
  readonly cost: (task: Task, start: number, setUp: number) => number;
}

interface Use {
  freeAt: number;
  sampleId: string | null;
  /** Placed by somebody, by their start. */
  readonly fixed: { readonly from: number; readonly to: number; readonly sampleId: string }[];
}

interface Fit {
  readonly start: number;
  readonly setUp: number;
  readonly personId: string | null;
}

export interface Listed {
  readonly placed: readonly Placed[];
  readonly left: readonly { readonly id: string; readonly why: string }[];
}

class Day {
  readonly #problem: DayProblem;
  readonly #uses: Map<string, Use>;
  readonly #people: People;
  readonly #ends = new Map<string, number>();
  readonly placed: Placed[] = [];

  constructor(problem: DayProblem) {
    this.#problem = problem;
    this.#uses = new Map(problem.resources.map(({ id }) => [id, { freeAt: 0, sampleId: null, fixed: [] }]));
    this.#people = new People(problem.people);
    const fixed = problem.tasks.flatMap((task) => (task.fixed === null ? [] : [{ task, from: task.fixed }]));
    for (const { task, from } of fixed.sort((a, b) => a.from - b.from)) {
      const end = from + task.seconds;
      for (const id of task.needs) {
        const use = this.#uses.get(id);
        if (!use) continue;
        if (end > problem.now) use.fixed.push({ from, to: end, sampleId: task.sampleId });
        else if (end >= use.freeAt) {
          // What is over only says what stands there.
          use.freeAt = end;
          use.sampleId = task.sampleId;
        }
      }
      const there = task.attended ? this.#people.first(from, task.seconds) : null;
      const personId = there && there.at <= from + 1e-9 ? there.personId : null;
      if (personId) this.#people.take(personId, from, end);
      this.#ends.set(task.id, end);
      this.placed.push({ id: task.id, start: from, end, personId, setUp: 0 });
    }
  }

  ready({ id: own, after, fixed }: Task): boolean {
    return fixed === null && !this.#ends.has(own) && after.every(({ id }) => this.#ends.has(id));
  }

  isPlaced({ id }: Task): boolean {
    return this.#ends.has(id);
  }

  /** What stands on a resource just before a moment. */
  #before(use: Use, at: number): string | null {
    const last = use.fixed.findLast(({ to }) => to <= at + 1e-9);
    return last && last.to >= use.freeAt ? last.sampleId : use.sampleId;
  }

  /** The earliest moment from which a task has all it needs, with the set-up before it; people left aside. */
  #resourcesFrom(task: Task, from: number): { readonly start: number; readonly setUp: number } {
    let at = from;
    for (let turn = 0; turn < 200; turn += 1) {
      let setUp = 0;
      let next = at;
      for (const id of task.needs) {
        const use = this.#uses.get(id);
        if (!use) continue;
        const before = this.#before(use, at);
        const own = before !== null && before !== task.sampleId ? this.#problem.setUp : 0;
        setUp = Math.max(setUp, own);
        // Nothing is set up in the past.
        next = Math.max(next, use.freeAt + own, own > 0 ? this.#problem.now + own : 0);
        for (const one of use.fixed) {
          const behind = one.sampleId === task.sampleId ? 0 : this.#problem.setUp;
          // It is over, and the other one set up, before what is fixed begins; else it waits for it.
          if (next - own < one.to && next + task.seconds + behind > one.from) next = one.to + behind;
        }
      }
      if (next <= at + 1e-9) return { start: at, setUp };
      at = next;
    }
    return { start: Number.POSITIVE_INFINITY, setUp: 0 };
  }

  /** Where a task fits first; or why it never does. */
  fit(task: Task): Fit | string {
    const { now, people, resources } = this.#problem;
    let from = Math.max(now, task.from ?? now, ...task.after.map(({ id, gap }) => (this.#ends.get(id) ?? 0) + gap));
    for (let turn = 0; turn < 200; turn += 1) {
      const { start, setUp } = this.#resourcesFrom(task, from);
      if (!Number.isFinite(start)) return 'What is held in its place leaves no room for it.';
      const late = resources.find(
        ({ id, until }) => task.needs.includes(id) && until !== null && start + task.seconds > until,
      );
      if (late) return `The calibration of “${late.title}” ends before it could be done.`;
      if (task.due != null && start + task.seconds > task.due + 1e-9) return 'It has to go back before that.';
      const length = task.attended ? setUp + task.seconds : setUp;
      if (length === 0) return { start, setUp, personId: null };
      if (people.length === 0) return 'Nobody is there, and somebody has to be.';
      const who = this.#people.first(start - setUp, length);
      if (!who) return 'Nobody is there for so long.';
      if (who.at <= start - setUp + 1e-9) return { start, setUp, personId: who.personId };
      from = who.at + setUp;
    }
    return 'Nobody is there when it could be done.';
  }

  place(task: Task, { start, setUp, personId }: Fit): void {
    const end = start + task.seconds;
    for (const id of task.needs) {
      const use = this.#uses.get(id);
      if (!use) continue;
      use.freeAt = Math.max(use.freeAt, end);
      use.sampleId = task.sampleId;
    }
    if (personId) this.#people.take(personId, start - setUp, task.attended ? end : start);
    this.#ends.set(task.id, end);
    this.placed.push({ id: task.id, start, end, personId, setUp });
  }
}

/** What follows each task, and how much stands before it: worked out once for all orders that are tried. */
export interface Chains {
  readonly followers: ReadonlyMap<string, readonly Task[]>;
  readonly tasks: readonly Task[];
}

/** @throws RangeError where tasks wait for each other */
export function chainsOf({ tasks }: Pick<DayProblem, 'tasks'>): Chains {
  const followers = new Map<string, Task[]>(tasks.map(({ id }) => [id, []]));
  const sorted = inPrecedence(tasks);
  for (const task of sorted) for (const { id } of task.after) followers.get(id)?.push(task);
  return { followers, tasks: sorted };
}

/**
 * A plan by a rule: of the tasks whose predecessors are placed the one of least cost is placed next, as early as it fits. A task that
 * cannot be placed is left with its reason, and so is all that hangs on it.
 */
export function listPlan(problem: DayProblem, { cost }: Rule, chains: Chains = chainsOf(problem)): Listed {
  const day = new Day(problem);
  const left = new Map<string, string>();
  const open = new Set(chains.tasks.filter((task) => day.ready(task)));
  const leave = (task: Task, why: string): void => {
    if (left.has(task.id) || day.isPlaced(task)) return;
    left.set(task.id, why);
    open.delete(task);
    for (const next of chains.followers.get(task.id) ?? []) leave(next, 'What has to be over before it is left out.');
  };
  while (open.size > 0) {
    let best: { task: Task; fit: Fit; cost: number } | null = null;
    for (const task of open) {
      const fit = day.fit(task);
      if (typeof fit === 'string') {
        leave(task, fit);
        continue;
      }
      const own = cost(task, fit.start, fit.setUp);
      if (!best || own < best.cost) best = { task, fit, cost: own };
    }
    if (!best) continue;
    day.place(best.task, best.fit);
    open.delete(best.task);
    for (const next of chains.followers.get(best.task.id) ?? [])
      if (!left.has(next.id) && day.ready(next)) open.add(next);
  }
  return {
    placed: [...day.placed].sort((a, b) => a.start - b.start || (a.id < b.id ? -1 : 1)),
    left: [...left].map(([id, why]) => ({ id, why })),
  };
}
