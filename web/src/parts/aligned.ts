// Numbers that stand on their decimal point: each text is cut at its signs, and every part gets the room the widest has.

/** A number as text, cut where it is aligned: `0.1478 ± 0.0021` → 0 | .1478 | 0 | .0021. */
export interface Cut {
  readonly whole: string;
  readonly part: string;
  /** Empty without an uncertainty. */
  readonly uWhole: string;
  readonly uPart: string;
}

/** Characters each part of a column needs. */
export interface Widths {
  readonly whole: number;
  readonly part: number;
  readonly uWhole: number;
  readonly uPart: number;
}

const NUMBER = /^([−-]?\d+)((?:\.\d+)?)(?: ± (\d+|\?)((?:\.\d+)?))?$/;

/**
 * Cut a number for its column. Null for what is no such number: it is shown as it is.
 * @example cut('20.038 ± 0.007') // { whole: '20', part: '.038', uWhole: '0', uPart: '.007' }
 */
export function cut(text: string): Cut | null {
  const [found, whole = '', part = '', uWhole = '', uPart = ''] = NUMBER.exec(text) ?? [];
  return found === undefined ? null : { whole, part, uWhole, uPart };
}

/** Room for a column of texts. @example widthsOf(['0.5', '12']) // { whole: 2, part: 2, uWhole: 0, uPart: 0 } */
export function widthsOf(texts: readonly string[]): Widths {
  const cuts = texts.map(cut).filter((one) => one !== null);
  const most = (part: (of: Cut) => string) => cuts.reduce((wide, one) => Math.max(wide, part(one).length), 0);
  return {
    whole: most(({ whole }) => whole),
    part: most(({ part }) => part),
    uWhole: most(({ uWhole }) => uWhole),
    uPart: most(({ uPart }) => uPart),
  };
}

/** A value without the unit that stands in the head of its column. @example bare('12.3 ± 0.4 W', 'W') // '12.3 ± 0.4' */
export const bare = (text: string, unit: string): string =>
  unit !== '' && text.endsWith(` ${unit}`) ? text.slice(0, -unit.length - 1) : text;
