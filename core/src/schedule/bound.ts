// What no plan can beat: the longest chain, and each resource with the work that needs it.
import { headsOf, tailsOf } from './order.ts';
import type { DayProblem, Task } from './types.ts';

/**
 * Least finish of tasks on one resource, each with its head and tail, when they may be interrupted: always the one with the longest tail
 * that is ready (J. R. Jackson, 1955; J. Carlier, Eur. J. Oper. Res. 11 (1982) 42). No plan without interruptions is over before.
 * @param jobs heads, lengths and tails, s; the tail counts from the start
 */
export function oneMachine(
  jobs: readonly { readonly head: number; readonly seconds: number; readonly tail: number }[],
): number {
  const waiting = [...jobs].map((job) => ({ ...job, left: job.seconds })).sort((a, b) => a.head - b.head);
  const ready: { left: number; readonly behind: number }[] = [];
  let at = waiting[0]?.head ?? 0;
  let finish = 0;
  let next = 0;
  while (next < waiting.length || ready.length > 0) {
    while (next < waiting.length && (waiting[next]?.head ?? 0) <= at + 1e-9) {
      const job = waiting[next] as (typeof waiting)[number];
      ready.push({ left: job.left, behind: job.tail - job.seconds });
      next += 1;
    }
    if (ready.length === 0) {
      at = waiting[next]?.head ?? at;
      continue;
    }
    let best = 0;
    for (let one = 1; one < ready.length; one += 1)
      if ((ready[one]?.behind ?? 0) > (ready[best]?.behind ?? 0)) best = one;
    const job = ready[best] as (typeof ready)[number];
    const until = next < waiting.length ? (waiting[next]?.head ?? Number.POSITIVE_INFINITY) : Number.POSITIVE_INFINITY;
    const span = Math.min(job.left, until - at);
    at += span;
    job.left -= span;
    if (job.left <= 1e-9) {
      ready.splice(best, 1);
      finish = Math.max(finish, at + job.behind);
    }
  }
  return finish;
}

export interface Bound {
  readonly seconds: number;
  /** The resource that gives it; null where the chain of tasks does. */
  readonly resourceId: string | null;
}

/** Samples on a resource beyond the first each cost a set-up at least once. */
function withSetUps(tasks: readonly Task[], setUp: number): number {
  return Math.max(0, new Set(tasks.map(({ sampleId }) => sampleId)).size - 1) * setUp;
}

/**
 * The greatest of all lower bounds, s from the beginning: the longest chain, and for every resource what it has to do, with what stands before
 * and behind it. Set-ups count once a sample.
 */
export function lowerBound({ tasks, resources, setUp, now }: DayProblem): Bound {
  if (tasks.length === 0) return { seconds: now, resourceId: null };
  const heads = headsOf(tasks, now);
  const tails = tailsOf(tasks);
  const chain = Math.max(...tasks.map(({ id }) => (heads.get(id) ?? now) + (tails.get(id) ?? 0)));
  let best: Bound = { seconds: chain, resourceId: null };
  for (const { id } of resources) {
    const own = tasks.filter(({ needs }) => needs.includes(id));
    if (own.length === 0) continue;
    const jobs = own.map((task) => ({
      head: heads.get(task.id) ?? now,
      seconds: task.seconds,
      tail: tails.get(task.id) ?? 0,
    }));
    const preemptive = oneMachine(jobs);
    // Where it is never idle, set-ups come on top of all its work.
    const busy =
      Math.min(...jobs.map(({ head }) => head)) +
      jobs.reduce((sum, { seconds }) => sum + seconds, 0) +
      withSetUps(own, setUp) +
      Math.min(...jobs.map(({ seconds, tail }) => tail - seconds));
    const seconds = Math.max(preemptive, busy);
    if (seconds > best.seconds + 1e-9) best = { seconds, resourceId: id };
  }
  return best;
}
