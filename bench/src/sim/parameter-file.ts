// A bench from a parameter file: any number of seeded chargers and cables, and what is wrong with the rig.
import { type RigTruth, rigWith } from './rig-truth.ts';
import { type SeededCharger, type SeededInput, seededCharger } from './seeded.ts';
import { type SeededCable, seededCable } from './seeded-cable.ts';

export interface BenchParts {
  readonly chargers: readonly SeededCharger[];
  readonly cables: readonly SeededCable[];
  readonly rig: RigTruth;
}

/** What a parameter file says. */
export interface BenchFile {
  readonly chargers?: readonly SeededInput[] | undefined;
  readonly cables?: readonly SeededInput[] | undefined;
  /** Ids of faults of the rig. */
  readonly rig?: readonly string[] | undefined;
}

const isWords = (value: unknown): value is string[] =>
  Array.isArray(value) && value.every((one) => typeof one === 'string');
const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

const isInput = (value: unknown): value is SeededInput =>
  isRecord(value) &&
  Number.isInteger(value.seed) &&
  (!('faults' in value) || isWords(value.faults)) &&
  (!('name' in value) || (typeof value.name === 'string' && /^[\w .()-]{1,60}$/.test(value.name)));

const MOST = 500;

/** Make each of a list. @throws RangeError that says which entry is wrong, and what to write */
function each<T extends { readonly truth: { readonly name: string } }>(
  list: unknown,
  what: 'charger' | 'cable',
  make: (input: SeededInput) => T,
): readonly T[] {
  if (!Array.isArray(list)) throw new RangeError(`The list of ${what}s is no list. Write [{ "seed": 1 }].`);
  if (list.length > MOST) throw new RangeError(`The list has more than ${MOST} ${what}s.`);
  const made = list.map((value: unknown, at) => {
    if (!isInput(value))
      throw new RangeError(
        `Entry ${at + 1} is no ${what}. Write { "seed": 1, "faults": ["timer"], "name": "Alder 65" }.`,
      );
    try {
      return make(value);
    } catch (error) {
      throw error instanceof RangeError ? new RangeError(`Entry ${at + 1}: ${error.message}`) : error;
    }
  });
  const names = made.map(({ truth }) => truth.name.toLowerCase());
  const twice = names.find((name, at) => names.indexOf(name) !== at);
  if (twice !== undefined) throw new RangeError(`Two ${what}s are called “${twice}”. Give one another name.`);
  return made;
}

/** @throws RangeError that says what is wrong and what to write */
export function benchParts({ chargers = [], cables = [], rig = [] }: BenchFile): BenchParts {
  return {
    chargers: each(chargers, 'charger', seededCharger),
    cables: each(cables, 'cable', seededCable),
    rig: rigWith(rig),
  };
}

/**
 * Read a parameter file: JSON, a list of chargers `[{ "seed": 7, "faults": ["timer"], "name": "Alder 65" }]`, or
 * `{ "chargers": […], "cables": […], "rig": ["worn lead"] }`.
 * @throws RangeError that says which entry is wrong, and what to write
 */
export function readBench(text: string): BenchParts {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw new RangeError('The list of chargers is no JSON.');
  }
  if (!isRecord(read)) throw new RangeError('The list of chargers is no list. Write [{ "seed": 1 }].');
  if (Array.isArray(read)) return benchParts({ chargers: read as SeededInput[] });
  const strange = Object.keys(read).find((key) => !['chargers', 'cables', 'rig'].includes(key));
  if (strange !== undefined)
    throw new RangeError(`“${strange}” is nothing a bench has. Write "chargers", "cables" or "rig".`);
  if ('rig' in read && !isWords(read.rig))
    throw new RangeError('Faults of the rig are a list. Write "rig": ["worn lead"].');
  return benchParts(read as BenchFile);
}
