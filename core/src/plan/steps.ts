// Single steps of a run sheet, each with its caution and what it needs.
import type { ProfileClass } from '../instrument/index.ts';
import { stepTitle } from '../proof/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { type Attached, type Mains, mainsLabel, type Output } from '../reading/index.ts';
import type { By, Method, NewStep, SheetStep, StepKind } from './types.ts';

/** From this level on an unplugged contact can arc, V. */
const ARCS_FROM = 28;

export const ARC_CAUTION = 'Load off before unplugging: this level arcs under load.';
export const HEAT_CAUTION =
  'Hot surfaces. Nobody there? Only with a fire-safe surface, a smoke alarm and a cut-off in place.';
export const BATTERY_CAUTION = 'A vehicle battery can deliver hundreds of amps: fuse the lead.';

export const LOADED: readonly ProfileClass[] = ['AC source', 'power analyser', 'DC load'];

/** What a step says where nothing else is told. */
export const stepBase = <Kind extends StepKind>(kind: Kind, by: By, title: string) => ({
  kind,
  by,
  title,
  dwell: 0,
  hottest: null,
  needs: [] as readonly ProfileClass[],
  caution: null as string | null,
  attended: by === 'keypad',
  skip: null,
});

/** The steps of one kind, in their order. */
export const ofKind = <Kind extends StepKind>(steps: readonly SheetStep[], kind: Kind) =>
  steps.filter((step): step is SheetStep<Kind> => step.kind === kind);

/** The supply of a step; null where it does not matter. */
export const mainsOf = (step: SheetStep): Mains | null => ('mains' in step ? step.mains : null);

/** What a step loads, at the level and current of 100 %; empty for one that loads nothing of its own. */
export const outputsOf = (step: SheetStep): readonly Output[] => ('outputs' in step ? step.outputs : []);

/** The fraction of those currents it draws; 0 for one that draws nothing. */
export const loadOf = (step: SheetStep): number => ('load' in step ? step.load : 0);

/** Every port a step touches, as it names them. */
export function portsOf(step: SheetStep): readonly string[] {
  if (step.kind === 'split') return step.order;
  const own = 'port' in step && step.port !== null ? [step.port] : [];
  return [...new Set([...outputsOf(step).map(({ port }) => port), ...own])];
}

const at = (mains: Mains): string => ` at ${mainsLabel(mains)}`;
const arcs = (outputs: readonly Output[]): boolean => outputs.some(({ volts }) => volts >= ARCS_FROM);
const percent = (load: number): string => `${Math.round(load * 100)} %`;

export const rigStep = (by: By): NewStep<'rig'> => ({
  ...stepBase('rig', by, 'The rig proves itself: zero, load capacity, cable, calibration'),
  needs: by === 'instruments' ? LOADED : [],
  dwell: 5,
});

export const idleStep = (method: Method, mains: Mains, attached: Attached): NewStep<'idle'> => ({
  ...stepBase(
    'idle',
    method.by,
    `Idle, ${attached} attached${at(mains)}${method.idleWhen === 'after the points' ? ', after the points' : ''}`,
  ),
  ...(method.idleWhen === 'after the points' ? { warm: true } : {}),
  mains,
  attached,
  dwell: method.idle,
  needs: method.by === 'instruments' ? ['AC source', 'power analyser'] : [],
  caution: mains.kind === 'dc' ? BATTERY_CAUTION : null,
});

export const readOutStep = (by: By, port: string): NewStep<'read-out'> => ({
  ...stepBase('read-out', by, `Read out ${port}, alone`),
  port,
  dwell: 2,
  needs: by === 'instruments' ? ['AC source', 'PD analyser'] : [],
});

/** A load point of Proof: no load or the rated current. */
export const proofPoint = (by: By, mains: Mains, outputs: readonly Output[], load: 0 | 1): NewStep<'point'> => ({
  ...stepBase('point', by, stepTitle({ outputs, load })),
  mains,
  outputs,
  load,
  station: 'proof',
  settle: null,
  dwell: 10,
  needs: by === 'instruments' ? LOADED : [],
  caution: arcs(outputs) ? ARC_CAUTION : null,
  attended: by === 'keypad' || arcs(outputs),
});

/** A combination: ports plugged in one after the other, then loaded to what each offers. */
export const splitStep = (by: By, mains: Mains, order: readonly string[]): NewStep<'split'> => ({
  ...stepBase('split', by, `${order.join(' + ')} together, all they offer`),
  mains,
  order,
  dwell: 12 + 8 * order.length + (order.length === 2 ? 8 : 0),
  needs: by === 'instruments' ? [...LOADED, 'PD analyser'] : [],
  caution: order.length > 1 ? 'Several ports at full load heat the charger most: hot surfaces.' : null,
});

/** A load point of the efficiency series, read once it has settled. */
export const efficiencyPoint = (
  method: Method,
  mains: Mains,
  outputs: readonly Output[],
  load: number,
): NewStep<'point'> => ({
  ...stepBase('point', method.by, `${stepTitle({ outputs, load: 1 })}, ${percent(load)}${at(mains)}`),
  mains,
  outputs,
  load,
  station: 'efficiency',
  dwell: 10,
  settle: method.settle,
  needs: method.by === 'instruments' ? LOADED : [],
  caution: arcs(outputs) ? ARC_CAUTION : null,
  attended: method.by === 'keypad' || arcs(outputs),
});

export const warmUpStep = (method: Method, mains: Mains, outputs: readonly Output[]): NewStep<'warm-up'> => ({
  ...stepBase(
    'warm-up',
    method.by,
    `Warm up ${formatPlain(method.warmUp, 'duration', 'min')}: ${stepTitle({ outputs, load: 1 })}${at(mains)}`,
  ),
  mains,
  outputs,
  load: 1,
  dwell: method.warmUp,
  needs: method.by === 'instruments' ? LOADED : [],
  caution: HEAT_CAUTION,
  attended: method.by === 'keypad' || arcs(outputs),
});

export const holdStep = (method: Method, mains: Mains, outputs: readonly Output[]): NewStep<'hold'> => ({
  ...stepBase(
    'hold',
    method.by,
    `Hold ${formatPlain(method.hold, 'duration', 'min')}: ${stepTitle({ outputs, load: 1 })}`,
  ),
  mains,
  outputs,
  load: 1,
  dwell: method.hold,
  needs: method.by === 'instruments' ? [...LOADED, 'thermometer'] : [],
  caution: HEAT_CAUTION,
  attended: true,
});

/** Time to cool where nothing is known of the sample, and the least and most there is, s. */
const USUAL_COOLING = 600;
const LONGEST_COOLING = 4 * 3600;

/** @param cools how long this sample takes by its own soaks, s; null where none tells */
export function coolStep(by: By, cools: number | null = null): NewStep<'cool'> {
  const dwell =
    cools === null ? USUAL_COOLING : Math.min(LONGEST_COOLING, Math.max(USUAL_COOLING, Math.ceil(cools / 60) * 60));
  const time = formatPlain(dwell, 'duration', 'min');
  return {
    ...stepBase('cool', by, `Loads off, let it cool ${time}${cools === null ? '' : ', by its own soak'}`),
    dwell,
    caution: 'Hot surfaces: let it cool before unplugging.',
    attended: false,
  };
}

export const deviceStep = (
  mains: Mains,
  port: string,
  device: { readonly id: string; readonly name: string },
): NewStep<'device'> => ({
  ...stepBase('device', 'keypad', `${device.name} on ${port}, settled 3 min`),
  mains,
  port,
  dwell: 180,
  deviceId: device.id,
  caution: 'Never over the rating with a real device attached.',
});

/** A charge that has not ended by itself is ended after this, s. */
export const LONGEST_CHARGE = 6 * 3600;
const AFTER_CHARGE = 900;

/** @param lead cable between port and device @param startLevel 0…1; null for whatever it is */
export const chargeStep = (
  mains: Mains,
  port: string,
  device: { readonly id: string; readonly name: string },
  lead: string,
  startLevel: number | null,
): NewStep<'charge'> => ({
  ...stepBase('charge', 'instruments', `${device.name} on ${port}, charged to its end`),
  mains,
  port,
  deviceId: device.id,
  lead,
  startLevel,
  after: AFTER_CHARGE,
  dwell: LONGEST_CHARGE,
  caution: 'Never unattended: fire-safe surface, smoke alarm, cut-off. Stop at heat, swelling, smell.',
  attended: true,
});

/** Seconds a person takes to set a keypad step up and type what they read. */
const BY_KEYPAD_SECONDS = 60;

/** Estimated length of a step, s; skipped ones take none. */
export function stepSeconds(step: SheetStep): number {
  const { kind, by, dwell, skip } = step;
  if (skip !== null) return 0;
  const setting = by === 'keypad' ? BY_KEYPAD_SECONDS : kind === 'rig' ? 15 : 3;
  return setting + dwell + (step.kind === 'point' ? (step.settle?.over ?? 0) : 0);
}

/** Estimated length of a sheet, s. */
export const sheetSeconds = (steps: readonly SheetStep[]): number =>
  steps.reduce((sum, step) => sum + stepSeconds(step), 0);
