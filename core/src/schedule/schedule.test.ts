import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random/index.ts';
import { gapOf, headsOf, lowerBound, oneMachine, planDay, planFaults, tailsOf } from './index.ts';
import type { DayProblem, Person, Task } from './types.ts';

const task = (id: string, seconds: number, part: Partial<Task> = {}): Task => ({
  id,
  title: id,
  sampleId: id,
  seconds,
  needs: ['load'],
  attended: false,
  after: [],
  fixed: null,
  ...part,
});
const after = (...ids: string[]) => ids.map((id) => ({ id, gap: 0 }));
const LOAD = { id: 'load', title: 'Load', until: null };
const ALWAYS: Person = { id: 'p', title: 'Warden', there: [{ from: 0, to: 1e6 }] };
const problem = (tasks: readonly Task[], part: Partial<DayProblem> = {}): DayProblem => ({
  tasks,
  resources: [LOAD],
  people: [ALWAYS],
  setUp: 0,
  now: 0,
  ...part,
});
const startOf = (plan: ReturnType<typeof planDay>, id: string) => plan.placed.find((one) => one.id === id)?.start;

/** Every order of tasks on one machine: the best there is, without anything of how plans are made. */
function bestFinish(tasks: readonly Task[], setUp: number): number {
  let best = Number.POSITIVE_INFINITY;
  const ends = new Map<string, number>();
  const visit = (left: readonly Task[], free: number, sample: string | null): void => {
    if (left.length === 0) {
      best = Math.min(best, Math.max(...ends.values()));
      return;
    }
    for (const one of left) {
      if (one.after.some(({ id }) => !ends.has(id))) continue;
      const ready = Math.max(0, ...one.after.map(({ id, gap }) => (ends.get(id) ?? 0) + gap));
      const uses = one.needs.length > 0;
      const change = uses && sample !== null && sample !== one.sampleId ? setUp : 0;
      const start = uses ? Math.max(ready, free + change) : ready;
      ends.set(one.id, start + one.seconds);
      visit(
        left.filter((other) => other !== one),
        uses ? start + one.seconds : free,
        uses ? one.sampleId : sample,
      );
      ends.delete(one.id);
    }
  };
  visit(tasks, 0, null);
  return best;
}

describe('one machine with heads and tails', () => {
  it('is what it is worked out to be by hand', () => {
    // Carlier’s relaxation: jobs (head, length, tail behind): (0,5,2), (3,2,9): preempted at 3, over at 5 + 9 = 14.
    expect(
      oneMachine([
        { head: 0, seconds: 5, tail: 7 },
        { head: 3, seconds: 2, tail: 11 },
      ]),
    ).toBe(14);
    expect(oneMachine([])).toBe(0);
    expect(oneMachine([{ head: 4, seconds: 3, tail: 3 }])).toBe(7);
  });
});

describe('heads, tails and bounds', () => {
  const chain = [task('a', 10), task('b', 20, { after: [{ id: 'a', gap: 5 }] }), task('c', 5, { after: after('b') })];
  it('follow the chain with its waits', () => {
    expect(tailsOf(chain).get('a')).toBe(40);
    expect(headsOf(chain, 0).get('c')).toBe(35);
    expect(lowerBound(problem(chain))).toEqual({ seconds: 40, resourceId: null });
  });
  it('wait for people: an attended step fits into one presence, and all of them into all there is', () => {
    const hour = 3600;
    const there = [
      { from: 8 * hour, to: 12 * hour },
      { from: 13 * hour, to: 17 * hour },
    ];
    const people = [{ id: 'p', title: 'Warden', there }];
    const two = [task('a', 3 * hour, { attended: true }), task('b', 3 * hour, { attended: true, after: after('a') })];
    // From 8 to 11; three hours more fit in after one o’clock only.
    expect(lowerBound(problem(two, { people, now: 8 * hour })).seconds).toBe(16 * hour);
    // Three of two hours on a machine each: four hours in the morning, and two behind one o’clock.
    const three = ['x', 'y', 'z'].map((id) => task(id, 2 * hour, { attended: true, needs: [id] }));
    const machines = ['x', 'y', 'z'].map((id) => ({ id, title: id, until: null }));
    const day = problem(three, { people, now: 8 * hour, resources: machines });
    expect(lowerBound(day)).toEqual({ seconds: 15 * hour, resourceId: null, people: true });
    expect(planDay(day)).toMatchObject({ finish: 15 * hour, bound: 15 * hour });
    expect(planDay(day).holdsUp).toContain('Nobody is there when it could go on');
    // A second person ends it at ten, and at noon for the third.
    const both = { ...day, people: [...people, { id: 'q', title: 'Keeper', there }] };
    expect(lowerBound(both).seconds).toBe(11 * hour);
    expect(planDay(both).finish).toBe(12 * hour);
  });
  it('know that a person stays from one stretch into the next, in whatever order they are told', () => {
    const there = [
      { from: 100, to: 200 },
      { from: 0, to: 100 },
      { from: 150, to: 260 },
    ];
    const day = problem([task('a', 250, { attended: true })], { people: [{ id: 'p', title: 'Warden', there }] });
    const plan = planDay(day);
    expect(plan).toMatchObject({ finish: 250, bound: 250, left: [] });
    expect(lowerBound(day).seconds).toBe(250);
    expect(planFaults(day, plan)).toEqual([]);
  });
  it('never lie beyond the best there is with one person who takes breaks', () => {
    const random = seededRandom(77);
    let reached = 0;
    for (let turn = 0; turn < 60; turn += 1) {
      const tasks = Array.from({ length: 5 }, (_one, at) =>
        task(`t${at}`, 60 * (1 + Math.floor(random() * 9)), {
          attended: true,
          sampleId: `s${at % 2}`,
          after: at > 1 && random() < 0.4 ? after(`t${at - 2}`) : [],
        }),
      );
      const there = [0, 1, 2, 3, 4, 5].map((at) => ({ from: 840 * at, to: 840 * at + 600 }));
      const fits = (from: number, length: number) =>
        there.map(({ from: comes, to }) => (Math.max(from, comes) + length <= to ? Math.max(from, comes) : Infinity));
      // Every order, each as early as the one machine and the one person allow; a set-up belongs to the step behind it.
      let best = Number.POSITIVE_INFINITY;
      const visit = (left: readonly Task[], free: number, sample: string | null, done: ReadonlySet<string>): void => {
        if (left.length === 0) best = Math.min(best, free);
        for (const one of left) {
          if (one.after.some(({ id }) => !done.has(id))) continue;
          const change = sample !== null && sample !== one.sampleId ? 60 : 0;
          const at = Math.min(...fits(free, change + one.seconds));
          const rest = left.filter((other) => other !== one);
          visit(rest, at + change + one.seconds, one.sampleId, new Set([...done, one.id]));
        }
      };
      visit(tasks, 0, null, new Set());
      const day = problem(tasks, { people: [{ id: 'p', title: 'Warden', there }], setUp: 60 });
      const bound = lowerBound(day).seconds;
      expect(bound).toBeLessThanOrEqual(best + 1e-9);
      const plan = planDay(day);
      expect(planFaults(day, plan)).toEqual([]);
      expect(plan.finish).toBeGreaterThanOrEqual(best - 1e-9);
      if (plan.finish <= best + 1e-9) reached += 1;
    }
    expect(reached).toBeGreaterThan(50);
  });
  it('wait for a delivery, and a sample that goes back goes first or is left out', () => {
    const late = task('late', 10, { from: 50 });
    const back = task('back', 10, { due: 25 });
    const day = problem([task('long', 20), late, back]);
    expect(headsOf(day.tasks, 0).get('late')).toBe(50);
    const plan = planDay(day);
    expect(planFaults(day, plan)).toEqual([]);
    expect([plan.left, plan.finish]).toEqual([[], 60]);
    expect(plan.placed.map(({ id }) => id)).toEqual(['back', 'long', 'late']);
    const tooMuch = problem([task('first', 10, { due: 12 }), task('second', 10, { due: 12 })]);
    expect(planDay(tooMuch).left).toEqual([{ id: expect.any(String), why: 'It has to go back before that.' }]);
    // The checker believes neither.
    const wrong = [
      { id: 'late', start: 0, end: 10, personId: null, setUp: 0 },
      { id: 'long', start: 10, end: 30, personId: null, setUp: 0 },
      { id: 'back', start: 30, end: 40, personId: null, setUp: 0 },
    ];
    expect(planFaults(day, { placed: wrong, left: [] })).toEqual([
      '“late” begins before its sample is there.',
      '“back” is over after its sample has to be back.',
    ]);
  });
  it('of a resource are all its work, and a set-up a sample', () => {
    const three = [task('a', 10), task('b', 10), task('c', 10)];
    expect(lowerBound(problem(three, { setUp: 4 }))).toEqual({ seconds: 38, resourceId: 'load' });
    // While one cools for 30 s the other is set up twice, or the load waits: 4 s are lost at least, and what the shorter wait of 3 s takes.
    const cooling = [
      task('a1', 10, { sampleId: 'a' }),
      task('a2', 10, { sampleId: 'a', after: [{ id: 'a1', gap: 30 }] }),
      task('a3', 10, { sampleId: 'a', after: [{ id: 'a2', gap: 3 }] }),
      task('b', 100),
    ];
    expect(lowerBound(problem(cooling, { setUp: 4 }))).toEqual({ seconds: 130 + 4 + 4 + 3, resourceId: 'load' });
    expect(planDay(problem(cooling, { setUp: 4 })).finish).toBeGreaterThanOrEqual(141);
  });
  it('tasks that wait for each other are told', () => {
    const circle = [task('a', 1, { after: after('b') }), task('b', 1, { after: after('a') })];
    expect(() => planDay(problem(circle))).toThrow('waits for itself');
    expect(() => planDay(problem([task('a', 1, { after: after('gone') })]))).toThrow('not planned');
  });
});

describe('a bench day', () => {
  it('lets another sample measure while one cools', () => {
    const tasks = [
      task('soak', 3600, { sampleId: 'q' }),
      task('cool', 600, { sampleId: 'q', needs: [], after: after('soak') }),
      task('idle', 300, { sampleId: 'q', after: after('cool') }),
      task('other', 600, { sampleId: 'e' }),
    ];
    const plan = planDay(problem(tasks));
    expect(plan.finish).toBe(4500);
    expect(startOf(plan, 'other')).toBe(3600);
    expect(gapOf(plan)).toBe(0);
    expect(planFaults(problem(tasks), plan)).toEqual([]);
  });
  it('sets up once for steps of one sample in a row', () => {
    const tasks = ['q', 'e'].flatMap((sampleId) => [1, 2, 3].map((n) => task(`${sampleId}${n}`, 100, { sampleId })));
    const plan = planDay(problem(tasks, { setUp: 50 }));
    expect(plan.finish).toBe(650);
    expect(plan.attended).toBe(50);
    expect(plan.placed.filter(({ setUp }) => setUp > 0)).toHaveLength(1);
  });
  it('waits for people, says so, and lets what nobody attends run while they are away', () => {
    const people = [{ id: 'p', title: 'Warden', there: [{ from: 3600, to: 7200 }] }];
    const tasks = [
      task('soak', 3600, { sampleId: 'q' }),
      task('replug', 600, { sampleId: 'q', attended: true, after: after('soak') }),
      task('look', 600, { sampleId: 'q', attended: true }),
    ];
    const plan = planDay(problem(tasks, { people }));
    expect(startOf(plan, 'soak')).toBe(0);
    expect(plan.placed.find(({ id }) => id === 'replug')?.personId).toBe('p');
    expect(plan.finish).toBe(4800);
    expect(planFaults(problem(tasks, { people }), plan)).toEqual([]);
    const late = planDay(problem([task('look', 600, { attended: true })], { people }));
    expect(late.holdsUp).toBe(
      'Nobody is there when it could go on: with somebody always there it would be over 1.0 h sooner.',
    );
  });
  it('leaves out what cannot be done, with why, and what hangs on it', () => {
    const long = [
      task('long', 7200, { attended: true }),
      task('behind', 10, { after: after('long') }),
      task('short', 10),
    ];
    const people = [{ id: 'p', title: 'Warden', there: [{ from: 0, to: 3600 }] }];
    const plan = planDay(problem(long, { people }));
    expect(plan.left.map(({ id, why }) => [id, why])).toEqual([
      ['long', 'Nobody is there for so long.'],
      ['behind', 'What has to be over before it is left out.'],
    ]);
    expect(planFaults(problem(long, { people }), plan)).toEqual([]);
    const ends = planDay(problem([task('late', 100)], { resources: [{ ...LOAD, until: 50 }] }));
    expect(ends.left[0]?.why).toBe('The calibration of “Load” ends before it could be done.');
    expect(planDay(problem([task('a', 10, { attended: true })], { people: [] })).left[0]?.why).toContain(
      'somebody has to be',
    );
  });
  it('keeps what is fixed where it is, and fits the rest around it', () => {
    const tasks = [task('held', 100, { fixed: 200 }), task('a', 150), task('b', 150)];
    const plan = planDay(problem(tasks, { now: 0 }));
    expect(startOf(plan, 'held')).toBe(200);
    expect(planFaults(problem(tasks), plan)).toEqual([]);
    expect(plan.finish).toBe(450);
    const later = planDay(problem(tasks, { now: 250 }));
    expect(Math.min(startOf(later, 'a') ?? 0, startOf(later, 'b') ?? 0)).toBe(300);
  });
  it('is the same for the same, and nothing for nothing', () => {
    const tasks = Array.from({ length: 12 }, (_one, at) => task(`t${at}`, 50 + 13 * at, { sampleId: `s${at % 3}` }));
    const one = problem(tasks, { setUp: 30 });
    expect(planDay(one, { tries: 30 })).toEqual(planDay(one, { tries: 30 }));
    expect(planDay(problem([]))).toMatchObject({ placed: [], finish: 0, left: [] });
  });
});

describe('held against every order there is', () => {
  const random = seededRandom(20_261_128);
  const one = (most: number) => Math.floor(random() * most);
  it.each(Array.from({ length: 40 }, (_one, at) => [at] as const))(
    'problem %i: never below the best, the bound never above it',
    () => {
      const count = 4 + one(3);
      const tasks = Array.from({ length: count }, (_each, at): Task => {
        const before = at > 0 && random() < 0.4 ? [{ id: `t${one(at)}`, gap: one(3) * 10 }] : [];
        return task(`t${at}`, 10 + one(90), {
          sampleId: `s${one(3)}`,
          needs: random() < 0.85 ? ['load'] : [],
          after: before,
        });
      });
      const setUp = one(2) * 25;
      const given = problem(tasks, { setUp });
      const plan = planDay(given, { tries: 300 });
      const best = bestFinish(tasks, setUp);
      expect(planFaults(given, plan)).toEqual([]);
      expect(plan.finish).toBeGreaterThanOrEqual(best - 1e-6);
      expect(plan.bound).toBeLessThanOrEqual(best + 1e-6);
      // The list finds the best of so few, or nearly.
      expect(plan.finish).toBeLessThanOrEqual(best * 1.05 + 1e-6);
    },
  );
});

describe('the checker', () => {
  const tasks = [task('a', 10, { sampleId: 'q' }), task('b', 10, { sampleId: 'e', attended: true, after: after('a') })];
  const given = problem(tasks, { setUp: 5 });
  const good = planDay(given);
  const moved = (id: string, part: object) => ({
    left: [],
    placed: good.placed.map((one) => (one.id === id ? { ...one, ...part } : one)),
  });
  it.each([
    ['an overlap', moved('b', { start: 12, end: 22 }), 'at once'],
    ['an order', moved('b', { start: 5, end: 15 }), 'begins before “a” is over'],
    ['a length', moved('a', { end: 12 }), 'not as long'],
    ['nobody there', moved('b', { personId: null }), 'Nobody is there'],
    ['the past', moved('a', { start: -5, end: 5 }), 'in the past'],
    ['a hole', { left: [], placed: good.placed.slice(1) }, 'neither placed nor left out'],
    [
      'a stranger',
      { left: [], placed: [...good.placed, { id: 'x', start: 0, end: 1, personId: null, setUp: 0 }] },
      'nobody asked for',
    ],
  ])('sees %s', (_what, plan, says) => expect(planFaults(given, plan).join(' ')).toContain(says));
  it('has nothing against a good plan', () => expect(planFaults(given, good)).toEqual([]));
});
