// Levels of practice, from one fault to a whole day with a rig that is wrong itself.

/** What a level draws from. */
export interface DrillLevel {
  readonly id: string;
  readonly title: string;
  readonly says: string;
  /** Chargers to measure: ports they have at least, faults each has from … to. */
  readonly chargers: readonly { readonly ports: number; readonly faults: readonly [number, number] }[];
  readonly cables: readonly { readonly faults: readonly [number, number] }[];
  /** How likely the rig has a fault, 0…1. */
  readonly rig: number;
  /** Faults of chargers it draws from. */
  readonly among: readonly string[];
}

const PLAIN = ['weak port', 'sagging level', 'heavy idle', 'lossy'] as const;
const SLOW = ['refused level', 'timer', 'ripple at light load', 'throttles when hot', 'late correction'] as const;
const TOGETHER = ['oversold split', 'long interruption', 'weak port', 'lying display'] as const;
const ALL = [...PLAIN, ...SLOW, 'oversold split', 'long interruption', 'lying display'] as const;

export const DRILL_LEVELS: readonly DrillLevel[] = [
  {
    id: 'one',
    title: 'One fault',
    says: 'A charger with one fault: a weak port, a sagging level, a heavy idle draw, or too much loss.',
    chargers: [{ ports: 1, faults: [1, 1] }],
    cables: [],
    rig: 0,
    among: PLAIN,
  },
  {
    id: 'perhaps',
    title: 'One fault, or none',
    says: 'A charger that may be sound. Some faults show only after minutes, at light load, or hot.',
    chargers: [{ ports: 1, faults: [0, 1] }],
    cables: [],
    rig: 0,
    among: [...PLAIN, ...SLOW],
  },
  {
    id: 'together',
    title: 'Ports together',
    says: 'A charger with several ports, and one fault of the kind that a single port does not show.',
    chargers: [{ ports: 2, faults: [1, 1] }],
    cables: [],
    rig: 0,
    among: TOGETHER,
  },
  {
    id: 'two',
    title: 'Two at once',
    says: 'Two faults in one charger: the first that is found is not the last.',
    chargers: [{ ports: 2, faults: [2, 2] }],
    cables: [],
    rig: 0,
    among: ALL,
  },
  {
    id: 'cables',
    title: 'Two cables',
    says: 'One of two cables is not what its marker says, or its contacts are worn; or both are; or none.',
    chargers: [],
    cables: [{ faults: [0, 1] }, { faults: [0, 1] }],
    rig: 0,
    among: [],
  },
  {
    id: 'rig',
    title: 'The rig itself',
    says: 'A charger that may be sound, on a rig that is not.',
    chargers: [{ ports: 1, faults: [0, 1] }],
    cables: [],
    rig: 1,
    among: PLAIN,
  },
  {
    id: 'day',
    title: 'A lab day',
    says: 'Three chargers and a cable, any of them sound or not, on a rig that may be wrong too.',
    chargers: [
      { ports: 1, faults: [0, 1] },
      { ports: 2, faults: [0, 2] },
      { ports: 1, faults: [0, 1] },
    ],
    cables: [{ faults: [0, 1] }],
    rig: 0.5,
    among: ALL,
  },
];

export const drillLevel = (id: string): DrillLevel | undefined => DRILL_LEVELS.find((level) => level.id === id);
