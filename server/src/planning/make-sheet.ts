// Plans a sheet for a sample from everything that is known of it.
import type { StoredRig, StoredSheet } from '@lastmark/contract';
import { makeSheet, methodOf, methodsFor, type SheetStep } from '@lastmark/core/plan';
import { completeLoadings } from '@lastmark/core/verdict';
import { listRigs } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { runSheets } from '../db/schema.ts';
import { getDossier, toJudge } from '../dossier/dossier.ts';
import { refused } from '../http/problem.ts';
import { getSample } from '../samples/store.ts';
import { toSheet } from '../sheets/store.ts';

/** A step that needs a scope is left out on a rig without one, and says so. */
const withoutScope = (step: SheetStep, { drives }: StoredRig): SheetStep =>
  step.needs.includes('oscilloscope') && !drives?.scope ? { ...step, skip: 'The rig has no oscilloscope.' } : step;

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
        `This method is not for a ${kind} charger. Choose ${fitting.map(({ title }) => title).join(', ')}.`,
      );
    if (ports.length === 0) throw refused('methodId', 'No port is entered. Enter the ports at Intake first.');
    const rig = (await listRigs(tx)).find(({ id }) => id === rigId);
    if (!rig) throw refused('rigId', 'This rig is not on the bench any more. Choose another.');
    if (method.by === 'instruments' && !rig.drives?.load)
      throw refused(
        'rigId',
        `The rig "${rig.name}" has no load that runs by itself. Choose one at Bench, or the desk method.`,
      );
    const dossier = await getDossier(tx, sampleId);
    const steps = makeSheet(method, {
      ports: ports.map(({ label }) => label),
      claims: dossier.claims,
      readOuts: dossier.readOuts,
      loadings: dossier.setups
        .filter(({ purpose, evidence }) => purpose === 'efficiency' && evidence === 'load')
        .map(({ outputs }) => outputs),
      devices: dossier.devices,
      wanted: completeLoadings(toJudge(dossier), []),
    });
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
