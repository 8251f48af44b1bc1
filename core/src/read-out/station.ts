// Read-out as a station.
import type { Claim } from '../promise/index.ts';
import type { Instrument } from '../reading/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { type PortFinding, readOutFindings } from './findings.ts';
import { currentReadOuts } from './offers.ts';
import type { ReadOut } from './types.ts';

export interface ReadOutFacts {
  readonly sample: { readonly ports: readonly { readonly label: string; readonly twin: string | null }[] };
  readonly claims: readonly Claim[];
  readonly readOuts: readonly ReadOut[];
  readonly instruments: readonly Instrument[];
}

export interface ReadOutConclusion {
  readonly findings: readonly PortFinding[];
}

export const readOutStation: Station<'read-out', ReadOutFacts, object, ReadOutConclusion> = {
  ...aboutStation('read-out'),
  reads: ['sample', 'claims', 'readOuts', 'instruments'],
  needs: [],
  conclude({ sample, claims, readOuts, instruments }) {
    const seesOf = (instrumentId: string) => instruments.find(({ id }) => id === instrumentId)?.sees ?? null;
    return { findings: readOutFindings(readOuts, { ports: sample.ports, claims, seesOf }) };
  },
  evidence: (_result, { readOuts }) => ({ readOuts }),
  progress({ findings }, { sample, readOuts }) {
    const ports = sample.ports.filter(({ label }) => currentReadOuts(readOuts).some(({ port }) => port === label));
    const worst = findings.some(({ kind }) => kind === 'unreachable')
      ? 'unreachable'
      : findings.some(({ grade }) => grade === 'fault')
        ? 'short'
        : null;
    return { done: ports.length, total: Math.max(1, sample.ports.length), worst };
  },
  says: ({ findings }) =>
    findings.filter(({ grade }) => grade === 'fault').map(({ port, sentence }) => `Read-out of ${port}: ${sentence}`),
};
