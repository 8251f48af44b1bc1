// A sample at a glance: what each port was promised and proved, claims by station and state, what would settle most.
import { CLAIM_STATES, type ClaimState } from '../evidence/index.ts';
import { STATIONS_ABOUT } from '../station/index.ts';
import type { Dossier, Verdict } from './types.ts';

/** A port, by the most that is promised there, alone or in a combination. */
export interface PortGlance {
  readonly port: string;
  /** W; null where nothing is promised. */
  readonly promised: number | null;
  /** Most of it that is proven, W; null where none is. */
  readonly proven: number | null;
  /** State of the strongest promise; null where there is none. */
  readonly state: ClaimState | null;
}

/** Ports in their order. A range is only ever proven where it was read, so it says nothing of the most a port gives. */
export function portsAtAGlance(
  { sample, claims }: Pick<Dossier, 'sample' | 'claims'>,
  verdict: Pick<Verdict, 'claims'>,
): readonly PortGlance[] {
  return sample.ports.map(({ label }) => {
    const lines = claims.flatMap(({ promise }, at) => {
      const result = verdict.claims[at];
      const state: ClaimState = result?.state ?? 'not tested';
      if (promise.kind === 'port-line' && promise.port === label)
        return [{ watts: promise.volts * promise.amps, state }];
      if (promise.kind !== 'combination') return [];
      const share = promise.shares.find((one) => one.port === label && one.with === undefined);
      return share
        ? [{ watts: share.watts, state: result?.parts?.find((one) => one.port === label)?.state ?? state }]
        : [];
    });
    const strongest = lines.reduce<(typeof lines)[number] | null>((a, b) => (a && a.watts >= b.watts ? a : b), null);
    const proven = lines.filter(({ state }) => state === 'proven' || state === 'assumed');
    return {
      port: label,
      promised: strongest?.watts ?? null,
      proven: proven.length > 0 ? Math.max(...proven.map(({ watts }) => watts)) : null,
      state: strongest?.state ?? null,
    };
  });
}

/** Claims of one station, by state. */
export interface MatrixRow {
  readonly station: string;
  readonly title: string;
  readonly counts: Readonly<Partial<Record<ClaimState, number>>>;
}

/** Claims by the station that settles them, and by state; stations without any are left out. */
export function claimMatrix(
  { claims }: Pick<Dossier, 'claims'>,
  verdict: Pick<Verdict, 'claims'>,
): readonly MatrixRow[] {
  const rows = [...STATIONS_ABOUT, { id: '', title: 'no station', settles: [] as readonly string[] }].map(
    ({ id, title, settles }) => {
      const counts: Partial<Record<ClaimState, number>> = {};
      claims.forEach(({ promise }, at) => {
        const own = (settles as readonly string[]).includes(promise.kind);
        const nobodys =
          id === '' && !STATIONS_ABOUT.some((one) => (one.settles as readonly string[]).includes(promise.kind));
        const state = verdict.claims[at]?.state;
        if (state && (own || nobodys)) counts[state] = (counts[state] ?? 0) + 1;
      });
      return { station: id, title, counts };
    },
  );
  return rows.filter(({ counts }) => Object.keys(counts).length > 0);
}

/** States in which more measuring would tell more. */
export const UNSETTLED: readonly ClaimState[] = [
  'not tested',
  'borderline',
  'cannot be decided',
  'at least',
  'advertised only',
  'not visible',
];

/** Stations by how many claims are still unsettled there, the most first. */
export const settlesMost = (
  matrix: readonly MatrixRow[],
): readonly { readonly station: string; readonly title: string; readonly claims: number }[] =>
  matrix
    .filter(({ station }) => station !== '')
    .map(({ station, title, counts }) => ({
      station,
      title,
      claims: UNSETTLED.reduce((sum, state) => sum + (counts[state] ?? 0), 0),
    }))
    .filter(({ claims }) => claims > 0)
    .sort((a, b) => b.claims - a.claims);

/** States that occur in a matrix, worst first. */
export const statesIn = (matrix: readonly MatrixRow[]): readonly ClaimState[] =>
  CLAIM_STATES.filter((state) => matrix.some(({ counts }) => (counts[state] ?? 0) > 0));
