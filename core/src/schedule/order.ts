// Precedence among tasks: an order in which each finds what is before it, and how much follows behind each.
import type { Person, Task } from './types.ts';

/**
 * Tasks in an order in which everything before a task stands before it.
 * @throws RangeError where tasks wait for each other, or for one that is not there
 */
export function inPrecedence(tasks: readonly Task[]): readonly Task[] {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const done = new Set<string>();
  const open = new Set<string>();
  const sorted: Task[] = [];
  const visit = (task: Task): void => {
    if (done.has(task.id)) return;
    if (open.has(task.id)) throw new RangeError(`“${task.title}” waits for itself.`);
    open.add(task.id);
    for (const { id } of task.after) {
      const before = byId.get(id);
      if (!before) throw new RangeError(`“${task.title}” waits for something that is not planned.`);
      visit(before);
    }
    open.delete(task.id);
    done.add(task.id);
    sorted.push(task);
  };
  for (const task of tasks) visit(task);
  return sorted;
}

/** Time that passes at least from the start of each task until all that hangs on it is over, s. */
export function tailsOf(tasks: readonly Task[]): ReadonlyMap<string, number> {
  const sorted = inPrecedence(tasks);
  const tails = new Map(sorted.map(({ id, seconds }) => [id, seconds]));
  for (const task of [...sorted].reverse())
    for (const { id, gap } of task.after) {
      const before = sorted.find((one) => one.id === id);
      if (before) tails.set(id, Math.max(tails.get(id) ?? 0, before.seconds + gap + (tails.get(task.id) ?? 0)));
    }
  return tails;
}

/** Earliest start of an attended stretch from a moment on, whoever is there: it fits into one presence. Infinity where it never does. */
function whenThere(from: number, seconds: number, people: readonly Person[]): number {
  let earliest = Number.POSITIVE_INFINITY;
  for (const { there } of people)
    for (const { from: comes, to: goes } of there) {
      const at = Math.max(from, comes);
      if (at + seconds <= goes + 1e-9) earliest = Math.min(earliest, at);
    }
  return earliest;
}

/**
 * Earliest start of each task by what is before it alone, s.
 * @param people who may be there for what is attended; left out asks for nobody
 */
export function headsOf(
  tasks: readonly Task[],
  now: number,
  people: readonly Person[] | null = null,
): ReadonlyMap<string, number> {
  const heads = new Map<string, number>();
  const byId = new Map(tasks.map((task) => [task.id, task]));
  for (const task of inPrecedence(tasks)) {
    const ready = task.after.map(({ id, gap }) => (heads.get(id) ?? now) + (byId.get(id)?.seconds ?? 0) + gap);
    const at = Math.max(now, task.from ?? now, ...ready);
    const there = people && task.attended ? whenThere(at, task.seconds, people) : at;
    // What nobody is ever there for is left out of the plan, and holds nothing up.
    heads.set(task.id, task.fixed ?? (Number.isFinite(there) ? there : at));
  }
  return heads;
}
