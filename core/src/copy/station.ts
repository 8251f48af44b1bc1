// Copied files as a station: how quick each kind of copy is, and what link it proves.
import { type CableRun, type CopyRun, throughput } from '../cable/index.ts';
import { worstOf } from '../evidence/index.ts';
import type { Claim } from '../promise/index.ts';
import { type Repeated, repeated } from '../repeats/index.ts';
import { currentRuns } from '../run/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { bitsWords, type Generation, linkNeeded, rateWords } from './link.ts';

/** Copies of one mix in one direction on one host, at one count of bends: repeats of each other. */
export interface CopyGroup {
  readonly mix: string;
  readonly direction: CopyRun['direction'];
  readonly host: string;
  readonly bends: number;
  readonly runIds: readonly string[];
  /** bit/s */
  readonly rate: Repeated;
  /** What its quickest copy needed at least; null where no link carries it. */
  readonly needs: Generation | null;
  /** What the host said the link ran at, bit/s: the slowest of the runs; null where it did not say. */
  readonly link: number | null;
  /** What the same host reached over a better cable. */
  readonly hostLink: number | null;
  readonly errors: number;
  readonly fellBack: boolean;
  readonly sentence: string;
}

export interface CopyConclusion {
  readonly groups: readonly CopyGroup[];
  /** What went wrong, and what is worth knowing. */
  readonly findings: readonly { readonly sentence: string; readonly fault: boolean }[];
}

/** What copies bring to the claims: the most that was proven, and the least a host called it. */
export interface CopyEvidence {
  /** bit/s of the link the quickest copy needed; 0 where none is proven. */
  readonly proven: number;
  readonly link: number | null;
  readonly hostLink: number | null;
  readonly faults: number;
  readonly runIds: readonly string[];
  readonly conditions: string;
}

export interface CopyFacts {
  readonly claims: readonly Claim[];
  readonly cableRuns: readonly CableRun[];
}

const lowest = (values: readonly (number | null)[]): number | null => {
  const known = values.filter((one) => one !== null);
  return known.length > 0 ? Math.min(...known) : null;
};

function groupOf(runs: readonly CopyRun[]): CopyGroup[] {
  const [first] = runs;
  const rates = runs.map(throughput);
  const rate = repeated(rates);
  if (!first || !rate) return [];
  const needs = linkNeeded(Math.max(...rates));
  const { mix, direction, host, bends } = first;
  const spread =
    rate.interval === null
      ? ' in one copy'
      : ` (95 %: ${rateWords(Math.max(0, rate.interval[0]))} to ${rateWords(rate.interval[1])}, ${rate.count} copies)`;
  return [
    {
      mix,
      direction,
      host,
      bends,
      runIds: runs.map(({ id }) => id),
      rate,
      needs,
      link: lowest(runs.map(({ link }) => link)),
      hostLink: lowest(runs.map(({ hostLink }) => hostLink)),
      errors: runs.reduce((sum, { errors }) => sum + errors, 0),
      fellBack: runs.some(({ fellBack }) => fellBack),
      sentence: `${mix} ${direction}: ${rateWords(rate.mean)}${spread}.${needs ? ` That takes a link of ${needs.name} at least.` : ''}`,
    },
  ];
}

export const dataStation: Station<'data', CopyFacts, object, CopyConclusion> = {
  ...aboutStation('data'),
  reads: ['claims', 'cableRuns'],
  needs: [],
  conclude({ cableRuns }) {
    const copies = currentRuns(cableRuns).filter((run): run is CopyRun => run.kind === 'copy');
    const byKind = new Map<string, CopyRun[]>();
    for (const run of copies) {
      const key = [run.mix, run.direction, run.host, run.bends].join('|');
      byKind.set(key, [...(byKind.get(key) ?? []), run]);
    }
    const groups = [...byKind.values()].flatMap(groupOf);
    return {
      groups,
      findings: groups
        .flatMap(({ mix, direction, errors, fellBack, link, hostLink }) => [
          ...(errors > 0
            ? [
                {
                  sentence: `${mix} ${direction}: ${errors} ${errors === 1 ? 'copy was' : 'copies were'} not the same.`,
                  fault: true,
                },
              ]
            : []),
          ...(fellBack
            ? [{ sentence: `${mix} ${direction}: it fell back to a slower link while it copied.`, fault: true }]
            : []),
          ...(link !== null && hostLink !== null && link < hostLink
            ? [
                {
                  sentence: `The host links at ${bitsWords(link)} over it, and at ${bitsWords(hostLink)} over a better one.`,
                  fault: false,
                },
              ]
            : []),
        ])
        .filter(({ sentence }, at, all) => all.findIndex((one) => one.sentence === sentence) === at),
    };
  },
  evidence({ groups }) {
    return {
      copies: groups.map(
        (one): CopyEvidence => ({
          proven: one.needs?.bits ?? 0,
          link: one.link,
          hostLink: one.hostLink,
          faults: one.errors + (one.fellBack ? 1 : 0),
          runIds: one.runIds,
          conditions: `${one.mix} ${one.direction}, ${one.host}`,
        }),
      ),
    };
  },
  progress: ({ groups, findings }, _slice, settles) => ({
    done: groups.length,
    total: Math.max(2, groups.length),
    worst: worstOf([...settles, ...(findings.some(({ fault }) => fault) ? (['borderline'] as const) : [])]),
  }),
  says: ({ groups, findings }) => [
    ...findings.map(({ sentence }) => sentence),
    ...groups.map(({ sentence }) => sentence),
  ],
};
