// Results held against limit sets: per loading and for idle, under the chosen sets or any others.
import type { MainsResult, SeriesResult } from '../efficiency/index.ts';
import { AVERAGE_LOADS, LIGHT_LOAD } from '../efficiency/index.ts';
import { drawWords, type IdleResult, idleInterval } from '../idle/index.ts';
import {
  type DerivedClass,
  deriveClass,
  deriveSampleClass,
  judgeAgainstSets,
  type LimitLine,
  type LimitSet,
  type SampleClass,
} from '../limits/index.ts';
import { deviations, procedureOf, type TakenPoint } from '../procedure/index.ts';
import { offeredLevels } from '../proof/index.ts';
import type { Output } from '../reading/index.ts';
import type { Dossier, SetupLimits } from './types.ts';

const day = (moment: string): string => moment.slice(0, 10);
const newest = (moments: readonly string[]): string => moments.reduce((a, b) => (a > b ? a : b), '');

/** Deviations worked out once a procedure, since several sets share one. */
function once(points: readonly TakenPoint[], dossier: Dossier): (procedureId: string) => readonly string[] {
  const known = new Map<string, readonly string[]>();
  return (id) => {
    const found = known.get(id) ?? deviations(procedureOf(id), points, dossier.stated);
    known.set(id, found);
    return found;
  };
}

/** Points behind some loads of a series, with their powers. */
function takenAt({ loads }: MainsResult, wanted: readonly number[], dossier: Dossier): TakenPoint[] {
  return loads
    .filter(({ load }) => wanted.some((one) => Math.abs(one - load) < 1e-6))
    .flatMap(({ pointIds, input, output, findings }) =>
      dossier.points
        .filter(({ id }) => pointIds.includes(id))
        .map((point) => ({
          point,
          powers: [
            { what: 'Input', watts: input },
            { what: 'Output', watts: output },
          ],
          findings,
        })),
    );
}

/** The class of a loading as it is judged: the derived one, unless someone overrode it. */
function classOf(dossier: Dossier, setupId: string, outputs: readonly Output[], levels: readonly Output[]) {
  const derived = deriveClass(outputs, levels);
  const chosen = dossier.setups.find(({ id }) => id === setupId)?.nameplateClass ?? null;
  return { derived, nameplateClass: chosen ?? derived.nameplateClass, overridden: chosen !== null };
}

/** Every loading held against limit sets. */
export function limitsOfSetups(
  dossier: Dossier,
  series: readonly SeriesResult[],
  sets: readonly LimitSet[],
): SetupLimits[] {
  const ports = dossier.sample.ports.map(({ label }) => label);
  const levels = offeredLevels(ports, dossier.claims, dossier.readOuts);
  return series.map(({ setup, nameplateWatts, byMains }) => {
    const { derived, nameplateClass, overridden } = classOf(dossier, setup.id, setup.outputs, levels);
    const only = setup.outputs.length === 1 ? (setup.outputs[0] ?? null) : null;
    const as = { class: derived, nameplateClass, watts: nameplateWatts, only };
    const judge = (quantity: LimitLine['quantity'], one: MainsResult) => {
      const light = quantity === 'light-load-efficiency';
      const result = light ? one.lightLoad : one.average;
      if (!result || !(nameplateWatts > 0)) return [];
      const points = takenAt(one, light ? [LIGHT_LOAD] : AVERAGE_LOADS, dossier);
      const taken = newest(points.map(({ point }) => point.takenAt));
      const held = { mains: one.mains, result, day: day(taken), deviations: once(points, dossier) };
      return judgeAgainstSets(sets, quantity, as, held, dossier.profile.rule);
    };
    const lines = byMains.flatMap((one) => [
      ...judge('average-efficiency', one),
      ...judge('light-load-efficiency', one),
    ]);
    return { setupId: setup.id, nameplateClass, derived, overridden, lines };
  });
}

/** The class no-load is judged by: one for the sample, whichever loading came first. */
export function classOfSample({ sample, setups, claims, readOuts }: Dossier): SampleClass {
  const ports = sample.ports.map(({ label }) => label);
  const loadings = setups.filter(({ purpose }) => purpose === 'efficiency').map(({ outputs }) => outputs);
  // Every USB port gives 5 V before anything else is agreed on.
  const usual = ports.map((port) => ({ port, volts: 5, amps: 0 }));
  const levels = [...offeredLevels(ports, claims, readOuts), ...(ports.length > 0 ? usual : [])];
  const nothing = loadings.length === 0 && levels.length === usual.length;
  return deriveSampleClass(loadings, nothing ? [] : levels, sample.classChoice);
}

/** Idle held against limit sets; what lies below the meter's floor is held against them as the bound it is. */
export function limitsOfIdle(
  dossier: Dossier,
  idle: readonly IdleResult[],
  watts: number | null,
  sets: readonly LimitSet[],
): LimitLine[] {
  if (watts === null || watts <= 0) return [];
  const { nameplateClass, why } = classOfSample(dossier);
  const derived: DerivedClass = { nameplateClass, adaptive: false, level: null, nameplateAmps: null, why };
  const as = { class: derived, nameplateClass, watts, only: null };
  return idle
    .filter(({ attached }) => attached === 'nothing')
    .flatMap((one) => {
      const points = dossier.points
        .filter(({ id }) => one.pointIds.includes(id))
        .map((point) => ({ point, powers: [{ what: 'Idle', watts: one.watts }], findings: one.findings }));
      const taken = newest(points.map(({ point }) => point.takenAt));
      const held = {
        mains: one.mains,
        result: one.watts,
        bound: one.below === null ? null : { known: idleInterval(one), words: drawWords(one) },
        day: day(taken),
        deviations: once(points, dossier),
      };
      return judgeAgainstSets(sets, 'no-load-power', as, held, dossier.profile.rule);
    });
}

/** The sets a bench judges by. */
export const chosenSets = ({ limitSets, profile }: Dossier): readonly LimitSet[] =>
  limitSets.filter(({ id }) => profile.limitSetIds.includes(id));
