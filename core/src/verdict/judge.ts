// From everything known about a sample to everything concluded: the one calculation behind screen, sheet and shelf.

import { type ClaimResult, judgeClaims, type Known, NOTHING_KNOWN } from '../claim/index.ts';
import { withAccuracies } from '../reading/index.ts';
import { type AnyStation, lookOf, stationsOf } from '../station/index.ts';
import { withCalibration } from './calibration.ts';
import { keyFigures } from './figures.ts';
import { type Results, STATIONS } from './stations.ts';
import type { Dossier, StationState, Verdict } from './types.ts';

/** A station with what it was given and what it made of it. */
interface Concluded {
  readonly station: AnyStation;
  readonly slice: object;
  readonly needs: object;
  readonly result: unknown;
}

const sameParts = (a: object, b: object): boolean => {
  const was = Object.entries(a);
  const is: Readonly<Record<string, unknown>> = { ...b };
  return was.length === Object.keys(b).length && was.every(([key, value]) => Object.is(is[key], value));
};

const pick = (from: object, keys: readonly string[]): object => {
  const all: Readonly<Record<string, unknown>> = { ...from };
  return Object.fromEntries(keys.map((key) => [key, all[key]]));
};

/** Conclusions in an order in which each finds what it needs; what was concluded of the very same parts is kept. */
function concludeAll(
  stations: readonly AnyStation[],
  dossier: Dossier,
  kept: ReadonlyMap<string, Concluded>,
): ReadonlyMap<string, Concluded> {
  const done = new Map<string, Concluded>();
  let waiting = [...stationsOf(stations, dossier.sample.kind)];
  while (waiting.length > 0) {
    const ready = waiting.filter(({ needs }) => needs.every((id) => done.has(id)));
    if (ready.length === 0) {
      throw new RangeError(`Stations need what is not there: ${waiting.map(({ id }) => id).join(', ')}.`);
    }
    for (const station of ready) {
      const slice = pick(dossier, station.reads);
      const needs = Object.fromEntries(station.needs.map((id) => [id, done.get(id)?.result]));
      const last = kept.get(station.id);
      const same = last?.station === station && sameParts(last.slice, slice) && sameParts(last.needs, needs);
      done.set(station.id, same ? last : { station, slice, needs, result: station.conclude(slice, needs) });
    }
    waiting = waiting.filter(({ id }) => !done.has(id));
  }
  return done;
}

/** Everything the stations bring to the claims; lists of the same name one after the other. */
function evidenceOf(concluded: ReadonlyMap<string, Concluded>, stations: readonly AnyStation[]): Partial<Known> {
  const gathered: Record<string, unknown[]> = {};
  for (const { id } of stations) {
    const one = concluded.get(id);
    if (!one) continue;
    for (const [name, items] of Object.entries(one.station.evidence?.(one.result, one.slice) ?? {})) {
      gathered[name] = [...(gathered[name] ?? []), ...items];
    }
  }
  return gathered;
}

/** Most any port is promised to give, W; null where nothing is. */
function promisedWatts(claims: Dossier['claims']): number | null {
  const watts = claims.flatMap(({ promise }) => {
    if (promise.kind === 'port-line') return [promise.volts * promise.amps];
    if (promise.kind === 'range') return [promise.high * promise.amps];
    if (promise.kind === 'total') return [promise.watts];
    return promise.kind === 'combination' ? promise.shares.map((share) => share.watts) : [];
  });
  return watts.length > 0 ? Math.max(...watts) : null;
}

function judgeAll(dossier: Dossier, evidence: Partial<Known>): readonly ClaimResult[] {
  const { sample, instruments, profile } = dossier;
  const { rule, allowance, tolerance, continuous } = profile;
  const instrument = (instrumentId: string) => instruments.find(({ id }) => id === instrumentId);
  const judged = judgeClaims(
    dossier.claims,
    {
      ...NOTHING_KNOWN,
      ...evidence,
      rule,
      allowance,
      tolerance,
      continuous,
      devices: dossier.devices,
      promisedWatts: promisedWatts(dossier.claims),
      seesOf: (id) => instrument(id)?.sees ?? null,
      nameOf: (id) => instrument(id)?.name ?? null,
    },
    sample.ports.flatMap(({ label, twin }) => (twin ? [{ port: label, twin }] : [])),
  );
  return withCalibration(dossier, judged);
}

/** How far a station is, and what it has to say. */
function stateOf(
  { station, slice, result }: Concluded,
  dossier: Dossier,
  claims: readonly ClaimResult[],
): StationState {
  const settles = claims.flatMap(({ state }, index) => {
    const kind = dossier.claims[index]?.promise.kind;
    return kind && station.settles.includes(kind) && state !== 'not tested' ? [state] : [];
  });
  const all = claims.map(({ state }) => state);
  const progress = station.progress(result, slice, settles, all);
  return {
    id: station.id,
    title: station.title,
    ...progress,
    look: lookOf(progress),
    says: station.says?.(result, slice) ?? [],
  };
}

/**
 * A judge that remembers its last sample: stations that read nothing of what changed are not concluded again.
 * Parts of a dossier count as unchanged when they are the same objects.
 * @example const judge = createJudge(); judge(dossier).claims[0].state // 'proven'
 */
export function createJudge(stations: readonly AnyStation[] = STATIONS): (dossier: Dossier) => Verdict {
  let kept: ReadonlyMap<string, Concluded> = new Map();
  let read: { readonly from: readonly unknown[]; readonly points: Dossier['points'] } = { from: [], points: [] };
  return (known) => {
    const from = [known.points, known.rigs, known.instruments];
    if (!from.every((part, index) => part === read.from[index])) {
      read = { from, points: withAccuracies(known.points, known.rigs, known.instruments) };
    }
    const dossier = { ...known, points: read.points };
    kept = concludeAll(stations, dossier, kept);
    const claims = judgeAll(dossier, evidenceOf(kept, stations));
    const concluded = stations.flatMap(({ id }) => {
      const one = kept.get(id);
      return one
        ? [{ ...one, result: one.station.settled ? one.station.settled(one.result, one.slice, claims) : one.result }]
        : [];
    });
    // Only the list of stations knows what each of them gives.
    const results = Object.fromEntries(concluded.map(({ station, result }) => [station.id, result])) as Results;
    const states = concluded.map((one) => stateOf(one, dossier, claims));
    return {
      results,
      claims,
      figures: keyFigures(dossier, results.efficiency?.series ?? [], results.idle?.draws ?? [], claims, states),
      stations: states,
    };
  };
}

/** Judge a sample: pure, and the same in browser and server. */
export const judgeSample = (dossier: Dossier, stations: readonly AnyStation[] = STATIONS): Verdict =>
  createJudge(stations)(dossier);
