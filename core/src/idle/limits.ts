// Idle held against limit sets, by the one class of the sample.
import type { DecisionRule } from '../decision/index.ts';
import {
  type DerivedClass,
  deriveSampleClass,
  judgeAgainstSets,
  type LimitLine,
  type LimitSet,
  type NameplateClass,
  type SampleClass,
} from '../limits/index.ts';
import { deviationsOnce, newestDay } from '../procedure/index.ts';
import type { Claim } from '../promise/index.ts';
import type { ReadOut } from '../read-out/index.ts';
import { type Instrument, type Point, pointsById, type Setup, type Stated } from '../reading/index.ts';
import { offeredLevels } from '../steps/index.ts';
import { type IdleResult, idleInterval } from './index.ts';
import { drawWords } from './says.ts';

/** What of a sample its class follows from. */
export interface ClassFacts {
  readonly sample: {
    readonly ports: readonly { readonly label: string }[];
    readonly classChoice?: { readonly nameplateClass: NameplateClass; readonly reason: string } | null;
  };
  readonly setups: readonly Pick<Setup, 'purpose' | 'outputs'>[];
  readonly claims: readonly Claim[];
  readonly readOuts: readonly ReadOut[];
}

/** What of a sample its idle draw is judged with. */
export interface IdleFacts extends ClassFacts {
  readonly points: readonly Point[];
  readonly stated: readonly Stated[];
  readonly instruments: readonly Instrument[];
  readonly profile: { readonly rule: DecisionRule };
}

/** The class no-load is judged by: one for the sample, whichever loading came first. */
export function classOfSample({ sample, setups, claims, readOuts }: ClassFacts): SampleClass {
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
  dossier: IdleFacts,
  idle: readonly IdleResult[],
  watts: number | null,
  sets: readonly LimitSet[],
): LimitLine[] {
  if (watts === null || watts <= 0) return [];
  const { nameplateClass, why } = classOfSample(dossier);
  const derived: DerivedClass = { nameplateClass, adaptive: false, level: null, nameplateAmps: null, why };
  const as = { class: derived, nameplateClass, watts, only: null };
  const bare = idle.filter(({ attached }) => attached === 'nothing');
  const byId = pointsById(dossier.points);
  return bare.flatMap((one) => {
    const points = one.pointIds
      .flatMap((id) => byId.get(id) ?? [])
      .map((point) => ({ point, powers: [{ what: 'Idle', watts: one.watts }], findings: one.findings }));
    const held = {
      mains: one.mains,
      result: one.watts,
      bound: one.below === null ? null : { known: idleInterval(one), words: drawWords(one) },
      day: newestDay(points),
      deviations: deviationsOnce(points, dossier.stated, dossier.instruments),
    };
    return judgeAgainstSets(sets, 'no-load-power', as, held, dossier.profile.rule);
  });
}
