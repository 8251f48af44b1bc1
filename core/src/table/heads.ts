// Heads of columns: a name, and behind it the unit of what stands below.
import { findUnit, type QuantityId, type Unit } from '../quantity/index.ts';

/** A unit at the end of a name: `vin_mV`, `Iout.A`. */
const TRAILING = /^(.+?)[_.\s-]+(mV|V|kV|mA|A|µA|uA|mW|W|kW|Hz|%|ms|s|min)$/;

/**
 * The first of the units a column holds, where all of them are of one quantity; empty otherwise.
 * @param quantities they may be of
 * @example alikeUnit(['mA', 'A'], ['voltage', 'current']) // 'mA'
 */
export function alikeUnit(units: readonly string[], quantities: readonly QuantityId[]): string {
  const [first = ''] = units;
  const quantity = quantities.find((one) => findUnit(one, first));
  return quantity && units.every((unit) => findUnit(quantity, unit)) ? first : '';
}

/** What lasts: behind it `min` is minutes, and behind a quantity the least of it, `U min`. */
export const LASTS = /(?:^|[\W_])(?:t|x)(?:$|[\W_])|time|elapsed|zeit|dauer|duration|since|after/i;

/** What was asked for, and extremes of an interval: neither is what was read. */
const NOT_READ = /\b(?:[uvip] ?)?(?:set(?:point)?|min|max|limit)\b|\b(?:peak|lowest|highest|target|std)\b/i;

/**
 * Whether a column of that name holds what was read: no set point, and no extreme of an interval.
 * @example isRead('V_set') // false
 */
export const isRead = (name: string): boolean => !NOT_READ.test(name.replace(/[_.-]+/g, ' '));

/** Lines of a port that carry no power: data, configuration, side band. */
const NO_POWER =
  /^(?:usb[ _]?)?(?:[uv][ _]?)?(?:d(?:ata)?[ _]?(?:[+-]|[pmn](?![a-z])|plus|minus)|cc[ _]?\d?(?![a-z])|v?conn(?![a-z])|sbu[ _]?\d?(?![a-z]))/i;

/**
 * Whether a column is of a line that carries no power.
 * @example isDataLine('D+') // true
 */
export const isDataLine = (name: string): boolean => NO_POWER.test(name.trim());

/** What a column is called that says the units of the one before, cell by cell. */
export const UNIT_NAME = /^(?:(?:.*\W)?units?(?:\W?\d+)?|einheit|u)?$/i;

/** Split a head into its name and unit: `Vin [V]`, `P_in (mW)`, `Iout / A`, `vin_mV`. */
export function headerParts(cell: string): { name: string; unit: string } {
  const match = /^(.*?)\s*(?:\[([^\]]*)\]|\(([^)]*)\)|\/\s*([^/]+))\s*$/.exec(cell.trim());
  if (!match) {
    const [, name, unit] = TRAILING.exec(cell.trim()) ?? [];
    if (name === undefined || unit === undefined || (unit === 'min' && !LASTS.test(name)))
      return { name: cell.trim(), unit: '' };
    return { name, unit };
  }
  return { name: (match[1] ?? '').trim(), unit: (match[2] ?? match[3] ?? match[4] ?? '').trim() };
}

export interface HeadUnit {
  /** Null where a head names none. */
  readonly unit: string | null;
  /** What stands in the place of a unit and is none that is known. */
  readonly strange: string | null;
}

/**
 * The unit a head names, wherever it stands in it: `size_GB`, `Time (s)`, `rate [MB/s]`, `size / MB`, `MiB` alone.
 * @param known what is a unit of its quantity
 * @param like what looks like a unit at the end of a name, and must not be passed over if it is none
 * @example headUnit('drop (%)', (unit) => unit === 'mV') // { unit: null, strange: '%' }
 */
export function headUnit(head: string, known: (unit: string) => boolean, like: RegExp = /^%$/): HeadUnit {
  const [, bracket] = /[[(]\s*([^\])]*?)\s*[\])]/.exec(head) ?? [];
  const [, behindStroke] = /\/\s*([^/\s]+(?:\/s(?:ec)?)?)\s*$/.exec(head) ?? [];
  const words = head.split(/[\s_,;()[\]]+/).filter((word) => word !== '');
  const last = words.at(-1);
  const longer = words.filter((word) => word.length > 1).reverse();
  const unit = [bracket, last, behindStroke, ...longer].find((one) => one !== undefined && known(one));
  return unit === undefined
    ? { unit: null, strange: bracket ?? (last !== undefined && like.test(last) ? last : null) }
    : { unit, strange: null };
}

/** What a list may hold of each of its names, by the letter its head ends in. */
const LETTERS = { voltage: 'v', current: 'a', power: 'w' } as const satisfies Partial<Record<QuantityId, string>>;
type Listed = keyof typeof LETTERS;
const LISTED = Object.keys(LETTERS) as Listed[];

export interface QuantityHeads {
  /** How heads are compared: `C1 [mV]` and `C1_V` are both `c1_v`. */
  readonly asHead: (head: string) => string;
  /** Unit of a column by that head; undefined for the quantity's usual one. */
  readonly unitOf: (head: string) => string | undefined;
  /** Heads that begin as one of the names do and cannot be understood, or come twice, in a sentence each. */
  readonly wrong: readonly string[];
  /** Heads that are about one of the names and are none of these: as somebody wrote them. */
  readonly unread: (read: readonly string[]) => readonly string[];
}

const joined = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, '_');

/**
 * Reads heads made of a name and a quantity, whatever unit they are in. Others stay as they are, in small letters.
 * @param names what columns may be about, such as the ports of a sample
 * @example quantityHeads(['C1']).asHead('C1 [mA]') // 'c1_a'
 */
export function quantityHeads(names: readonly string[]): QuantityHeads {
  const known = new Map<string, Unit>();
  const wrong: string[] = [];
  const others = new Map<string, string>();
  const plain = names.map(joined);
  const understood = (head: string): { key: string; unit: Unit } | null => {
    const { name, unit } = headerParts(head);
    // As typed in small letters a unit is still one: what stands behind the name is looked at for itself.
    const own = joined(head);
    const begun = plain.filter((one) => own.startsWith(`${one}_`)).sort((a, b) => b.length - a.length)[0];
    const [base, written] =
      unit !== '' ? [joined(name), unit] : begun === undefined ? [own, ''] : [begun, own.slice(begun.length + 1)];
    if (!plain.includes(base) || written === '') return null;
    for (const quantity of LISTED) {
      const found = findUnit(quantity, written);
      if (found) return { key: `${base}_${LETTERS[quantity]}`, unit: found };
    }
    wrong.push(`the unit of the column ${head.trim()} is not known; write it as V, mV, A, mA, W or mW.`);
    return null;
  };
  return {
    asHead: (head) => {
      const found = understood(head);
      if (!found) {
        if (!wrong.some((one) => one.includes(`column ${head.trim()} is`))) others.set(joined(head), head.trim());
        return joined(head);
      }
      others.set(found.key, head.trim());
      if (known.has(found.key)) wrong.push(`the column ${head.trim()} comes twice.`);
      known.set(found.key, found.unit);
      return found.key;
    },
    unitOf: (head) => known.get(head)?.symbol,
    wrong,
    unread: (read) =>
      [...others]
        .filter(([key]) => !read.includes(key) && plain.some((name) => `_${key}_`.includes(`_${name}_`)))
        .map(([, head]) => head),
  };
}
