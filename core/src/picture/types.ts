// Pictures as data: what is drawn is what stands in the table beside it, on paper as on screen.
import type { Table } from '../table/index.ts';

/** One series of a plot. */
export interface Series {
  readonly name: string;
  readonly points: readonly (readonly [x: number, y: number])[];
  /** Half lengths of whiskers, one a point; left out for none. */
  readonly whiskers?: readonly number[] | undefined;
  /** Joined by a line, shown by marks, or both. */
  readonly as: 'line' | 'marks' | 'both';
}

export interface PlotLimit {
  readonly name: string;
  readonly at: number;
  readonly along: 'x' | 'y';
}

interface PictureHead {
  /** Stays the same while the same thing is drawn. */
  readonly id: string;
  readonly title: string;
  /** What it shows, under which conditions. */
  readonly caption: string;
  /** The same as data. */
  readonly table: Table;
}

/** Something against something, both to scale. */
export interface Plot extends PictureHead {
  readonly kind: 'plot';
  readonly x: string;
  readonly y: string;
  readonly series: readonly Series[];
  readonly limits: readonly PlotLimit[];
  /** The vertical axis begins at nought. */
  readonly fromZero: boolean;
}

/** One bar. */
export interface Bar {
  readonly name: string;
  /** Null where nothing is known. */
  readonly value: number | null;
  /** Half length of its whisker. */
  readonly whisker?: number | undefined;
  /** What was promised. */
  readonly outline?: number | null | undefined;
  readonly limits?: readonly number[] | undefined;
  readonly words: string;
  /** Somebody must see it. */
  readonly exception?: boolean | undefined;
}

/** Bars from the left, a line each. */
export interface Bars extends PictureHead {
  readonly kind: 'bars';
  /** What is drawn, with its unit. */
  readonly x: string;
  readonly bars: readonly Bar[];
}

export type Picture = Plot | Bars;
