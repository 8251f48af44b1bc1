// Single steps of a run sheet, each with its caution and what it needs.
import type { ProfileClass } from '../instrument/index.ts';
import { stepTitle } from '../proof/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { type Attached, type Mains, mainsLabel, type Output } from '../reading/index.ts';
import type { By, Method, SheetStep, StepKind } from './types.ts';

/** From this level on an unplugged contact can arc, V. */
const ARCS_FROM = 28;

export const ARC_CAUTION = 'Load off before unplugging: this level arcs under load.';
export const HEAT_CAUTION =
  'Hot surfaces. Nobody there? Only with a fire-safe surface, a smoke alarm and a cut-off in place.';
export const BATTERY_CAUTION = 'A vehicle battery can deliver hundreds of amps: fuse the lead.';

export const LOADED: readonly ProfileClass[] = ['AC source', 'power analyser', 'DC load'];

export const blankStep = (kind: StepKind, by: By, title: string): Omit<SheetStep, 'id'> => ({
  kind,
  by,
  title,
  mains: null,
  outputs: [],
  order: [],
  port: null,
  load: 0,
  station: null,
  attached: 'nothing',
  dwell: 0,
  settle: null,
  deviceId: null,
  hottest: null,
  needs: [],
  caution: null,
  attended: by === 'keypad',
  skip: null,
});

const at = (mains: Mains | null): string => (mains ? ` at ${mainsLabel(mains)}` : '');
const arcs = (outputs: readonly Output[]): boolean => outputs.some(({ volts }) => volts >= ARCS_FROM);
const percent = (load: number): string => `${Math.round(load * 100)} %`;

export const rigStep = (by: By): Omit<SheetStep, 'id'> => ({
  ...blankStep('rig', by, 'The rig proves itself: zero, load capacity, cable, calibration'),
  needs: by === 'instruments' ? LOADED : [],
  dwell: 5,
});

export const idleStep = (method: Method, mains: Mains, attached: Attached): Omit<SheetStep, 'id'> => ({
  ...blankStep('idle', method.by, `Idle, ${attached} attached${at(mains)}`),
  mains,
  station: 'idle',
  attached,
  dwell: method.idle,
  needs: method.by === 'instruments' ? ['AC source', 'power analyser'] : [],
  caution: mains.kind === 'dc' ? BATTERY_CAUTION : null,
});

export const readOutStep = (by: By, port: string): Omit<SheetStep, 'id'> => ({
  ...blankStep('read-out', by, `Read out ${port}, alone`),
  port,
  station: 'read-out',
  dwell: 2,
  needs: by === 'instruments' ? ['AC source', 'PD analyser'] : [],
});

/** A load point of Proof: no load or the rated current. */
export const proofPoint = (by: By, mains: Mains, outputs: readonly Output[], load: 0 | 1): Omit<SheetStep, 'id'> => ({
  ...blankStep('point', by, stepTitle({ outputs, load })),
  mains,
  outputs,
  load,
  station: 'proof',
  dwell: 10,
  needs: by === 'instruments' ? LOADED : [],
  caution: arcs(outputs) ? ARC_CAUTION : null,
  attended: by === 'keypad' || arcs(outputs),
});

/** A combination: ports plugged in one after the other, then loaded to what each offers. */
export const splitStep = (by: By, mains: Mains, order: readonly string[]): Omit<SheetStep, 'id'> => ({
  ...blankStep('split', by, `${order.join(' + ')} together, all they offer`),
  mains,
  order,
  station: 'proof',
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
): Omit<SheetStep, 'id'> => ({
  ...blankStep('point', method.by, `${stepTitle({ outputs, load: 1 })}, ${percent(load)}${at(mains)}`),
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

export const warmUpStep = (method: Method, mains: Mains, outputs: readonly Output[]): Omit<SheetStep, 'id'> => ({
  ...blankStep(
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

export const holdStep = (method: Method, mains: Mains, outputs: readonly Output[]): Omit<SheetStep, 'id'> => ({
  ...blankStep(
    'hold',
    method.by,
    `Hold ${formatPlain(method.hold, 'duration', 'min')}: ${stepTitle({ outputs, load: 1 })}`,
  ),
  mains,
  outputs,
  load: 1,
  station: 'proof',
  dwell: method.hold,
  needs: method.by === 'instruments' ? [...LOADED, 'thermometer'] : [],
  caution: HEAT_CAUTION,
  attended: true,
});

export const coolStep = (by: By): Omit<SheetStep, 'id'> => ({
  ...blankStep('cool', by, 'Loads off, let it cool 10 min'),
  dwell: 600,
  caution: 'Hot surfaces: let it cool before unplugging.',
  attended: false,
});

export const deviceStep = (
  mains: Mains,
  port: string,
  device: { readonly id: string; readonly name: string },
): Omit<SheetStep, 'id'> => ({
  ...blankStep('device', 'keypad', `${device.name} on ${port}, settled 3 min`),
  mains,
  port,
  station: 'proof',
  dwell: 180,
  deviceId: device.id,
  caution: 'Never over the rating with a real device attached.',
});

/** Seconds a person takes to set a keypad step up and type what they read. */
const BY_KEYPAD_SECONDS = 60;

/** Estimated length of a step, s; skipped ones take none. */
export function stepSeconds({ kind, by, dwell, settle, skip }: SheetStep): number {
  if (skip !== null) return 0;
  const setting = by === 'keypad' ? BY_KEYPAD_SECONDS : kind === 'rig' ? 15 : 3;
  return setting + dwell + (settle?.over ?? 0);
}

/** Estimated length of a sheet, s. */
export const sheetSeconds = (steps: readonly SheetStep[]): number =>
  steps.reduce((sum, step) => sum + stepSeconds(step), 0);
