// Draws the samples and the hidden faults of a drill: the same level and seed give the same drill.
import type { DrillLevel } from '@lastmark/core/drill';
import { seededRandom } from '@lastmark/core/random';
import { CHARGER_FAULTS } from './faults.ts';
import type { BenchFile } from './parameter-file.ts';
import { type SeededInput, seededCharger } from './seeded.ts';
import { CABLE_FAULTS, seededCable } from './seeded-cable.ts';

const RIG_FAULTS = ['worn lead', 'meter out of calibration', 'frozen meter'] as const;
/** Seeds tried until a charger can have what is wanted; more than enough for every level. */
const TRIES = 500;

/** A name without its seed, told from others of the same name. */
function plainName(name: string, taken: Set<string>): string {
  const plain = name.replace(/ \(\d+\)$/, '');
  let own = plain;
  for (let at = 2; taken.has(own); at += 1) own = `${plain} No ${at}`;
  taken.add(own);
  return own;
}

/**
 * The parameter file of a drill.
 * @param level what is drawn from @param seed a whole number
 * @throws RangeError where no seeded charger can be what the level asks for
 */
export function drawDrill(level: DrillLevel, seed: number): Required<BenchFile> {
  const random = seededRandom(Math.imul(seed, 2_654_435_761));
  const from = ([low, high]: readonly [number, number]) => low + Math.floor(random() * (high - low + 1));
  const some = <T>(list: readonly T[], count: number): T[] => {
    const left = [...list];
    return Array.from({ length: Math.min(count, left.length) }, () =>
      left.splice(Math.floor(random() * left.length), 1),
    ).flat();
  };
  const names = new Set<string>();
  const chargers = level.chargers.map(({ ports, faults: range }): SeededInput => {
    const count = from(range);
    for (let tries = 0; tries < TRIES; tries += 1) {
      const own = 1 + Math.floor(random() * 1_000_000);
      const { truth } = seededCharger({ seed: own });
      // A level of single ports has nothing to do with how ports share.
      if (truth.ports.length < ports || (ports === 1 && truth.ports.length > 1)) continue;
      const fit = CHARGER_FAULTS.filter(({ id, fits }) => level.among.includes(id) && fits(truth));
      if (fit.length < count) continue;
      return {
        seed: own,
        faults: some(fit, count).map(({ id }) => id),
        name: plainName(truth.name, names),
      };
    }
    throw new RangeError(`No charger of level “${level.id}” was found.`);
  });
  const cables = level.cables.map(({ faults: range }): SeededInput => {
    const own = 1 + Math.floor(random() * 1_000_000);
    return {
      seed: own,
      faults: some(CABLE_FAULTS, from(range)),
      name: plainName(seededCable({ seed: own }).truth.name, names),
    };
  });
  return { chargers, cables, rig: random() < level.rig ? some(RIG_FAULTS, 1) : [] };
}
