// What one charger would replace: a kit in sums, against the one; keeping what one has is an answer too.

/** What is carried or plugged in. SI; null for what nobody knows. */
export interface KitPiece {
  readonly id: string;
  readonly title: string;
  /** kg */
  readonly mass: number | null;
  /** m³ */
  readonly volume: number | null;
  readonly price: number | null;
  readonly currency: string | null;
  /** W with nothing attached, at the mains all are compared at. */
  readonly idle: number | null;
  /** Sockets it takes: a cable takes none. */
  readonly sockets: number;
}

export interface KitSum {
  readonly mass: number | null;
  readonly volume: number | null;
  readonly price: number | null;
  /** kWh a year, plugged in all the time. */
  readonly idleYear: number | null;
  readonly sockets: number;
  /** What is not known of which piece: the sum is then not known either. */
  readonly missing: readonly string[];
}

const HOURS = 8760;

/** What a comparison of two kits comes to; `unknown` while mass or idle of either is not known. */
export type KitAdvice = 'replace' | 'keep' | 'either' | 'unknown';

/** Sums of a kit. What one piece lacks makes that sum unknown, never smaller. */
export function kitSum(pieces: readonly KitPiece[]): KitSum {
  const missing: string[] = [];
  const sum = (of: (piece: KitPiece) => number | null, what: string): number | null => {
    const lacking = pieces.filter((piece) => of(piece) === null);
    missing.push(...lacking.map(({ title }) => `${what} of ${title}`));
    return lacking.length > 0 ? null : pieces.reduce((all, piece) => all + (of(piece) ?? 0), 0);
  };
  const currencies = new Set(pieces.map(({ currency }) => currency));
  const mass = sum((piece) => piece.mass, 'mass');
  const price = sum((piece) => piece.price, 'price');
  if (price !== null && currencies.size > 1) missing.push('one currency for all prices');
  const idle = sum((piece) => (piece.sockets === 0 ? 0 : piece.idle), 'idle');
  return {
    mass,
    volume: sum((piece) => (piece.sockets === 0 ? 0 : piece.volume), 'size'),
    price: currencies.size > 1 ? null : price,
    idleYear: idle === null ? null : (idle * HOURS) / 1000,
    sockets: pieces.reduce((all, { sockets }) => all + sockets, 0),
    missing,
  };
}

/**
 * Whether one replaces what there is: only where it is lighter and draws less idle; kept where it is neither.
 * @param kit sums of what there is @param one sums of what would replace it
 * @example kitAdvice(kitSum(three), kitSum([one])) // 'replace'
 */
export function kitAdvice(kit: KitSum, one: KitSum): KitAdvice {
  if (kit.mass === null || one.mass === null || kit.idleYear === null || one.idleYear === null) return 'unknown';
  const [lighter, thriftier] = [one.mass < kit.mass, one.idleYear < kit.idleYear];
  if (lighter && thriftier) return 'replace';
  return lighter || thriftier ? 'either' : 'keep';
}
