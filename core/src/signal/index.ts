// Signalling outside USB PD, described by how it works. The list is data: a bench adds its own names.

/** One way a charger and a device agree on power without PD. */
export interface SignalMode {
  readonly id: string;
  readonly title: string;
  /** How it works, in a sentence. */
  readonly how: string;
}

/** What an analyser found of a mode. `cannot see` is a fact about the analyser, not about the charger. */
export type SignalResult = 'seen' | 'not seen' | 'cannot see';

export const SIGNAL_MODES: readonly SignalMode[] = [
  {
    id: 'dcp',
    title: 'Dedicated charging port',
    how: 'BC 1.2: D+ and D− joined, up to 1.5 A at 5 V.',
  },
  {
    id: 'type-c-current',
    title: 'Type-C current advert',
    how: 'A resistor on CC says default, 1.5 A or 3 A at 5 V.',
  },
  {
    id: 'divider',
    title: 'Divider ID',
    how: 'Fixed D+/D− voltages name a class of 0.5, 1, 2.1 or 2.4 A at 5 V.',
  },
  {
    id: 'stepped-high',
    title: 'Stepped high voltage',
    how: 'D+/D− voltages ask for fixed steps such as 9, 12 or 20 V.',
  },
  {
    id: 'continuous-high',
    title: 'Continuous high voltage',
    how: 'Pulses on D+/D− move the output in 200 mV steps.',
  },
  {
    id: 'serial-high',
    title: 'Fast serial high voltage',
    how: 'A serial protocol on D− sets voltage and current.',
  },
  {
    id: 'low-volt-high-amp',
    title: 'Low-voltage high-current direct',
    how: 'The device charges its battery directly from about 5 V at 4 A or more over its own lead.',
  },
];

/** The list with a bench's own modes after it; an own mode with a known id takes its place. */
export function allModes(own: readonly SignalMode[]): readonly SignalMode[] {
  const ids = new Set(own.map(({ id }) => id));
  return [...SIGNAL_MODES.filter(({ id }) => !ids.has(id)), ...own];
}
