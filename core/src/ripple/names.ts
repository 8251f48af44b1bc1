// What lines of ripple are: of the mains, of switching, of bursts at light load, multiples of one of them, or not known.
import { type Line, peakToPeakOf } from '../spectrum/index.ts';

export const LINE_KINDS = ['mains', 'switching', 'burst', 'harmonic', 'other'] as const;
export type LineKind = (typeof LINE_KINDS)[number];

export const LINE_WORDS: Readonly<Record<LineKind, string>> = {
  mains: 'mains',
  switching: 'switching',
  burst: 'bursts',
  harmonic: 'multiple',
  other: 'not known',
};

export interface RippleLine {
  /** Hz */
  readonly hertz: number;
  /** V, of the line alone */
  readonly peakToPeak: number;
  readonly kind: LineKind;
  /** Frequency it is a multiple of, Hz; null for one of its own. */
  readonly of: number | null;
  /** Its frequency wanders. */
  readonly spread: boolean;
}

/** Converters switch above hearing; what comes in packets comes more slowly. */
const SWITCHING_FROM = 20_000;
const SWITCHING_TO = 20e6;
const BURST_FROM = 25;
/** Mains frequencies are held within 1 %. */
const MAINS_BAND = 0.01;
const MOST_LINES = 24;
/** Multiples that are told as such. */
const MOST_MULTIPLE = { mains: 20, switching: 40, burst: 10 } as const;
/** So many multiples of one frequency are a chain that may go on for long, as those of packets do. */
const A_CHAIN = 3;
const MOST_OF_CHAIN = 60;
/** A multiple as large as this against its first is one of its own. */
const LARGER = 1.2;
/** Part of its resolution a frequency is known to. */
const KNOWN_TO = 0.12;

interface First {
  readonly line: Line;
  /** How many of its multiples were found so far. */
  multiples: number;
  /** Its frequency by the highest of them, and how well that is known, Hz: each knows it better than the one before. */
  hertz: number;
  resolution: number;
  readonly kind: 'mains' | 'switching' | 'burst';
}

const ownKind = (hertz: number, resolution: number, mains: readonly number[]): LineKind => {
  const isMains = mains.some((one) =>
    [1, 2].some((times) => Math.abs(hertz - times * one) <= times * one * MAINS_BAND + KNOWN_TO * resolution),
  );
  if (isMains) return 'mains';
  if (hertz >= SWITCHING_FROM) return hertz <= SWITCHING_TO ? 'switching' : 'other';
  return hertz >= BURST_FROM ? 'burst' : 'other';
};

/** The first it is a multiple of, if any. */
function firstOf(line: Line, firsts: readonly First[]): First | undefined {
  return firsts.find(({ line: first, kind, multiples, hertz, resolution }) => {
    // A chain whose multiples run into each other.
    if (line.spread && multiples >= A_CHAIN && hertz < line.resolution && line.power < first.power) return true;
    const times = Math.round(line.hertz / hertz);
    if (
      times < 2 ||
      times > (multiples >= A_CHAIN ? MOST_OF_CHAIN : MOST_MULTIPLE[kind]) ||
      (kind !== 'switching' && line.hertz >= SWITCHING_FROM && multiples < A_CHAIN) ||
      line.power > LARGER ** 2 * first.power
    )
      return false;
    const tolerance = KNOWN_TO * (line.resolution + times * resolution);
    // Where multiples lie closer than they are known, anything would be one.
    return tolerance < 0.15 * hertz && Math.abs(line.hertz - times * hertz) <= tolerance;
  });
}

/** A multiple was found: by it the first is known that much better. */
function learn(first: First, { hertz, resolution }: Line): void {
  const times = Math.round(hertz / first.hertz);
  first.multiples += 1;
  if (resolution / times >= first.resolution) return;
  first.hertz = hertz / times;
  first.resolution = resolution / times;
}

/** Whether it stands beside a stronger line of switching by a multiple of something slower: that modulates this. */
function isBeside(line: Line, firsts: readonly First[]): boolean {
  return firsts.some(({ line: carrier, kind }) => {
    if (kind !== 'switching' || carrier === line || carrier.power < line.power) return false;
    const apart = Math.abs(line.hertz - carrier.hertz);
    if (apart > 0.25 * carrier.hertz) return false;
    return firsts.some(({ line: slow, kind: other }) => {
      if (other === 'switching') return false;
      const times = Math.round(apart / slow.hertz);
      const tolerance = KNOWN_TO * (line.resolution + carrier.resolution + times * slow.resolution);
      return (
        times > 0 && times <= 10 && tolerance < 0.15 * slow.hertz && Math.abs(apart - times * slow.hertz) <= tolerance
      );
    });
  });
}

/**
 * Name lines by what they are.
 * @param mains mains frequency, Hz; null where it is not known and may be 50 or 60; 0 for none (a car)
 */
export function namedLines(lines: readonly Line[], mains: number | null): readonly RippleLine[] {
  const possible = mains === null ? [50, 60] : mains > 0 ? [mains] : [];
  // The slower ones first, so that multiples find what they are multiples of.
  const upwards = [...lines].sort((a, b) => a.hertz - b.hertz);
  const firsts: First[] = [];
  const all = upwards.map((line): RippleLine => {
    const common = { hertz: line.hertz, peakToPeak: peakToPeakOf(line.power), spread: line.spread };
    const own = ownKind(line.hertz, line.resolution, possible);
    const first = own === 'mains' ? undefined : firstOf(line, firsts);
    if (first) {
      learn(first, line);
      return { ...common, kind: 'harmonic', of: first.line.hertz };
    }
    if (own === 'mains' || own === 'switching' || own === 'burst')
      firsts.push({ line, kind: own, multiples: 0, hertz: line.hertz, resolution: line.resolution });
    return { ...common, kind: own, of: null };
  });
  // A line may stand below what it is beside, which is known only now.
  const told = all.map((one, at) =>
    one.kind === 'switching' && isBeside(upwards[at] as Line, firsts) ? { ...one, kind: 'other' as const } : one,
  );
  return told.sort((a, b) => b.peakToPeak - a.peakToPeak).slice(0, MOST_LINES);
}
