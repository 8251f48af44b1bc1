// The marker of a cable as a station: what it says of itself, against what is printed.
import { CABLE_PLACES, type CableFacts } from '../cable/index.ts';
import { bitsWords, MARKER_BITS } from '../copy/index.ts';
import {
  type CableKind,
  type CableRating,
  decodeIdentity,
  type Finding,
  type Identity,
  PORT_ANSWERED,
  UNMARKED,
  wordOf,
} from '../pd/index.ts';
import type { Claim } from '../promise/index.ts';
import { currentReadOuts } from '../read-out/offers.ts';
import type { ReadOut } from '../read-out/types.ts';
import { aboutStation, type Station } from '../station/index.ts';

export interface MarkerFacts {
  readonly sample: { readonly kind: string; readonly cable?: CableFacts | null | undefined };
  readonly claims: readonly Claim[];
  readonly readOuts: readonly ReadOut[];
}

/** What one end answered. */
export interface MarkerEnd {
  readonly place: string;
  readonly readOutId: string;
  readonly takenAt: string;
  /** Null where nothing answered. */
  readonly identity: Identity | null;
  readonly rating: CableRating;
  /** Most it may carry by its speed code, bit/s; null where nothing answered. */
  readonly bits: number | null;
}

export interface MarkerConclusion {
  readonly ends: readonly MarkerEnd[];
  /** The lowest of both ends; null while nobody asked. */
  readonly rating: CableRating | null;
  readonly kind: CableKind | null;
  readonly bits: number | null;
  readonly findings: readonly Finding[];
}

/** What a marker brings to the claims. */
export interface MarkerEvidence {
  readonly answered: boolean;
  readonly rating: CableRating;
  readonly bits: number | null;
  readonly readOutId: string;
  readonly conditions: string;
}

const watts = ({ amps, volts }: Pick<CableRating, 'amps' | 'volts'>): number => amps * volts;
const ratingWords = ({ amps, volts }: Pick<CableRating, 'amps' | 'volts'>): string =>
  `${amps} A, ${Math.round(watts({ amps, volts }))} W`;

const finding = (kind: string, grade: Finding['grade'], sentence: string): Finding => ({
  kind,
  grade,
  sentence,
  positions: [],
});

function endOf(readOut: ReadOut): MarkerEnd {
  const words = readOut.cableWords.map(wordOf);
  const head = { place: readOut.port, readOutId: readOut.id, takenAt: readOut.takenAt };
  if (words.length === 0) return { ...head, identity: null, rating: UNMARKED, bits: null };
  const identity = decodeIdentity(words);
  const speed = identity.cable?.raw.speed;
  return {
    ...head,
    identity,
    rating: identity.cable?.rating ?? UNMARKED,
    bits: speed === undefined ? null : (MARKER_BITS[speed] ?? null),
  };
}

/** What a port said of itself is nothing the cable said. */
const byPort = ({ identity }: MarkerEnd): boolean =>
  identity?.findings.some(({ kind }) => kind === PORT_ANSWERED) ?? false;
/** Whether the cable answered at this end. */
export const spoke = (end: MarkerEnd): boolean => end.identity !== null && !byPort(end);

const lowest = (ratings: readonly CableRating[]): CableRating | null =>
  ratings.reduce<CableRating | null>((low, one) => (low === null || watts(one) < watts(low) ? one : low), null);

/** What a print says that the marker does not bear out, or the other way round. */
function against(claims: readonly Claim[], rating: CableRating, answered: boolean, bits: number | null): Finding[] {
  return claims.flatMap(({ promise, printed }): Finding[] => {
    if (promise.kind === 'cable-rating') {
      const said = `${ratingWords(promise)} (${printed})`;
      if (watts(promise) > watts(rating) * 1.005 || promise.amps > rating.amps)
        return [
          finding(
            'print',
            'fault',
            answered
              ? `${said} is printed, and its marker says ${ratingWords(rating)}: no charger gives it more.`
              : `${said} is printed, and no marker answers: no charger gives it more than 3 A, 60 W.`,
          ),
        ];
      return watts(promise) < watts(rating) * 0.995
        ? [finding('print-less', 'note', `Its marker says ${ratingWords(rating)}, more than the ${said} printed.`)]
        : [];
    }
    if (promise.kind === 'data-rate' && bits !== null && promise.bits > bits * 1.02)
      return [
        finding(
          'print-speed',
          'fault',
          `${bitsWords(promise.bits)} is printed; its marker says ${bitsWords(bits)} at most.`,
        ),
      ];
    return [];
  });
}

/** Both plugs C, so that a marker may be expected. */
const bothC = (cable: CableFacts | null | undefined): boolean =>
  cable?.ends.every((end) => end.startsWith('C ') || end === 'captive') ?? true;

function conclude({ sample, claims, readOuts }: MarkerFacts): MarkerConclusion {
  const current = currentReadOuts(readOuts);
  const ends = CABLE_PLACES.flatMap((place) => {
    const newest = current.filter(({ port }) => port === place).at(-1);
    return newest ? [endOf(newest)] : [];
  });
  const asked = ends.filter((end) => !byPort(end));
  // One marker may answer to either end: an end that is silent while the other speaks has none of its own.
  const speaking = ends.filter(spoke);
  const rating = speaking.length > 0 ? lowest(speaking.map((one) => one.rating)) : asked.length > 0 ? UNMARKED : null;
  const bits = speaking.reduce<number | null>(
    (low, one) => (one.bits === null ? low : Math.min(low ?? one.bits, one.bits)),
    null,
  );
  const [a, b] = speaking;
  const findings: Finding[] = [
    ...ends.flatMap(({ identity }) => identity?.findings ?? []),
    ...(a && b && (watts(a.rating) !== watts(b.rating) || a.bits !== b.bits)
      ? [
          finding(
            'ends-differ',
            'fault',
            `Its ends say different things: ${ratingWords(a.rating)} and ${ratingWords(b.rating)}. The lower counts.`,
          ),
        ]
      : []),
    ...(rating ? against(claims, rating, speaking.length > 0, bits) : []),
    ...(sample.cable?.form === 'extension' && sample.cable.ends.some((end) => end === 'C socket')
      ? [
          finding(
            'extension',
            'note',
            'The Type-C standard knows no extensions: a charger sees the marker of one of the two cables, and the drop of both.',
          ),
        ]
      : []),
    ...(rating &&
    speaking.length === 0 &&
    bothC(sample.cable) &&
    !claims.some(({ promise }) => promise.kind === 'cable-rating' && watts(promise) > 60.5)
      ? [finding('unmarked', 'note', 'No marker answers: 3 A, 60 W at most.')]
      : []),
  ];
  const seen = new Set<string>();
  return {
    ends,
    rating,
    kind: speaking[0]?.identity?.cable?.kind ?? null,
    bits,
    findings: findings.filter(({ sentence }) => !seen.has(sentence) && seen.add(sentence)),
  };
}

export const markerStation: Station<'marker', MarkerFacts, object, MarkerConclusion> = {
  ...aboutStation('marker'),
  reads: ['sample', 'claims', 'readOuts'],
  needs: [],
  conclude,
  evidence({ ends, rating, bits }) {
    const speaking = ends.find(spoke);
    const first = ends.find((end) => !byPort(end));
    if (!rating || !first) return { markers: [] };
    const { readOutId, takenAt } = speaking ?? first;
    const said: MarkerEvidence = {
      answered: speaking !== undefined,
      rating,
      bits,
      readOutId,
      conditions: `${speaking ? 'marker' : 'no marker answered'}, ${takenAt.slice(0, 10)}`,
    };
    return { markers: [said] };
  },
  progress({ ends, findings }, { sample }) {
    const total = Math.max(1, sample.cable?.ends.filter((end) => end.startsWith('C')).length ?? 2);
    const answered = ends.some(spoke);
    return {
      done: answered ? total : Math.min(ends.length, total),
      total,
      worst: findings.some(({ grade }) => grade === 'fault') ? 'short' : null,
    };
  },
  says: ({ findings, rating }) => [
    ...findings.filter(({ grade }) => grade === 'fault').map(({ sentence }) => sentence),
    ...(rating ? [`It may carry ${ratingWords(rating)}.`] : []),
  ],
};
