// A verdict against the truth: what was found, guessed, missed or invented, and what would have caught it.
import { describe, expect, it } from 'vitest';
import { wholeSheet } from '../next/index.ts';
import { methodOf, type SheetStep, stepSeconds } from '../plan/index.ts';
import type { Promised } from '../promise/index.ts';
import { dossierFor } from '../testing/verdict.ts';
import {
  BY_HAND_SECONDS,
  DRILL_FAULTS,
  DRILL_LEVELS,
  type DrillPart,
  drillFault,
  drillLevel,
  effortOf,
  goodPlan,
  judgeDrill,
  loadedUnproven,
  type StatedPart,
  wasMeasured,
} from './index.ts';

const line = (port: string, volts: number, amps: number): Promised => ({ kind: 'port-line', port, volts, amps });
const claims = [line('C1', 5, 3), line('C1', 20, 3), line('C2', 20, 1.5)].map((promise, at) => ({
  id: `c${at}`,
  promise,
  duration: { kind: 'unstated' as const },
  printed: 'label',
}));
const PORTS = ['C1', 'C2'];
const method = methodOf('local-mains');
if (!method) throw new Error('no method');
const dossier = dossierFor({ claims, setups: [] });
const SHEET = wholeSheet(method, {
  ...dossier,
  sample: { ...dossier.sample, ports: PORTS.map((label) => ({ label, connector: 'C' as const, twin: null })) },
});
const step = (wanted: (step: SheetStep) => boolean): SheetStep => {
  const found = SHEET.find(wanted);
  if (!found) throw new Error('the sheet has no such step');
  return found;
};
const RIG_STEP = step(({ kind }) => kind === 'rig');
const IDLE = step(({ kind }) => kind === 'idle');
const SPLIT = step((one) => one.kind === 'split' && one.order.length > 1);
const WARM = step(({ kind }) => kind === 'warm-up');
const SOAK = step((one) => one.kind === 'capture' && one.capture === 'soak');
const full = (port: string) =>
  step((one) => one.kind === 'point' && one.load === 1 && one.outputs.length === 1 && one.outputs[0]?.port === port);

const part = (own: Partial<DrillPart> = {}): DrillPart => ({
  id: 'a',
  name: 'Alder 65',
  of: 'charger',
  faults: [],
  ports: PORTS,
  tried: [],
  typed: { points: [], setups: [] },
  ...own,
});
const said = (id: string, basis: StatedPart['faults'][number]['basis'] = 'measured', partId = 'a'): StatedPart => ({
  partId,
  faults: [{ id, basis }],
});
const terms = { good: { steps: 3, seconds: 600 }, budget: 36_000, runs: [] };
const judged = (parts: readonly DrillPart[], stated: readonly StatedPart[], own: Partial<typeof terms> = {}) =>
  judgeDrill(parts, stated, { ...terms, ...own });
const kinds = (...args: Parameters<typeof judged>) => judged(...args).slips.map(({ kind }) => kind);

describe('what shows a fault', () => {
  it.each([
    ['weak port', [full('C2')], [full('C1')]],
    ['refused level', [full('C1')], [full('C2')]],
    ['sagging level', [full('C1')], [IDLE]],
    ['timer', [WARM], [full('C1'), SPLIT]],
    ['throttles when hot', [SOAK], [full('C1'), IDLE]],
    ['oversold split', [SPLIT], [full('C1'), full('C2')]],
    ['heavy idle', [IDLE], [WARM]],
    ['lossy', SHEET.filter(({ kind }) => kind === 'point'), [full('C1')]],
    ['ripple at light load', SHEET.filter(({ kind }) => kind === 'capture'), [full('C1')]],
    ['worn lead', [RIG_STEP], [IDLE]],
  ])('%s', (id, shows, shows_not) => {
    const fault = drillFault(id);
    if (!fault) throw new Error(id);
    expect(wasMeasured(fault, part({ tried: shows }))).toBe(true);
    expect(wasMeasured(fault, part({ tried: shows_not }))).toBe(false);
    expect(wasMeasured(fault, part())).toBe(false);
  });
  it('is on a whole sheet for every fault of a charger with several ports', () => {
    for (const fault of DRILL_FAULTS.filter(({ of }) => of === 'charger'))
      expect([fault.id, fault.caught(SHEET, PORTS).length > 0]).toEqual([fault.id, true]);
  });
  it('may be typed by hand', () => {
    const reading = (place: 'port' | 'mains', port: string | null) => ({
      id: 'r',
      quantity: 'voltage' as const,
      place,
      port,
      value: 19.2,
      u: null,
      count: 1,
      spread: 0,
      typed: '19.2 V',
      instrumentId: null,
      takenAt: '2026-03-01T08:00:00.000Z',
      source: 'keypad',
      supersedes: null,
    });
    const point = {
      ...(dossierFor({}).points[0] ?? {}),
      id: 'p',
      setupId: 's',
      load: 1,
      readings: [reading('port', 'C2')],
    };
    const typed = { setups: [], points: [point] } as unknown as DrillPart['typed'];
    const weak = drillFault('weak port');
    const idle = drillFault('heavy idle');
    if (!weak || !idle) throw new Error('no fault');
    expect(wasMeasured(weak, part({ typed }))).toBe(true);
    expect(wasMeasured(idle, part({ typed }))).toBe(false);
    expect(effortOf([part({ typed })])).toEqual({ steps: 1, seconds: BY_HAND_SECONDS });
  });
});

describe('a stated verdict', () => {
  const weak = part({ faults: ['weak port'], tried: [RIG_STEP, full('C2')] });
  it('passes with the fault named, measured and said to be measured', () => {
    expect(judged([weak], [said('weak port')])).toMatchObject({ found: 1, hidden: 1, slips: [], passed: true });
  });
  it('passes with nothing said of what is sound', () => {
    expect(judged([part({ tried: [full('C1')] })], [])).toMatchObject({ found: 0, hidden: 0, passed: true });
  });
  it('tells a fault nobody measured from one that was measured and not seen', () => {
    const [unseen] = judged([weak], []).slips;
    expect(unseen).toMatchObject({ kind: 'missed', faultId: 'weak port' });
    expect(unseen?.says).toContain('It was measured, and not seen.');
    const [unmeasured] = judged([{ ...weak, tried: [] }], []).slips;
    expect(unmeasured?.says).toContain('It was not measured.');
    expect(unmeasured?.caughtBy).toBe('A load step at the rated current of every port, twins included.');
  });
  it('is a guess, a false claim to have measured, or too modest', () => {
    const blind = { ...weak, tried: [RIG_STEP] };
    expect(kinds([blind], [said('weak port', 'not measured')])).toEqual(['guessed']);
    expect(kinds([blind], [said('weak port', 'listed only')])).toEqual(['guessed']);
    expect(kinds([blind], [said('weak port', 'measured')])).toEqual(['called measured']);
    expect(kinds([weak], [said('weak port', 'listed only')])).toEqual(['called unmeasured']);
    expect(judged([blind], [said('weak port')])).toMatchObject({ found: 0, passed: false });
  });
  it('accuses nothing that is not there; where the rig is wrong that is why', () => {
    expect(kinds([part()], [said('lossy')])).toEqual(['not there']);
    const rig = part({ id: 'rig', name: 'The rig', of: 'rig', faults: ['worn lead'], tried: [RIG_STEP], typed: null });
    const { slips } = judged([part(), rig], [said('sagging level'), said('worn lead', 'measured', 'rig')]);
    expect(slips).toHaveLength(1);
    expect(slips[0]?.says).toContain('The rig was wrong: The lead of the rig has an eighth of an ohm more');
    expect(slips[0]?.caughtBy).toContain('rig check');
  });
  it('is late beyond the bench time, and not at it', () => {
    const { seconds } = effortOf([weak]);
    expect(kinds([weak], [said('weak port')], { budget: seconds })).toEqual([]);
    expect(kinds([weak], [said('weak port')], { budget: seconds - 1 })).toEqual(['late']);
  });
  it('says that a sample was loaded before the rig had proven itself', () => {
    expect(loadedUnproven([[IDLE, RIG_STEP, full('C1')]])).toBe(false);
    expect(loadedUnproven([[IDLE], [full('C1')], [RIG_STEP]])).toBe(true);
    expect(loadedUnproven([])).toBe(false);
    expect(
      judged([weak], [said('weak port')], { runs: [[full('C2')]] as never }).slips.map(({ kind }) => kind),
    ).toEqual(['rig unproven']);
  });
  it('ignores what nobody knows', () => {
    expect(judged([weak], [said('weak port'), said('lossy', 'measured', 'nobody')])).toMatchObject({ passed: true });
    expect(
      kinds(
        [weak],
        [
          {
            partId: 'a',
            faults: [
              { id: 'haunted', basis: 'measured' },
              { id: 'weak port', basis: 'measured' },
            ],
          },
        ],
      ),
    ).toEqual([]);
  });
  it('counts what was done once, also where the rig has it too', () => {
    const rig = part({ id: 'rig', of: 'rig', tried: [RIG_STEP], typed: null });
    expect(effortOf([weak, rig])).toEqual({ steps: 2, seconds: stepSeconds(RIG_STEP) + stepSeconds(full('C2')) });
  });
});

describe('a good plan', () => {
  it('has what shows each fault, and the rig check first', () => {
    const plan = goodPlan(SHEET, PORTS, ['weak port', 'heavy idle', 'timer']);
    expect(plan[0]).toBe(RIG_STEP);
    for (const id of ['weak port', 'heavy idle', 'timer']) {
      const fault = drillFault(id);
      expect(fault?.caught(plan, PORTS).length).toBeGreaterThan(0);
    }
    expect(goodPlan(SHEET, PORTS, [])).toEqual([RIG_STEP]);
  });
  it('needs no shorter step where a longer one shows the same', () => {
    const both = goodPlan(SHEET, PORTS, ['timer', 'throttles when hot']);
    expect(both.filter(({ kind }) => kind === 'warm-up')).toEqual([]);
    expect(both).toContain(SOAK);
  });
  it('is shorter than the whole sheet at every level', () => {
    const time = (steps: readonly SheetStep[]) => steps.reduce((sum, one) => sum + stepSeconds(one), 0);
    for (const { among } of DRILL_LEVELS) expect(time(goodPlan(SHEET, PORTS, among))).toBeLessThan(time(SHEET));
    expect(drillLevel('one')?.title).toBe('One fault');
    expect(drillLevel('none')).toBeUndefined();
  });
});
