// Tasks of sheets: in their order, with what their rigs bring, a chamber shared, and samples that come and go.
import { describe, expect, it } from 'vitest';
import { makeSheet, methodOf, ofKind } from '../plan/index.ts';
import { type DaySheet, planDay, planFaults, resourcesOf, tasksOf } from './index.ts';

const method = methodOf('local-mains');
if (!method) throw new Error('no method');
const steps = makeSheet(method, {
  ports: ['C1'],
  claims: [{ promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 } }],
  readOuts: [],
  loadings: [],
  devices: [],
  wanted: [],
});
const sheet = (id: string, part: Partial<DaySheet> = {}): DaySheet => ({
  id,
  sampleId: id,
  name: id,
  steps,
  rig: {
    id: `rig ${id}`,
    name: `Rig ${id}`,
    meters: { mains: `w ${id}`, outputVolts: `v ${id}`, outputAmps: `v ${id}`, loadEnd: null },
    drives: { source: 'source', load: `load ${id}`, thermometer: null, analyser: null, scope: null },
  },
  begun: [],
  ...part,
});
const CHAMBER = 'oven';
const isSoak = (title: string) => /soak/i.test(title);

describe('tasks of sheets', () => {
  it('wait for each other, need their rig, and while a sample cools nothing', () => {
    const tasks = tasksOf([sheet('a')]);
    expect(tasks.map(({ after }) => after.length)).toEqual([0, ...tasks.slice(1).map(() => 1)]);
    const cooling = tasks.filter(({ needs }) => needs.length === 0);
    expect(cooling.length).toBe(steps.filter(({ kind }) => kind === 'cool').length);
    expect(tasks[0]?.needs).toEqual(['rig a', 'w a', 'v a', 'source', 'load a']);
    expect(tasks.every(({ from, due, fixed }) => from === null && due === null && fixed === null)).toBe(true);
  });
  it('of two rigs share a chamber for their soaks, and for nothing else', () => {
    const sheets = ['a', 'b'].map((id) => {
      const own = sheet(id, { chamberId: CHAMBER });
      // A source each: only the chamber is shared.
      return {
        ...own,
        rig: { ...own.rig, drives: { ...own.rig.drives, source: `source ${id}` } as DaySheet['rig']['drives'] },
      };
    });
    const tasks = tasksOf(sheets);
    const soaks = tasks.filter(({ needs }) => needs.includes(CHAMBER));
    expect(soaks).toHaveLength(2 * ofKind(steps, 'capture').filter(({ capture }) => capture === 'soak').length);
    expect(soaks.every(({ title }) => isSoak(title))).toBe(true);
    const problem = {
      tasks,
      resources: resourcesOf(sheets, [{ id: CHAMBER, name: 'Oven', until: null }]),
      people: [],
      setUp: 0,
      now: 0,
    };
    expect(problem.resources.map(({ title }) => title)).toContain('Oven');
    const plan = planDay({ ...problem, tasks: tasks.map((task) => ({ ...task, attended: false })) });
    expect(planFaults({ ...problem, tasks: tasks.map((task) => ({ ...task, attended: false })) }, plan)).toEqual([]);
    const spans = plan.placed
      .filter(({ id }) => soaks.some((task) => task.id === id))
      .sort((x, y) => x.start - y.start);
    expect(spans[1]?.start).toBeGreaterThanOrEqual(spans[0]?.end ?? Number.POSITIVE_INFINITY);
    // Without a chamber both soak at once.
    const open = tasksOf(sheets.map((one) => ({ ...one, chamberId: null }))).map((task) => ({
      ...task,
      attended: false,
    }));
    expect(planDay({ ...problem, tasks: open }).finish).toBeLessThan(plan.finish);
  });
  it('know when their sample comes and goes, what ran, and what is held', () => {
    const [first, second] = steps;
    const begun = [{ stepId: first?.id ?? '', from: 100, to: 160 }];
    const tasks = tasksOf([sheet('a', { from: 50, due: 90_000, begun })], { [`a ${second?.id}`]: 700 });
    expect(tasks[0]).toMatchObject({ fixed: 100, seconds: 60, from: 50, due: 90_000 });
    expect(tasks[1]).toMatchObject({ fixed: 700 });
    expect(tasksOf([])).toEqual([]);
  });
});
