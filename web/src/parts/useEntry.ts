// From a typed cell to a stored reading: finds the point, corrects what stands there, keeps the order.
import type { PointInput, SampleDossier } from '@lastmark/contract/types';
import type { QuantityId } from '@lastmark/core/quantity';
import { type Attached, type Mains, mainsLabel, type Place, type Point, readingAt } from '@lastmark/core/reading';
import { useRef } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { dossierQuery, queryClient } from '../api/queries.ts';
import { useOnBench } from '../app/bench.tsx';

export interface PointKey {
  readonly setupId: string | null;
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

const keyOf = ({ setupId, mains, load, attached }: PointKey): string =>
  [setupId, mainsLabel(mains), load, attached].join('|');

/** All points taken under these conditions, oldest first. */
export const pointsAt = (points: readonly Point[], key: PointKey): Point[] =>
  points.filter((point) => keyOf(point) === keyOf(key));

const storePoints = (sampleId: string, changed: readonly Point[]): void => {
  queryClient.setQueryData<SampleDossier>(dossierQuery(sampleId).queryKey, (before) => {
    if (!before) return before;
    const kept = before.points.filter((point) => !changed.some(({ id }) => id === point.id));
    return { ...before, points: [...kept, ...changed].sort((a, b) => a.takenAt.localeCompare(b.takenAt)) };
  });
};

interface Attempt {
  readonly typed: string;
  readonly id: string;
}

export function useEntry() {
  const { dossier } = useOnBench();
  const sampleId = dossier.sample.id;
  /** Ids of points begun but not yet known to the server, and of rows being repeated. */
  const begun = useRef(new Map<string, string>());
  const attempts = useRef(new Map<string, Attempt>());
  const queue = useRef<Promise<unknown>>(Promise.resolve());

  /** The point a row shows and writes to: the last one, or the one begun by "repeat". */
  const pointOf = (key: PointKey): Point | undefined => {
    const begunId = begun.current.get(keyOf(key));
    const all = pointsAt(dossier.points, key);
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

  const send = async (key: PointKey, target: Target, typed: string): Promise<void> => {
    const current = queryClient.getQueryData(dossierQuery(sampleId).queryKey)?.points ?? dossier.points;
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
      setupId: key.setupId,
      mains: key.mains,
      load: key.load,
      attached: key.attached,
      rigId: point?.rigId ?? key.rigId,
      takenAt: new Date().toISOString(),
      readings: [{ id: attempt.id, ...target, typed: typed.trim(), supersedes }],
    };
    const { points } = await api<{ points: Point[] }>(`/samples/${sampleId}/readings`, {
      method: 'POST',
      body: { points: [input] },
    });
    attempts.current.delete(attemptKey);
    storePoints(sampleId, points);
    void queryClient.invalidateQueries({ queryKey: ['samples'] });
  };

  /** Store a typed value. One after the other, so that a row's cells land in one point. */
  const commit = (key: PointKey, target: Target, typed: string): Promise<void> => {
    const result = queue.current.then(() => send(key, target, typed));
    queue.current = result.catch(() => undefined);
    return result;
  };

  return { pointOf, typedAt, commit, repeat };
}
