// What is wrong or odd in a list of offers by itself. USB Power Delivery R3.2, 6.4.1.

import { describeOffer } from './describe.ts';
import type { Finding } from './finding.ts';
import { decodeSource, type SourceObject, type SupplyKind } from './source.ts';
import { MOST_AMPS } from './usable.ts';

/** Positions an SPR list has; in an EPR list the EPR objects follow them. */
export const SPR_POSITIONS = 7;
const EPR_LEVELS = [28, 36, 48];
const MOST_EPR = 11;
/** Highest fixed level of an SPR list, V. */
const HIGHEST_SPR = 20;
/** Positions looked at one by one: far more than any list has, and few enough to be told at once. */
const MOST_CHECKED = 1000;

const finding = (kind: string, grade: Finding['grade'], sentence: string, ...positions: number[]): Finding => ({
  kind,
  grade,
  sentence,
  positions,
});

interface Placed {
  readonly object: SourceObject;
  readonly position: number;
}

/** Order of the types; PPS and SPR AVS come last in either order, among EPR objects AVS after the fixed ones. */
const RANK: Readonly<Partial<Record<SupplyKind, number>>> = {
  fixed: 0,
  battery: 1,
  variable: 2,
  pps: 3,
  'spr-avs': 3,
  'epr-avs': 4,
};

/** What an object is ordered by among its like, V. */
function keyOf(object: SourceObject): number | null {
  if (object.kind === 'fixed') return object.volts;
  if (object.kind === 'variable' || object.kind === 'battery') return object.minVolts;
  return object.kind === 'pps' ? object.maxVolts : null;
}

function orderFindings(placed: readonly Placed[]): Finding[] {
  const found: Finding[] = [];
  const last = new Map<SupplyKind, Placed>();
  let rank = 0;
  for (const one of placed) {
    const { object, position } = one;
    const before = last.get(object.kind);
    const key = keyOf(object);
    const beforeKey = before ? keyOf(before.object) : null;
    if (before && key !== null && beforeKey !== null && key <= beforeKey) {
      const same = key === beforeKey && object.kind === 'fixed';
      found.push(
        finding(
          'order',
          'fault',
          same
            ? `${describeOffer(object)} repeats a level that was offered at position ${before.position}.`
            : `${describeOffer(object)} comes after ${describeOffer(before.object)}: ascending order is broken.`,
          before.position,
          position,
        ),
      );
    }
    last.set(object.kind, one);
    const own = RANK[object.kind];
    if (own === undefined) continue;
    if (own < rank)
      found.push(
        finding('type-order', 'fault', `${describeOffer(object)} stands after objects of a later type.`, position),
      );
    rank = Math.max(rank, own);
  }
  return found;
}

function objectFindings({ object, position }: Placed): Finding[] {
  const found: Finding[] = [];
  const add = (kind: string, grade: Finding['grade'], sentence: string) =>
    found.push(finding(kind, grade, sentence, position));
  if (object.kind === 'unknown')
    add('unknown-type', 'fault', `Position ${position} has an augmented type nobody has defined.`);
  else if ('reserved' in object && object.reserved !== 0)
    add('reserved', 'fault', `Position ${position} has reserved bits set.`);
  if (object.kind === 'fixed') {
    if (position > 1 && object.flags.length > 0)
      add('flags', 'fault', `Position ${position} has bits set that belong to the 5 V object only.`);
    if (object.volts === 0) add('no-volts', 'fault', `Position ${position} offers 0 V.`);
  }
  if ('minVolts' in object && object.minVolts > object.maxVolts)
    add('reversed', 'fault', `Position ${position}: the lowest voltage is above the highest.`);
  if ('minVolts' in object && object.minVolts === 0) add('no-volts', 'fault', `Position ${position} starts at 0 V.`);
  const amps = 'amps' in object ? object.amps : null;
  if (amps === 0 || ('watts' in object && object.watts === 0))
    add('no-current', 'fault', `Position ${position} offers no current.`);
  const most = object.kind === 'spr-avs' ? Math.max(object.amps, object.ampsAbove) : amps;
  if (most !== null && most > MOST_AMPS + 1e-9)
    add('too-much', 'fault', `${describeOffer(object)}: no connector carries more than 5 A.`);
  return found;
}

function placeHolders(objects: readonly SourceObject[], epr: boolean): Finding[] {
  const found: Finding[] = [];
  objects.forEach((object, index) => {
    if (object.kind !== 'empty') return;
    const position = index + 1;
    if (!epr) {
      found.push(finding('zero', 'fault', `Position ${position} is zero: an SPR list has no place holders.`, position));
      return;
    }
    const next = objects[index + 1];
    if (index < SPR_POSITIONS && index + 1 < SPR_POSITIONS && next && next.kind !== 'empty')
      found.push(
        finding('zero', 'fault', `A zero at position ${position} stands before another SPR object.`, position),
      );
    if (index >= SPR_POSITIONS)
      found.push(finding('zero', 'fault', `Position ${position} is zero among the EPR objects.`, position));
  });
  return found;
}

function eprFindings(placed: readonly Placed[]): Finding[] {
  return placed.flatMap(({ object, position }) => {
    const late = position > SPR_POSITIONS;
    const isEpr = object.kind === 'epr-avs' || (object.kind === 'fixed' && EPR_LEVELS.includes(object.volts));
    if (late && !isEpr)
      return [finding('epr-place', 'fault', `${describeOffer(object)} stands among the EPR objects.`, position)];
    if (!late && object.kind === 'fixed' && object.volts > HIGHEST_SPR + 1e-9 && !isEpr)
      return [
        finding(
          'epr-place',
          'fault',
          `${describeOffer(object)} cannot be: fixed levels of positions 1–7 end at ${HIGHEST_SPR} V.`,
          position,
        ),
      ];
    if (!late && isEpr)
      return [
        finding('epr-place', 'fault', `${describeOffer(object)} is EPR and stands among positions 1–7.`, position),
      ];
    return [];
  });
}

/**
 * Findings about a list of offers by itself: order, reserved bits, place holders, the 5 V object, EPR places.
 * Past {@link MOST_CHECKED} positions only the length is told.
 * @param words unsigned 32-bit words, in order
 * @param epr whether it is an EPR list, with EPR objects from position 8 on
 */
export function checkOffers(words: readonly number[], epr: boolean): readonly Finding[] {
  if (words.length === 0) return [];
  const objects = words.slice(0, MOST_CHECKED).map(decodeSource);
  const placed = objects.flatMap((object, index) => (object.kind === 'empty' ? [] : [{ object, position: index + 1 }]));
  const found: Finding[] = [];
  const [first] = objects;
  if (first?.kind !== 'fixed' || first.volts !== 5)
    found.push(finding('no-5-volt', 'fault', 'The first object is not 5 V; every source offers 5 V first.', 1));
  const most = epr ? MOST_EPR : SPR_POSITIONS;
  if (words.length > most)
    found.push(
      finding('too-many', 'fault', `${words.length} objects; ${epr ? 'an EPR' : 'an SPR'} list has at most ${most}.`),
    );
  const spr = epr ? placed.filter(({ position }) => position <= SPR_POSITIONS) : placed;
  const beyond = epr ? placed.filter(({ position }) => position > SPR_POSITIONS) : [];
  const inList = [
    placeHolders(objects, epr),
    placed.flatMap(objectFindings),
    orderFindings(spr),
    orderFindings(beyond),
    eprFindings(placed),
  ].flat();
  if (epr && first?.kind === 'fixed' && !first.flags.includes('eprCapable'))
    found.push(finding('epr-flag', 'note', 'EPR levels are offered, but the 5 V object does not say EPR capable.', 1));
  return [...found, ...inList];
}
