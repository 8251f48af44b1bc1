// From a typed cell to a stored reading: finds the point, corrects what stands there, keeps the order.
import type { PointInput, SampleDossier } from '@lastmark/contract/types';
import { groupsBy, memoOf } from '@lastmark/core/memo';
import type { QuantityId } from '@lastmark/core/quantity';
import {
  type Attached,
  type Mains,
  mainsLabel,
  type Output,
  type Place,
  type Point,
  readingAt,
  sameOutputs,
} from '@lastmark/core/reading';
import { useRef } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { dossierQuery, queryClient, refreshSample, takePoints } from '../api/queries.ts';
import { useDossierNow } from '../state/sample.tsx';

export interface PointKey {
  readonly setupId: string | null;
  /** For a proof step instead of setupId: what is loaded. */
  readonly outputs?: readonly Output[];
  /** Why it is run beyond the rating of the line. */
  readonly override?: string | null;
  readonly mains: Mains;
  readonly load: number;
  readonly attached: Attached;
  readonly rigId: string;
}

export interface Target {
  readonly quantity: QuantityId;
  readonly place: Place;
  readonly port: string | null;
}

type Conditions = Pick<PointKey, 'mains' | 'load' | 'attached'>;

const conditionsOf = ({ mains, load, attached }: Conditions): string => [mainsLabel(mains), load, attached].join('|');

const loadingOf = ({ setupId, outputs, rigId }: PointKey): string =>
  outputs
    ? `${outputs.map(({ port, volts, amps, supply }) => `${port} ${supply ?? ''} ${volts} ${amps}`).join(' + ')}|${rigId}`
    : String(setupId);

const keyOf = (key: PointKey): string => `${loadingOf(key)}|${conditionsOf(key)}`;

/** Ids of the loadings a key is about: the one it names, or the proof step with these outputs on this rig. */
const setupIdsOf = ({ setups }: Pick<SampleDossier, 'setups'>, { setupId, outputs, rigId }: PointKey) =>
  outputs
    ? setups
        .filter((one) => one.purpose === 'proof' && one.rigId === rigId && sameOutputs(one.outputs, outputs))
        .map(({ id }) => id)
    : [setupId];

const bySetup = memoOf((points: readonly Point[]) => groupsBy(points, ({ setupId }) => setupId));
const conditionsAt = memoOf((point: Point) => conditionsOf(point));

/** All points taken under these conditions, oldest first. */
function pointsAt(dossier: Pick<SampleDossier, 'setups' | 'points'>, key: PointKey): readonly Point[] {
  const wanted = conditionsOf(key);
  return setupIdsOf(dossier, key)
    .flatMap((id) => bySetup(dossier.points).get(id) ?? [])
    .filter((point) => conditionsAt(point) === wanted);
}

interface Attempt {
  readonly typed: string;
  readonly id: string;
}

export function useEntry() {
  const dossier = useDossierNow();
  const sampleId = dossier.sample.id;
  /** Ids of points begun but not yet known to the server, and of rows being repeated. */
  const begun = useRef(new Map<string, string>());
  const attempts = useRef(new Map<string, Attempt>());
  const queue = useRef<Promise<unknown>>(Promise.resolve());

  /** The point a row shows and writes to: the last one, or the one begun by "repeat". */
  const pointOf = (key: PointKey): Point | undefined => {
    const begunId = begun.current.get(keyOf(key));
    const all = pointsAt(dossier, key);
    return begunId ? all.find(({ id }) => id === begunId) : all.at(-1);
  };

  const typedAt = (key: PointKey, { quantity, place, port }: Target): string => {
    const point = pointOf(key);
    return point ? (readingAt(point, quantity, place, port)?.typed ?? '') : '';
  };

  /** Start another run of a row. */
  const repeat = (key: PointKey): void => {
    begun.current.set(keyOf(key), ulid());
  };

  const send = async (key: PointKey, target: Target, typed: string, really: boolean): Promise<void> => {
    const current = queryClient.getQueryData(dossierQuery(sampleId).queryKey) ?? dossier;
    const begunId = begun.current.get(keyOf(key));
    const all = pointsAt(current, key);
    const point = begunId ? all.find(({ id }) => id === begunId) : all.at(-1);
    const id = point?.id ?? begunId ?? ulid();
    begun.current.set(keyOf(key), id);
    const supersedes = point ? (readingAt(point, target.quantity, target.place, target.port)?.id ?? null) : null;
    // A reading sent again after a lost answer keeps its id, so that it counts once.
    const attemptKey = `${id}|${target.quantity}|${target.place}|${target.port}`;
    const before = attempts.current.get(attemptKey);
    const attempt = before?.typed === typed ? before : { typed, id: ulid() };
    attempts.current.set(attemptKey, attempt);
    const input: PointInput = {
      id,
      ...(key.outputs ? { outputs: [...key.outputs], override: key.override ?? null } : { setupId: key.setupId }),
      mains: key.mains,
      load: key.load,
      attached: key.attached,
      rigId: point?.rigId ?? key.rigId,
      takenAt: new Date().toISOString(),
      readings: [{ id: attempt.id, ...target, typed: typed.trim(), supersedes, really }],
    };
    const { points } = await api<{ points: Point[] }>(`/samples/${sampleId}/readings`, {
      method: 'POST',
      body: { points: [input] },
    });
    attempts.current.delete(attemptKey);
    takePoints(sampleId, points);
    // A first reading makes its proof step; the page must know it before it can show the reading.
    if (key.outputs && setupIdsOf(current, key).length === 0) await refreshSample(sampleId);
    void queryClient.invalidateQueries({ queryKey: ['samples'] });
  };

  /** Store a typed value. One after the other, so that a row's cells land in one point. */
  const commit = (key: PointKey, target: Target, typed: string, really = false): Promise<void> => {
    const result = queue.current.then(() => send(key, target, typed, really));
    queue.current = result.catch(() => undefined);
    return result;
  };

  return { pointOf, typedAt, commit, repeat };
}
