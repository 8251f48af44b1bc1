// A bench day planned: many orders are tried, the best is kept, and what no plan could beat stands beside it.
import { seededRandom } from '../random/index.ts';
import { lowerBound } from './bound.ts';
import { chainsOf, type Listed, listPlan } from './list.ts';
import { tailsOf } from './order.ts';
import { withPresences } from './people.ts';
import type { DayPlan, DayProblem } from './types.ts';

export interface PlanOptions {
  /** Orders that are tried at most; fewer where one is as good as can be. */
  readonly tries?: number;
  readonly seed?: number;
}

const TRIES = 400;
/** Within this part of the bound no more is tried: it would not be worth the wait. */
const GOOD_ENOUGH = 1.005;

const finishOf = ({ placed }: Listed, now: number): number =>
  placed.reduce((last, { end }) => Math.max(last, end), now);

const attendedOf = ({ placed }: Listed, { tasks }: DayProblem): number => {
  const attended = new Map(tasks.map((task) => [task.id, task.attended]));
  return placed.reduce((sum, { id, start, end, setUp }) => sum + setUp + (attended.get(id) ? end - start : 0), 0);
};

/** Fewer left out, then sooner over, then fewer attended hours. */
const better = (a: Scored, b: Scored): boolean =>
  a.left !== b.left
    ? a.left < b.left
    : Math.abs(a.finish - b.finish) > 1
      ? a.finish < b.finish
      : a.attended < b.attended - 1;

interface Scored {
  readonly listed: Listed;
  readonly left: number;
  readonly finish: number;
  readonly attended: number;
}

/** A rule of priority, by numbers. */
interface Drawn {
  /** What hangs on a task counts so much. */
  readonly weight: number;
  /** A set-up counts so much more than its time. */
  readonly sameSample: number;
  /** s */
  readonly noise: number;
  /** Samples that come later, s. */
  readonly ranks: ReadonlyMap<string, number>;
}

/** What has most behind it goes first. */
const PLAIN: Drawn = { weight: 0.5, sameSample: 1, noise: 0, ranks: new Map() };

function draw(samples: readonly string[], random: () => number): Drawn {
  // From hardly any order of the samples to one after the other.
  const apart = random() < 0.3 ? 0 : 60 * 600 ** random();
  return {
    // Mostly little: what hangs on a task matters where one chain is much the longest.
    weight: random() ** 3,
    sameSample: 3 * random() ** 2,
    noise: random() * 600,
    ranks: new Map(samples.map((sampleId) => [sampleId, apart * random()])),
  };
}

function nearTo({ weight, sameSample, ranks }: Drawn, random: () => number): Drawn {
  const about = (value: number) => value * (0.75 + 0.5 * random());
  return {
    weight: about(weight),
    sameSample: about(sameSample),
    noise: random() * 300,
    ranks: new Map([...ranks].map(([id, rank]) => [id, about(rank)])),
  };
}

/** The best of many orders: by what hangs on each task, with more or less weight on set-ups and on chance. */
function bestOf(problem: DayProblem, { tries = TRIES, seed = 1 }: PlanOptions, bound: number): Scored {
  const tails = tailsOf(problem.tasks);
  const chains = chainsOf(problem);
  const random = seededRandom(seed);
  const samples = [...new Set(problem.tasks.map(({ sampleId }) => sampleId))];
  let best: Scored | null = null;
  let kept: Drawn = PLAIN;
  for (let turn = 0; turn < Math.max(1, tries); turn += 1) {
    // The first is the plain rule. Then rules are drawn; from half-way on mostly near the best of them.
    const near = turn > tries / 2 && turn % 4 !== 0;
    const drawn = turn === 0 ? PLAIN : near ? nearTo(kept, random) : draw(samples, random);
    const { weight, sameSample, noise, ranks } = drawn;
    const listed = listPlan(
      problem,
      {
        cost: (task, start, setUp) =>
          start -
          weight * (tails.get(task.id) ?? 0) +
          sameSample * setUp +
          (ranks.get(task.sampleId) ?? 0) +
          (noise > 0 ? noise * random() : 0),
      },
      chains,
    );
    const scored: Scored = {
      listed,
      left: listed.left.length,
      finish: finishOf(listed, problem.now),
      attended: attendedOf(listed, problem),
    };
    if (!best || better(scored, best)) {
      best = scored;
      kept = drawn;
    }
    if (best.left === 0 && best.finish <= bound * GOOD_ENOUGH) break;
  }
  return best as Scored;
}

const hours = (seconds: number): string => `${(seconds / 3600).toFixed(1)} h`;

/** What holds it up: people who are away, the instrument with most to do, or the longest chain of one sample. */
function holdsUp(problem: DayProblem, finish: number, bound: ReturnType<typeof lowerBound>): string {
  const { tasks, people, resources, now } = problem;
  if (tasks.length === 0) return 'Nothing is planned.';
  const tails = tailsOf(tasks);
  if (people.length > 0 && tasks.some(({ attended }) => attended)) {
    const always = {
      ...problem,
      people: [...people, { id: '', title: '', there: [{ from: 0, to: Number.MAX_SAFE_INTEGER }] }],
    };
    const free = finishOf(listPlan(always, { cost: (task, start) => start - 0.5 * (tails.get(task.id) ?? 0) }), now);
    if (free < finish - Math.max(600, 0.02 * (finish - now)))
      return `Nobody is there when it could go on: with somebody always there it would be over ${hours(finish - free)} sooner.`;
  }
  if (bound.people) {
    const work = tasks.reduce((sum, task) => sum + (task.attended && task.fixed === null ? task.seconds : 0), 0);
    return `Somebody must be there for ${hours(work)} of it: one more person would end it sooner.`;
  }
  const resource = resources.find(({ id }) => id === bound.resourceId);
  if (resource) {
    const work = tasks
      .filter(({ needs }) => needs.includes(resource.id))
      .reduce((sum, { seconds }) => sum + seconds, 0);
    return `“${resource.title}” has ${hours(work)} of work: a second one would end it sooner.`;
  }
  const longest = [...tasks].sort((a, b) => (tails.get(b.id) ?? 0) - (tails.get(a.id) ?? 0))[0];
  return `The chain that begins with “${longest?.title}” takes ${hours(tails.get(longest?.id ?? '') ?? 0)}: its steps wait for each other.`;
}

/**
 * Plan a bench day: the soonest finish that is found, then the fewest attended hours, beside a bound that is proven.
 * What is fixed stays where it is: steps that run, and those somebody holds in their place.
 * @returns the same plan for the same problem, seed and number of tries
 * @throws RangeError where tasks wait for each other
 */
export function planDay(told: DayProblem, options: PlanOptions = {}): DayPlan {
  const problem = withPresences(told);
  const bound = lowerBound(problem);
  if (problem.tasks.length === 0)
    return {
      placed: [],
      finish: problem.now,
      bound: problem.now,
      attended: 0,
      left: [],
      holdsUp: 'Nothing is planned.',
    };
  const { listed, finish, attended } = bestOf(problem, options, bound.seconds);
  const placed = new Set(listed.placed.map(({ id }) => id));
  // What is left out binds nobody: the bound is of what is planned.
  const reached =
    listed.left.length === 0
      ? bound
      : lowerBound({
          ...problem,
          tasks: problem.tasks
            .filter(({ id }) => placed.has(id))
            .map((task) => ({ ...task, after: task.after.filter(({ id }) => placed.has(id)) })),
        });
  return {
    placed: listed.placed,
    finish,
    bound: Math.min(finish, reached.seconds),
    attended,
    left: listed.left,
    holdsUp: holdsUp(problem, finish, reached),
  };
}

/** How far a plan may be from the best there is, as a part; 0 where it is proven to be the best. */
export const gapOf = ({ finish, bound }: Pick<DayPlan, 'finish' | 'bound'>, now = 0): number =>
  finish - now > 0 ? Math.max(0, (finish - bound) / (finish - now)) : 0;
