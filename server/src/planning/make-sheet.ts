// Plans a sheet for a sample from everything that is known of it.
import type { SampleDossier, StoredRig, StoredSheet } from '@lastmark/contract';
import { bendPlan, USUAL_BENDS } from '@lastmark/core/bends';
import { type Method, makeLineSheet, makeSheet, methodOf, methodsFor, type SheetStep } from '@lastmark/core/plan';
import { completeLoadings, judgeSample } from '@lastmark/core/verdict';
import { listRigs } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { runSheets } from '../db/schema.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toJudge } from '../dossier/judged.ts';
import { refused } from '../http/problem.ts';
import { getSample } from '../samples/store.ts';
import { toSheet } from '../sheets/store.ts';

/** A step that needs a scope is left out on a rig without one, and says so. */
const withoutScope = (step: SheetStep, { drives }: StoredRig): SheetStep =>
  step.needs.includes('oscilloscope') && !drives?.scope ? { ...step, skip: 'The rig has no oscilloscope.' } : step;

function chargerSteps(method: Method, dossier: SampleDossier): readonly SheetStep[] {
  return makeSheet(method, {
    ports: dossier.sample.model.ports.map(({ label }) => label),
    claims: dossier.claims,
    readOuts: dossier.readOuts,
    loadings: dossier.setups
      .filter(({ purpose, evidence }) => purpose === 'efficiency' && evidence === 'load')
      .map(({ outputs }) => outputs),
    devices: dossier.devices,
    wanted: completeLoadings(toJudge(dossier), []),
  });
}

/** What sits in the line is loaded no further than its marker and its print allow, and bent as the bench bends. */
function lineSteps(method: Method, dossier: SampleDossier): readonly SheetStep[] {
  const { results } = judgeSample(toJudge(dossier));
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

/** Make a sheet for a sample. @throws 422 when the method does not fit, or nothing is known to measure */
export async function createSheet(
  db: Database,
  sampleId: string,
  { methodId, rigId }: { methodId: string; rigId: string },
): Promise<StoredSheet> {
  return db.transaction(async (tx) => {
    const sample = await getSample(tx, sampleId);
    const { kind, ports } = sample.model;
    const method = methodOf(methodId);
    const fitting = methodsFor(kind);
    if (!method || !fitting.includes(method))
      throw refused(
        'methodId',
        `This method is not for a ${kind === 'cable' ? kind : `${kind} charger`}. Choose ${fitting.map(({ title }) => title).join(', ')}.`,
      );
    if (ports.length === 0 && !method.line)
      throw refused('methodId', 'No port is entered. Enter the ports at Intake first.');
    const rig = (await listRigs(tx)).find(({ id }) => id === rigId);
    if (!rig) throw refused('rigId', 'This rig is not on the bench any more. Choose another.');
    if (method.by === 'instruments' && !rig.drives?.load)
      throw refused(
        'rigId',
        `The rig "${rig.name}" has no load that runs by itself. Choose one at Bench, or the desk method.`,
      );
    if (method.line && (rig.outputPlace !== 'port' || !rig.meters.loadEnd))
      throw refused(
        'rigId',
        `The rig "${rig.name}" does not read at both ends. Choose one with a meter at the port and one at the load end.`,
      );
    const dossier = await getDossier(tx, sampleId);
    const steps = method.line ? lineSteps(method, dossier) : chargerSteps(method, dossier);
    const row = {
      id: newId(),
      sampleId,
      methodId,
      rigId,
      title: method.title,
      steps: steps.map((step) => withoutScope(step, rig)),
      version: 1,
      createdAt: new Date(),
    };
    await tx.insert(runSheets).values(row);
    return toSheet(row);
  });
}
