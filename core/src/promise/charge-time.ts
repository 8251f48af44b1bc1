// A charge time as it is printed: "charges a Ridge 14 to 50 % in 28 minutes", "0 to 100 % in 2 h", "20–80 % in 35 min".
import type { Promised } from './types.ts';

const NUMBER = String.raw`\d{1,3}(?:[.,]\d+)?`;
/** A first level says that it is one: by its sign, by "from", or by standing at the beginning; "Ridge 14 to 50 %" has none. */
const FROM = String.raw`(?:(?:\bfrom\s+|^\s*|:\s*|\s)(?<from1>${NUMBER})\s*%\s*(?:to|up to|[-–—…])\s*|(?:\bfrom\s+|^\s*|:\s*)(?<from2>${NUMBER})\s*(?:to|up to|[-–—…])\s*|\s(?<from3>${NUMBER})\s*[-–—…]\s*|\b(?:up\s+)?to\s+|\s|^)`;
const LINE = new RegExp(
  String.raw`^(?<before>.*?)${FROM}(?<to>${NUMBER})\s*%(?<between>[^%]*?)\b(?:in|within|after)\s+(?:only|just|about|around|under|less than|ca\.?|~|≈)?\s*(?<time>\d[^%]*)$`,
  'i',
);
const FULL =
  /^(?<before>.*?)\b(?:full(?:y(?: charged)?)?|full charge)\b(?<between>[^%]*?)\b(?:in|within|after)\s+(?:only|just|about|around)?\s*(?<time>\d[^%]*)$/i;
const TIME =
  /^(?:(?<hours>\d+(?:[.,]\d+)?)\s*(?:h|hr|hrs|hours?)\b)?\s*(?:and\s+)?(?:(?<minutes>\d+(?:[.,]\d+)?)\s*(?<unit>m|min|mins|minutes?|′|')?)?\s*\.?$/i;
/** Words around the device's name. */
const AROUND =
  /\b(?:charges?|charged|charging|fills?|battery|your|our|the|an?|of|for|any|level|from|up|empty|device|with|it|get|gets|goes|by|is|on)\b/gi;

const number = (text: string | undefined): number => Number((text ?? '').replace(',', '.'));

function secondsOf(text: string): number | null {
  const found = TIME.exec(
    text
      .trim()
      .replace(/\b(?:flat|only|time)\b/gi, '')
      .trim(),
  )?.groups;
  if (!found || (found.hours === undefined && (found.minutes === undefined || found.unit === undefined))) return null;
  const seconds =
    (found.hours === undefined ? 0 : number(found.hours) * 3600) +
    (found.minutes === undefined ? 0 : number(found.minutes) * 60);
  return seconds > 0 ? seconds : null;
}

/**
 * Understand a charge time.
 * @returns null for a line that is none
 * @example chargeTimeIn('charges a Ridge 14 to 50 % in 28 min') // from 0 to 0.5 in 1680 s, device "Ridge 14"
 */
export function chargeTimeIn(
  line: string,
): Extract<Promised, { kind: 'charge-time' }> | { readonly reason: string } | null {
  const found = (LINE.exec(line) ?? FULL.exec(line))?.groups;
  if (!found) return null;
  const seconds = secondsOf(found.time ?? '');
  if (seconds === null) return null;
  const to = found.to === undefined ? 1 : number(found.to) / 100;
  const begins = found.from1 ?? found.from2 ?? found.from3;
  const from = begins === undefined ? 0 : number(begins) / 100;
  if (!(to <= 1) || !(from < to))
    return { reason: 'A charge goes from a level to a higher one, such as 0 to 50 % in 30 min.' };
  const device = `${found.before ?? ''} ${found.between ?? ''}`
    .replace(AROUND, ' ')
    .replace(/[:;,.()"“”]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  return { kind: 'charge-time', device: device.slice(0, 60), from, to, seconds };
}
