// Whether a plan can be carried out, looked at by itself: nothing of how it was made is believed.
import { withPresences } from './people.ts';
import type { DayPlan, DayProblem, Placed, Task } from './types.ts';

const SLACK = 1e-6;

/** Everything that is wrong with a plan, a sentence each; empty for one that can be carried out. */
export function planFaults(problem: DayProblem, plan: Pick<DayPlan, 'placed' | 'left'>): readonly string[] {
  const { tasks, resources, people, setUp, now } = withPresences(problem);
  const at = new Map(plan.placed.map((one) => [one.id, one]));
  const taskOf = new Map(tasks.map((task) => [task.id, task]));
  const faults: string[] = [];
  const say = (text: string) => void faults.push(text);

  for (const task of tasks) {
    const own = at.get(task.id);
    const isLeft = plan.left.some(({ id }) => id === task.id);
    if (!own && !isLeft) say(`“${task.title}” is neither placed nor left out.`);
    if (own && isLeft) say(`“${task.title}” is placed and left out.`);
    if (!own) continue;
    if (Math.abs(own.end - own.start - task.seconds) > SLACK) say(`“${task.title}” is not as long as it is.`);
    if (task.fixed !== null && Math.abs(own.start - task.fixed) > SLACK)
      say(`“${task.title}” was moved, and is fixed.`);
    if (task.fixed === null && own.start - own.setUp < now - SLACK) say(`“${task.title}” begins in the past.`);
    if (task.fixed === null && task.from != null && own.start < task.from - SLACK)
      say(`“${task.title}” begins before its sample is there.`);
    if (task.fixed === null && task.due != null && own.end > task.due + SLACK)
      say(`“${task.title}” is over after its sample has to be back.`);
    for (const { id, gap } of task.after) {
      const before = at.get(id);
      if (!before) say(`“${task.title}” is placed without what has to be over before it.`);
      else if (own.start < before.end + gap - SLACK)
        say(`“${task.title}” begins before “${taskOf.get(id)?.title}” is over.`);
    }
    for (const id of task.needs) {
      const until = resources.find((one) => one.id === id)?.until ?? null;
      if (until !== null && own.end > until + SLACK) say(`“${task.title}” uses something beyond its calibration.`);
    }
  }

  const pairs = plan.placed.flatMap((one) => {
    const task = taskOf.get(one.id);
    return task ? [[one, task] as const] : [];
  });
  if (pairs.length < plan.placed.length) say('Something is placed that nobody asked for.');
  for (const { id, title } of resources) {
    const own = pairs.filter(([, { needs }]) => needs.includes(id)).sort(([a], [b]) => a.start - b.start);
    own.forEach(([placed, task], index) => {
      const [before, other] = own[index - 1] ?? [];
      if (!before || !other) return;
      // What somebody fixed may stand without room for a set-up: that is theirs to know.
      const needed = other.sampleId === task.sampleId || task.fixed !== null ? 0 : setUp;
      if (placed.start < before.end + needed - SLACK)
        say(`“${title}” is used for “${other.title}” and “${task.title}” at once.`);
    });
  }

  const spent = new Map<string, (readonly [number, number, Task, Placed])[]>();
  for (const [placed, task] of pairs) {
    const length = placed.setUp + (task.attended ? task.seconds : 0);
    if (length <= SLACK) continue;
    if (placed.personId === null) {
      if (task.fixed === null) say(`Nobody is there for “${task.title}”.`);
      continue;
    }
    const span = [placed.start - placed.setUp, task.attended ? placed.end : placed.start, task, placed] as const;
    spent.set(placed.personId, [...(spent.get(placed.personId) ?? []), span]);
  }
  for (const [id, spans] of spent) {
    const there = people.find((one) => one.id === id)?.there ?? [];
    const sorted = [...spans].sort((a, b) => a[0] - b[0]);
    sorted.forEach(([from, to, task], index) => {
      if (!there.some((one) => one.from <= from + SLACK && one.to >= to - SLACK))
        say(`“${task.title}” is planned while its person is away.`);
      const next = sorted[index + 1];
      if (next && next[0] < to - SLACK) say(`One person has “${task.title}” and “${next[2].title}” at once.`);
    });
  }
  return faults;
}
