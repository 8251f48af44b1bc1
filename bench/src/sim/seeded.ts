// Chargers nobody drew by hand: a seed gives one that is sound, its label, and faults that may hide in it.
import { fixedWatts } from '@lastmark/core/pd';
import { seededRandom } from '@lastmark/core/random';
import { CHARGER_FAULTS, type ChargerFault, faultNamed } from './faults.ts';
import { lossWatts } from './physics.ts';
import type { Allocation, ChargerTruth, PortTruth } from './truth.ts';
import { offers, SOUND } from './world.ts';

export interface SeededInput {
  readonly seed: number;
  /** Ids of faults; left out for a sound one. */
  readonly faults?: readonly string[] | undefined;
  readonly name?: string | undefined;
}

export interface SeededCharger {
  readonly truth: ChargerTruth;
  /** What is printed on it, line by line, as Claims reads it: of the sound one. */
  readonly label: readonly string[];
  readonly faults: readonly ChargerFault[];
}

/** Nameplates there are, W, with the most a port of each gives at 20 V or below. */
const PLATES = [20, 30, 45, 65, 75, 100, 130] as const;
const WORDS = ['Alder', 'Birch', 'Cedar', 'Fir', 'Hazel', 'Larch', 'Rowan', 'Spruce', 'Willow', 'Yew'] as const;

const LEVELS = [5, 9, 15, 20] as const;
const twoDigits = (value: number): number => Number(value.toPrecision(3));

/** Lines a port of so many watts offers. */
function linesOf(watts: number): string[] {
  return LEVELS.flatMap((volts) => {
    const amps = Math.min(volts === 20 && watts > 60 ? 5 : 3, watts / volts);
    // What no level of less power leaves over is not listed.
    return amps >= 1 ? [`${volts} V ${twoDigits(amps)} A`] : [];
  });
}

function portOf(label: string, watts: number): PortTruth {
  const listed = offers(...linesOf(watts));
  return { label, connector: 'C', watts: fixedWatts(listed), offers: listed, signals: ['dcp'], refuses: [] };
}

/** Every set of two ports or more, the whole divided as the single ones give. */
function allocationsOf(ports: readonly PortTruth[], nameplate: number): Allocation[] {
  const sets = Array.from({ length: 2 ** ports.length }, (_one, mask) => ports.filter((_port, at) => (mask >> at) & 1));
  return sets
    .filter((set) => set.length > 1)
    .map((set) => {
      const sum = set.reduce((all, { watts }) => all + watts, 0);
      const part = Math.min(1, nameplate / sum);
      return {
        ports: set.map(({ label }) => label),
        watts: Object.fromEntries(set.map(({ label, watts }) => [label, Math.floor(watts * part)])),
      };
    });
}

/** Four-point average at 230 V of some outputs, each at its highest level, as a part. */
function average(
  { loss, nameplate }: ChargerTruth,
  outputs: readonly { readonly volts: number; readonly watts: number }[],
): number {
  const loads = [1, 0.75, 0.5, 0.25].map((load) => {
    const drawn = outputs.map(({ volts, watts }) => ({ volts, watts: load * watts }));
    const watts = drawn.reduce((sum, one) => sum + one.watts, 0);
    return watts / (watts + lossWatts(loss, drawn, nameplate, 230));
  });
  return loads.reduce((sum, one) => sum + one, 0) / loads.length;
}

/** What its maker may print: a point and a half below what the worse of the first port alone and all together reach, in whole per cents. */
function printedEfficiency(truth: ChargerTruth): number {
  const { ports, allocations } = truth;
  const top = ({ offers: listed }: PortTruth) =>
    Math.max(...listed.map((one) => (one.kind === 'fixed' ? one.volts : 0)));
  const [first] = ports;
  const all = allocations.find((one) => one.ports.length === ports.length);
  const alone = first ? [average(truth, [{ volts: top(first), watts: first.watts }])] : [];
  const together = all
    ? [
        average(
          truth,
          ports.map((port) => ({ volts: top(port), watts: all.watts[port.label] ?? 0 })),
        ),
      ]
    : [];
  return Math.floor(100 * Math.min(...alone, ...together) - 1.5);
}

function labelOf(truth: ChargerTruth): string[] {
  const { nameplate, ports, allocations } = truth;
  return [
    ...ports.map(
      ({ label, watts }) =>
        `${label}: ${linesOf(watts)
          .map((line) => line.replaceAll(' ', '').replace('V', 'V '))
          .join(' / ')}`,
    ),
    ...allocations.map(
      ({ ports: set, watts }) => `${set.join('+')}: ${set.map((port) => `${watts[port]}W`).join('+')}`,
    ),
    `total ${nameplate} W`,
    `idle ${nameplate > 49 ? 0.21 : 0.1} W`,
    `efficiency ${printedEfficiency(truth)} %`,
  ];
}

/**
 * A charger by its seed: the same seed is the same charger, and the same faults hide in it the same way.
 * @throws RangeError for a fault nobody knows, or one this charger cannot have
 */
export function seededCharger({ seed, faults = [], name }: SeededInput): SeededCharger {
  const random = seededRandom(seed);
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const nameplate = one(PLATES);
  // One port gives 100 W at most; what is more takes several.
  const count = nameplate < 45 ? 1 : (nameplate > 100 ? 2 : 1) + Math.floor(random() * (nameplate > 100 ? 2 : 3));
  const ports = Array.from({ length: count }, (_port, at) =>
    portOf(`C${at + 1}`, at === 0 ? Math.min(100, nameplate) : Math.max(20, Math.round(nameplate / (at + 2)))),
  );
  const spread = (value: number) => value * (0.85 + 0.3 * random());
  const size = nameplate / 45;
  const sound: ChargerTruth = {
    ...SOUND,
    name: name ?? `${one(WORDS)} ${nameplate} (${seed})`,
    kind: nameplate >= 100 ? 'desktop' : 'wall',
    nameplate,
    ports,
    allocations: allocationsOf(ports, nameplate),
    loss: { ...SOUND.loss, fixed: spread(0.2 * size), proportional: spread(0.05) },
    idle: { ...SOUND.idle, floor: spread(0.024 + 0.0003 * nameplate) },
    // Whoever sells several ports likes to show what they do.
    display: count > 1 ? 1 : null,
    correctionFrom: nameplate > 75 ? 0.45 * nameplate : Number.POSITIVE_INFINITY,
    heat: {
      ...SOUND.heat,
      insideCapacity: SOUND.heat.insideCapacity * size,
      shellCapacity: SOUND.heat.shellCapacity * size,
      insideToShell: SOUND.heat.insideToShell * Math.max(1, size),
      shellToRoom: SOUND.heat.shellToRoom * Math.max(1, size),
    },
  };
  const known = faults.map((id) => {
    const fault = faultNamed(id);
    if (!fault)
      throw new RangeError(`There is no fault “${id}”. There are: ${CHARGER_FAULTS.map((own) => own.id).join(', ')}.`);
    if (!fault.fits(sound)) throw new RangeError(`Charger ${seed} cannot have the fault “${id}”.`);
    return fault;
  });
  return {
    truth: known.reduce((truth, fault) => fault.apply(truth), sound),
    label: labelOf(sound),
    faults: known,
  };
}
