// What a source states of its own power, held against the label, against what it offers, and against itself.
import {
  advertisedWatts,
  checkExtended,
  checkInfo,
  decodeExtended,
  decodeInfo,
  type Finding,
  fixedWatts,
  type SourceInfo,
  wordOf,
} from '../pd/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { fiveAmpCable, offersOf } from './offers.ts';
import type { ReadOut } from './types.ts';

/** Bytes of hexadecimal digits. @throws RangeError for anything else */
function bytesOf(digits: string): number[] {
  if (!/^(?:[0-9a-f]{2})*$/i.test(digits)) throw new RangeError(`"${digits.slice(0, 24)}" is no list of whole bytes.`);
  return (digits.match(/../g) ?? []).map((byte) => Number.parseInt(byte, 16));
}

/** Bytes as hexadecimal digits, two each. */
export const bytesText = (bytes: readonly number[]): string =>
  bytes.map((byte) => byte.toString(16).toUpperCase().padStart(2, '0')).join('');

/** Source info of a read-out; null where it was not asked for. */
export const infoOf = ({ info }: Pick<ReadOut, 'info'>): SourceInfo | null =>
  info == null ? null : decodeInfo(wordOf(info));

/** Extended capabilities of a read-out as bytes; empty where they were not asked for. */
export const extendedOf = ({ extended }: Pick<ReadOut, 'extended'>): readonly number[] => bytesOf(extended ?? '');

/** The power the source rates itself, W: with EPR where it has it; null where it does not say. */
export function ratedWatts(readOut: Pick<ReadOut, 'extended'>): number | null {
  const { sprWatts, eprWatts } = decodeExtended(extendedOf(readOut));
  return eprWatts ?? sprWatts;
}

/**
 * The power a read-out is judged by, W: what the source states, where it does. A shared port is judged by the power present, not
 * by its most; one alone by what its label claims.
 * @param claimed what the label claims of the port; null where it says nothing
 */
export function judgedWatts(readOut: ReadOut, claimed: number | null): number {
  const info = infoOf(readOut);
  const offered = fixedWatts(offersOf(readOut).map(({ object }) => object));
  if (readOut.occupied.length > 0) return info?.present || offered;
  return claimed ?? (info?.maximum || ratedWatts(readOut) || offered);
}

/** What the cable in use lets through at most, W. */
const cableWatts = (readOut: ReadOut): number =>
  !fiveAmpCable(readOut) ? 60 : readOut.marker === '5 A' ? 100 : Number.POSITIVE_INFINITY;

/** The largest power of an SPR list, W: what goes beyond it an SPR list does not show. */
const SPR_WATTS = 100;
/** A level may lie one step of its current below the power: 10 mA at 48 V. */
const STEP_WATTS = 0.48;

const watts = (value: number): string => formatPlain(value, 'power', 'W');
const fault = (kind: string, sentence: string): Finding => ({ kind, grade: 'fault', sentence, positions: [] });

function infoFindings(readOut: ReadOut, claimed: number | null): Finding[] {
  const info = infoOf(readOut);
  if (!info) return [];
  const { maximum, present, reported } = info;
  const found: Finding[] = [];
  // Whole watts, rounded down: a label of 22.5 W is stated as 22 W.
  const least = claimed === null ? 0 : Math.floor(claimed + 1e-9);
  if (claimed !== null && maximum > 0 && maximum < least)
    found.push(
      fault(
        'stated-less',
        `The label promises ${watts(claimed)}; the source states ${maximum} W as the port’s maximum.`,
      ),
    );
  else if (
    claimed !== null &&
    readOut.occupied.length === 0 &&
    present < Math.min(least, Math.floor(cableWatts(readOut)))
  )
    found.push(
      fault('stated-less', `The label promises ${watts(claimed)}; alone the source states ${present} W at present.`),
    );
  const objects = offersOf(readOut).map(({ object }) => object);
  const offered = advertisedWatts(objects);
  // What an SPR list does not show cannot contradict it.
  const whole = readOut.epr || reported <= SPR_WATTS;
  if (offered > 0 && whole && (offered - reported >= 1 || reported - offered > STEP_WATTS))
    found.push(
      fault('stated-offers', `The source says it advertises ${reported} W; its offers come to ${watts(offered)}.`),
    );
  return found;
}

function ratingFindings(readOut: ReadOut, claimed: number | null): Finding[] {
  const rated = ratedWatts(readOut);
  if (rated === null) return [];
  const found: Finding[] = [];
  if (claimed !== null && rated < Math.floor(claimed + 1e-9))
    found.push(fault('rated-less', `The label promises ${watts(claimed)}; the source rates itself ${rated} W.`));
  const maximum = infoOf(readOut)?.maximum ?? 0;
  if (maximum > 0 && maximum !== rated)
    found.push(
      fault('stated-otherwise', `The source rates itself ${rated} W, and states ${maximum} W as the port’s maximum.`),
    );
  return found;
}

/**
 * Findings about what the source states of its power.
 * @param claimed what the label claims of the port, W; null where it says nothing
 */
export const statedFindings = (readOut: ReadOut, claimed: number | null): readonly Finding[] => [
  ...(readOut.info == null ? [] : checkInfo(wordOf(readOut.info))),
  ...infoFindings(readOut, claimed),
  ...checkExtended(extendedOf(readOut)),
  ...ratingFindings(readOut, claimed),
];

/**
 * What the source states of its power, in a line; empty where it states nothing.
 * @example statedWords(readOut) // '45 W at present of 65 W, shared out anew as ports are used; rated 65 W'
 */
export function statedWords(readOut: Pick<ReadOut, 'info' | 'extended'>): string {
  const info = infoOf(readOut);
  const rated = ratedWatts(readOut);
  return [
    ...(info
      ? [
          `${info.present} W at present of ${info.maximum} W, ${info.guaranteed ? 'guaranteed' : 'shared out anew as ports are used'}`,
        ]
      : []),
    ...(rated === null ? [] : [`rated ${rated} W`]),
  ].join('; ');
}
