// From a typed cell to a stored reading: finds the point, corrects what stands there, keeps the order. Without a screen.
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

const spotOf = (setupId: string | null, conditions: string): string => `${setupId}|${conditions}`;
const spotAt = memoOf((point: Point) => spotOf(point.setupId, conditionsOf(point)));
/** Gone through once for all cells of a grid, however many points there are. */
const bySpot = memoOf((points: readonly Point[]) => groupsBy(points, spotAt));

/** All points taken under these conditions, oldest first. */
function pointsAt(dossier: Pick<SampleDossier, 'setups' | 'points'>, key: PointKey): readonly Point[] {
  const wanted = conditionsOf(key);
  return setupIdsOf(dossier, key).flatMap((id) => bySpot(dossier.points).get(spotOf(id, wanted)) ?? []);
}

interface Attempt {
  readonly typed: string;
  readonly id: string;
}

/** What an entry needs of the world. */
export interface EntryParts {
  /** What is known this very moment. */
  readonly known: () => Pick<SampleDossier, 'setups' | 'points'>;
  /** Store a point. @returns the points as they are now */
  readonly store: (point: PointInput) => Promise<readonly Point[]>;
  /** Somebody else was here: what is known is out of date. */
  readonly outdated: () => Promise<void>;
  /** Points were stored. @param made the loading they belong to is new as well, and must be asked for */
  readonly stored: (points: readonly Point[], made: boolean) => Promise<void>;
  readonly newId: () => string;
  readonly now: () => Date;
}

export interface Entry {
  /** The point a row shows and writes to: the last one, or the one begun by "repeat". */
  readonly pointOf: (points: Pick<SampleDossier, 'setups' | 'points'>, key: PointKey) => Point | undefined;
  /** Start another run of a row. */
  readonly repeat: (key: PointKey) => void;
  /** Store a typed value. One after the other, so that a row's cells land in one point. */
  readonly commit: (key: PointKey, target: Target, typed: string, really?: boolean) => Promise<void>;
}

/** Points under the same conditions that are told to the server, at most. */
const MOST_SEEN = 200;

export function createEntry({ known, store, outdated, stored, newId, now }: EntryParts): Entry {
  /** Ids of points begun but not yet known to the server, and of rows being repeated. */
  const begun = new Map<string, string>();
  const attempts = new Map<string, Attempt>();
  let queue: Promise<unknown> = Promise.resolve();

  const pointOf: Entry['pointOf'] = (dossier, key) => {
    const begunId = begun.get(keyOf(key));
    const all = pointsAt(dossier, key);
    return begunId ? all.find(({ id }) => id === begunId) : all.at(-1);
  };

  const send = async (key: PointKey, target: Target, typed: string, really: boolean): Promise<void> => {
    const current = known();
    const point = pointOf(current, key);
    const id = point?.id ?? begun.get(keyOf(key)) ?? newId();
    begun.set(keyOf(key), id);
    const supersedes = point ? (readingAt(point, target.quantity, target.place, target.port)?.id ?? null) : null;
    // A reading sent again after a lost answer keeps its id, so that it counts once.
    const attemptKey = `${id}|${target.quantity}|${target.place}|${target.port}`;
    const before = attempts.get(attemptKey);
    const attempt = before?.typed === typed ? before : { typed, id: newId() };
    attempts.set(attemptKey, attempt);
    const sent: PointInput = {
      id,
      ...(key.outputs ? { outputs: [...key.outputs], override: key.override ?? null } : { setupId: key.setupId }),
      mains: key.mains,
      load: key.load,
      attached: key.attached,
      rigId: point?.rigId ?? key.rigId,
      takenAt: now().toISOString(),
      // A point that is begun here is the only one under its conditions besides those that are shown.
      ...(point
        ? null
        : {
            pointsSeen: pointsAt(current, key)
              .map((one) => one.id)
              .slice(-MOST_SEEN),
          }),
      readings: [{ id: attempt.id, ...target, typed: typed.trim(), supersedes, really }],
    };
    let points: readonly Point[];
    try {
      points = await store(sent);
    } catch (error) {
      if (!point && (error as { status?: number }).status === 409) {
        // Somebody else began the row: it is theirs that is written to from now on.
        begun.delete(keyOf(key));
        await outdated();
      }
      throw error;
    }
    attempts.delete(attemptKey);
    await stored(points, key.outputs !== undefined && setupIdsOf(current, key).length === 0);
  };

  return {
    pointOf,
    repeat: (key) => {
      begun.set(keyOf(key), newId());
    },
    commit: (key, target, typed, really = false) => {
      const result = queue.then(() => send(key, target, typed, really));
      queue = result.catch(() => undefined);
      return result;
    },
  };
}
