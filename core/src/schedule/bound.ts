// What no plan can beat: the longest chain, and each resource with the work that needs it.
import { headsOf, inPrecedence, tailsOf } from './order.ts';
import { withPresences } from './people.ts';
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
  /** People give it: together they are not there for longer. */
  readonly people?: true;
}

/** Least time between the end of each task and the start of those behind it in its chain, s; by the ids of both. */
function waitsBehind(from: Task, sorted: readonly Task[]): ReadonlyMap<string, number> {
  const ready = new Map<string, number>();
  const behind = new Map<string, number>([[from.id, 0]]);
  for (const task of sorted) {
    if (task === from) continue;
    const waits = task.after.flatMap(({ id, gap }) => {
      const end = behind.get(id);
      return end === undefined ? [] : [end + gap];
    });
    if (waits.length === 0) continue;
    const start = Math.max(...waits);
    ready.set(task.id, start);
    behind.set(task.id, start + task.seconds);
  }
  return ready;
}

/**
 * What a resource loses beside its work at least, s. Samples beyond the first each cost a set-up. Where a sample waits between two of its
 * steps, the resource waits with it, or another sample is set up meanwhile and it comes back: the lesser of both is lost.
 */
function lostOn(own: readonly Task[], sorted: readonly Task[], setUp: number): number {
  const samples = new Map<string, Task[]>();
  for (const task of sorted) {
    if (!own.includes(task)) continue;
    const list = samples.get(task.sampleId);
    if (list) list.push(task);
    else samples.set(task.sampleId, [task]);
  }
  let lost = Math.max(0, samples.size - 1) * setUp;
  for (const list of samples.values()) {
    const waits = list.slice(1).map((task, at) => waitsBehind(list[at] as Task, sorted).get(task.id));
    // Where their order is open nobody knows what lies between.
    if (waits.some((wait) => wait === undefined)) continue;
    for (const wait of waits) lost += Math.min(wait ?? 0, setUp);
  }
  return lost;
}

/**
 * When people have been there for so long together at the earliest, s. All that is attended, and a set-up a further sample, has somebody there.
 * @returns `now` without anything attended; Infinity is never told: whoever is not there long enough leaves something out
 */
function peopleBound({ tasks, people, setUp, now }: DayProblem): number {
  const free = tasks.filter(({ fixed }) => fixed === null);
  const attended = free.filter((task) => task.attended);
  // A set-up stands before the first step of every sample but one on something they share; who shares nothing needs none.
  const sharing = new Map<string, Set<string>>();
  for (const { needs, sampleId } of tasks)
    for (const id of needs) sharing.set(id, (sharing.get(id) ?? new Set()).add(sampleId));
  const setUps = Math.max(0, ...[...sharing.values()].map((samples) => samples.size - 1));
  const fixedSetUps = new Set(tasks.filter(({ fixed }) => fixed !== null).map(({ sampleId }) => sampleId)).size;
  let left = attended.reduce((sum, { seconds }) => sum + seconds, 0) + Math.max(0, setUps - fixedSetUps) * setUp;
  if (left <= 0 || people.length === 0) return now;
  const marks = [...new Set(people.flatMap(({ there }) => there.flatMap(({ from, to }) => [from, to])))]
    .filter((mark) => mark > now)
    .sort((a, b) => a - b);
  let at = now;
  for (const mark of marks) {
    const there = people.filter((one) =>
      one.there.some(({ from, to }) => from <= at + 1e-9 && to >= mark - 1e-9),
    ).length;
    if (there * (mark - at) >= left) return at + left / there;
    left -= there * (mark - at);
    at = mark;
  }
  return now;
}

/**
 * The greatest of all lower bounds, s from the beginning: the longest chain, and for every resource what it has to do, with what stands before
 * and behind it. Set-ups count once a sample.
 */
export function lowerBound(told: DayProblem): Bound {
  const problem = withPresences(told);
  const { tasks, resources, people, setUp, now } = problem;
  if (tasks.length === 0) return { seconds: now, resourceId: null };
  const heads = headsOf(tasks, now, people);
  const tails = tailsOf(tasks);
  const sorted = inPrecedence(tasks);
  const chain = Math.max(...tasks.map(({ id }) => (heads.get(id) ?? now) + (tails.get(id) ?? 0)));
  let best: Bound = { seconds: chain, resourceId: null };
  const there = peopleBound(problem);
  if (there > best.seconds) best = { seconds: there, resourceId: null, people: true };
  for (const { id } of resources) {
    const own = tasks.filter(({ needs }) => needs.includes(id));
    if (own.length === 0) continue;
    const jobs = own.map((task) => ({
      head: heads.get(task.id) ?? now,
      seconds: task.seconds,
      tail: tails.get(task.id) ?? 0,
    }));
    const preemptive = oneMachine(jobs);
    // Whatever else it is, it does all its work and loses what it must.
    const busy =
      Math.min(...jobs.map(({ head }) => head)) +
      jobs.reduce((sum, { seconds }) => sum + seconds, 0) +
      lostOn(own, sorted, setUp) +
      Math.min(...jobs.map(({ seconds, tail }) => tail - seconds));
    const seconds = Math.max(preemptive, busy);
    if (seconds > best.seconds + 1e-9) best = { seconds, resourceId: id };
  }
  return best;
}
