// What the measurement of bench days runs: days nobody shaped for the planner, each plan looked at by the checker.
import { seededRandom } from '../../core/src/random/index.ts';
import { type DayProblem, gapOf, planDay, planFaults, type Task } from '../../core/src/schedule/index.ts';

const SAMPLES = 6;
const STEPS = 40;

/** Six samples of forty steps on two rigs that share a scope, a chamber and an analyser; two people, a shift each. */
export function dayOf(seed: number): DayProblem {
  const random = seededRandom(seed);
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const rigs = [
    ['rig-a', 'source-a', 'load-a'],
    ['rig-b', 'source-b', 'load-b'],
  ] as const;
  const shared = ['scope', 'chamber'];
  const tasks: Task[] = [];
  for (let sample = 0; sample < SAMPLES; sample += 1) {
    const rig = one(rigs);
    for (let step = 0; step < STEPS; step += 1) {
      const kind = random();
      // Mostly load points of half a minute to a quarter of an hour; now and then a warm-up, a soak, a time to cool.
      const [seconds, needs, attended] =
        kind < 0.7
          ? [30 + Math.round(random() * 900), [...rig], random() < 0.15]
          : kind < 0.82
            ? [60 + Math.round(random() * 240), [...rig, 'scope'], random() < 0.5]
            : kind < 0.9
              ? [1800, [...rig], false]
              : kind < 0.94
                ? [3600, [...rig, 'chamber'], false]
                : [600, [], false];
      tasks.push({
        id: `s${sample}-${step}`,
        title: `S${sample}: step ${step}`,
        sampleId: `s${sample}`,
        seconds: seconds as number,
        needs: needs as string[],
        attended: attended as boolean,
        after: step > 0 ? [{ id: `s${sample}-${step - 1}`, gap: 0 }] : [],
        fixed: null,
      });
    }
  }
  const hours = (from: number, to: number) =>
    Array.from({ length: 5 }, (_day, day) => ({ from: (from + 24 * day) * 3600, to: (to + 24 * day) * 3600 }));
  return {
    tasks,
    resources: [...rigs.flat(), ...shared].map((id) => ({ id, title: id, until: null })),
    people: [
      { id: 'early', title: 'Early', there: hours(0, 12) },
      { id: 'late', title: 'Late', there: hours(12, 24) },
    ],
    setUp: 600,
    now: 0,
  };
}

export interface DayFigures {
  readonly gap: number;
  readonly left: number;
  readonly faults: number;
  readonly milliseconds: number;
  /** With a third of it done, and the next step a quarter longer than planned. */
  readonly againMilliseconds: number;
  readonly againFaults: number;
}

export function measureOne(seed: number, clock: () => number): DayFigures {
  const problem = dayOf(seed);
  const begun = clock();
  const plan = planDay(problem, { tries: 1200, seed });
  const milliseconds = clock() - begun;
  const now = plan.finish / 3;
  const startOf = new Map(plan.placed.map((one) => [one.id, one]));
  const again: DayProblem = {
    ...problem,
    now,
    tasks: problem.tasks.map((task) => {
      const placed = startOf.get(task.id);
      if (!placed || placed.start > now) return task;
      const running = placed.end > now;
      return { ...task, fixed: placed.start, seconds: running ? task.seconds * 1.25 : task.seconds };
    }),
  };
  const then = clock();
  const replanned = planDay(again, { tries: 60, seed });
  return {
    gap: gapOf(plan),
    left: plan.left.length,
    faults: planFaults(problem, plan).length,
    milliseconds,
    againMilliseconds: clock() - then,
    againFaults: planFaults(again, replanned).length,
  };
}
