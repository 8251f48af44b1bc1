// The whole sheet of a method for a sample, from everything that is known of it.
import { bendPlan, USUAL_BENDS } from '../bends/index.ts';
import { coolingSeconds } from '../heat/index.ts';
import { type Method, makeLineSheet, makeSheet, type SheetStep } from '../plan/index.ts';
import { completeLoadings, type Dossier, judgeSample, type Verdict } from '../verdict/index.ts';

/** What sits in the line is loaded no further than its marker and its print allow, and bent as the bench bends. */
function lineSteps(method: Method, dossier: Dossier, { results }: Pick<Verdict, 'results'>): readonly SheetStep[] {
  const printed = dossier.claims.flatMap(({ promise }) => (promise.kind === 'cable-rating' ? [promise.amps] : []));
  const bending = dossier.profile.bends ?? USUAL_BENDS;
  return makeLineSheet(method, {
    marked: results.marker?.rating?.amps ?? null,
    printed: printed.length > 0 ? Math.min(...printed) : null,
    bending,
    plan: results.bends?.plan ?? bendPlan(bending, null),
    // What failed is not bent further.
    bent: results.bends?.failed ? Number.POSITIVE_INFINITY : (results.bends?.done ?? 0),
  });
}

/**
 * Every step of a method, in its order.
 * @param verdict of the dossier, where it is at hand; a cable is judged for it otherwise
 */
export function wholeSheet(
  method: Method,
  dossier: Dossier,
  verdict: Pick<Verdict, 'results'> | null = null,
): readonly SheetStep[] {
  if (method.line) return lineSteps(method, dossier, verdict ?? judgeSample(dossier));
  return makeSheet(method, {
    ports: dossier.sample.ports.map(({ label }) => label),
    claims: dossier.claims,
    readOuts: dossier.readOuts,
    loadings: dossier.setups
      .filter(({ purpose, evidence }) => purpose === 'efficiency' && evidence === 'load')
      .map(({ outputs }) => outputs),
    devices: dossier.devices,
    cools: coolingSeconds(dossier.captures),
    wanted: completeLoadings(dossier, []),
  });
}
