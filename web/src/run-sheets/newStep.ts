// A step of one's own, of any kind there is: which fields a kind asks for, and the step they make.
import type { Bending } from '@lastmark/core/bends';
import {
  bendStep,
  chargeStep,
  deviceStep,
  dipStep,
  efficiencyPoint,
  fadingStep,
  holdStep,
  idleStep,
  inrushStep,
  type Method,
  type NewStep,
  proofPoint,
  readOutStep,
  resistanceStep,
  rigStep,
  rippleStep,
  STEP_KINDS,
  STEP_WORDS,
  type StepKind,
  soakStep,
  splitStep,
  stepBase,
  sweepStep,
  warmUpStep,
  waveformStep,
} from '@lastmark/core/plan';
import type { ATTACHED, Mains, Output } from '@lastmark/core/reading';
import { typedSi } from '../parts/fields.tsx';

/** What the instruments record by themselves. */
export const CAPTURES = {
  waveform: 'Mains current',
  inrush: 'Inrush',
  fading: 'Output after the mains go off',
  dip: 'Supply dips',
  sweep: 'Supply lowered and raised',
  ripple: 'Ripple',
  soak: 'Soak',
} as const;

/** Steps of what sits in the line, and those of a charger only. */
const IN_LINE: readonly StepKind[] = ['rig', 'read-out', 'resistance', 'bend', 'cool', 'by hand'];
const OF_LINES: readonly StepKind[] = ['resistance', 'bend'];

/** What a sheet by a method may be given besides. */
export const newKinds = ({ line }: Pick<Method, 'line'>) =>
  STEP_KINDS.filter((kind) => (line ? IN_LINE.includes(kind) : !OF_LINES.includes(kind))).map((value) => ({
    value,
    label: STEP_WORDS[value],
  }));

export interface StepForm {
  kind: StepKind;
  port: string;
  supply: string;
  volts: string;
  amps: string;
  /** Per cent of the current. */
  load: string;
  station: 'proof' | 'efficiency';
  /** Ports in the order plugged: "C1 + C2". */
  order: string;
  attached: (typeof ATTACHED)[number];
  capture: keyof typeof CAPTURES;
  device: string;
  lead: string;
  /** Level at the start, %; empty for whatever it is. */
  level: string;
  time: string;
  /** Bends altogether. */
  count: string;
  text: string;
}

type Field = Exclude<keyof StepForm, 'kind'>;

const FIELDS: Readonly<Record<StepKind, readonly Field[]>> = {
  rig: [],
  idle: ['supply', 'attached', 'time'],
  'read-out': ['port'],
  point: ['port', 'supply', 'volts', 'amps', 'station', 'load'],
  split: ['supply', 'order'],
  'warm-up': ['port', 'supply', 'volts', 'amps', 'time'],
  hold: ['port', 'supply', 'volts', 'amps', 'time'],
  capture: ['capture', 'supply', 'port', 'volts', 'amps', 'load', 'time'],
  cool: ['time'],
  device: ['device', 'port', 'supply'],
  charge: ['device', 'port', 'supply', 'lead', 'level'],
  resistance: ['supply', 'volts', 'amps'],
  bend: ['count'],
  'by hand': ['text'],
};

/** Fields of a capture that its kind does not ask for. */
const UNASKED: Readonly<Record<keyof typeof CAPTURES, readonly Field[]>> = {
  waveform: ['time'],
  inrush: ['port', 'volts', 'amps', 'load', 'time'],
  fading: ['volts', 'amps', 'load', 'time'],
  dip: ['load', 'time'],
  sweep: ['load', 'time'],
  ripple: ['time'],
  soak: ['load'],
};

/** What is to be asked for a step as it is so far. A proof point is at no load or at all of it. */
export function fieldsOf({ kind, capture }: Pick<StepForm, 'kind' | 'capture'>): readonly Field[] {
  const fields = FIELDS[kind];
  return kind === 'capture' ? fields.filter((field) => !UNASKED[capture].includes(field)) : fields;
}

/**
 * Ports in the order they are plugged in.
 * @returns null when one is not there, or stands twice
 * @example orderOf('c1 + A1', ['C1', 'A1']) // ['C1', 'A1']
 */
export function orderOf(typed: string, ports: readonly string[]): readonly string[] | null {
  const found = typed
    .split(/[+,;\s]+/)
    .filter(Boolean)
    .map((one) => ports.find((port) => port.toLowerCase() === one.toLowerCase()));
  const known = found.filter((port) => port !== undefined);
  return known.length > 0 && known.length === found.length && new Set(known).size === known.length ? known : null;
}

/** A load typed as per cent, as a fraction; null for what is none. */
export function loadFrom(typed: string): number | null {
  const value = Number(typed.replace(',', '.').replace('%', '').trim());
  return typed.trim() !== '' && value >= 0 && value <= 110 ? value / 100 : null;
}

export interface StepWorld {
  readonly method: Method;
  readonly mains: Mains | undefined;
  readonly ports: readonly string[];
  /** How this bench bends. */
  readonly bending: Bending;
  readonly devices: readonly { readonly id: string; readonly name: string }[];
}

/** Bends typed; null for what is no whole number above 0. */
const typedCount = (typed: string): number | null => {
  const count = Number(typed.trim());
  return Number.isInteger(count) && count > 0 && count <= 10_000_000 ? count : null;
};

/** The step a form stands for; null while something is missing or cannot be. */
export function newStep(form: StepForm, { method, mains, ports, devices, bending }: StepWorld): NewStep | null {
  const { kind, port, volts, amps, time, text, station, capture } = form;
  const output: Output = { port, volts: typedSi(volts, 'voltage') ?? 0, amps: typedSi(amps, 'current') ?? 0 };
  const loaded = output.volts > 0 && output.amps > 0;
  const seconds = typedSi(time, 'duration') ?? 0;
  const load = loadFrom(form.load);
  const { by } = method;
  if (kind === 'rig') return rigStep(by);
  if (kind === 'read-out') return readOutStep(by, port);
  if (kind === 'cool')
    return seconds > 0
      ? { ...stepBase('cool', by, `Loads off, let it cool ${time}`), dwell: seconds, attended: false }
      : null;
  if (kind === 'by hand') return text.trim() === '' ? null : stepBase('by hand', 'keypad', text.trim());
  if (kind === 'bend') {
    const count = typedCount(form.count);
    return count === null ? null : bendStep(bending, 0, count);
  }
  if (!mains) return null;
  switch (kind) {
    case 'idle':
      return seconds > 0 ? idleStep({ ...method, idle: seconds }, mains, form.attached) : null;
    case 'point':
      if (!loaded || load === null) return null;
      if (station === 'efficiency') return efficiencyPoint(method, mains, [output], load);
      return load === 0 || load === 1 ? proofPoint(by, mains, [output], load) : null;
    case 'resistance':
      return loaded ? resistanceStep(mains, output.amps, true, output.volts) : null;
    case 'split': {
      const order = orderOf(form.order, ports);
      return order && splitStep(by, mains, order);
    }
    case 'warm-up':
      return loaded && seconds > 0 ? warmUpStep({ ...method, warmUp: seconds }, mains, [output]) : null;
    case 'hold':
      return loaded && seconds > 0 ? holdStep({ ...method, hold: seconds }, mains, [output]) : null;
    case 'device': {
      const device = devices.find(({ name }) => name === form.device);
      return device ? deviceStep(mains, port, device) : null;
    }
    case 'charge': {
      const device = devices.find(({ name }) => name === form.device);
      const level = typedSi(form.level, 'efficiency');
      return device && !Number.isNaN(level) && (level ?? 0) < 1
        ? chargeStep(mains, port, device, form.lead.trim(), level)
        : null;
    }
    case 'capture':
      if (capture === 'inrush') return inrushStep(mains);
      if (capture === 'fading') return fadingStep(mains, port);
      if (!loaded) return null;
      if (capture === 'dip') return dipStep(mains, output);
      if (capture === 'sweep') return sweepStep(mains, output);
      if (capture === 'soak') return seconds > 0 ? soakStep(mains, [output], seconds) : null;
      if (capture === 'ripple') return load === 0 || load === 1 ? rippleStep(mains, output, load) : null;
      return load ? waveformStep(mains, [output], load) : null;
  }
}
