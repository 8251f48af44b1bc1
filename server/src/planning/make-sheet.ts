// Plans a sheet for a sample from everything that is known of it.
import type { StoredRig, StoredSheet } from '@lastmark/contract';
import { sheetOf, stepsFor, wholeSheet } from '@lastmark/core/next';
import { methodsFor, type SheetStep } from '@lastmark/core/plan';
import type { Dossier } from '@lastmark/core/verdict';
import { listRigs } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { runSheets } from '../db/schema.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toJudge } from '../dossier/judged.ts';
import { refused } from '../http/problem.ts';
import { methodNow } from '../methods/store.ts';
import { getSample } from '../samples/store.ts';
import { toSheet } from '../sheets/store.ts';

/** A step that needs a scope is left out on a rig without one, and says so. */
const withoutScope = (step: SheetStep, { drives }: StoredRig): SheetStep =>
  step.needs.includes('oscilloscope') && !drives?.scope ? { ...step, skip: 'The rig has no oscilloscope.' } : step;

/** The steps that settle some promises, and no others. @throws 422 where there is none */
function settling(whole: readonly SheetStep[], claimIds: readonly string[], dossier: Dossier): readonly SheetStep[] {
  const { claims, profile, devices } = dossier;
  const { continuous, allowance } = profile;
  const steps = whole.filter(({ skip }) => skip === null);
  const wanted = claims
    .filter(({ id }) => claimIds.includes(id))
    .flatMap((claim) => stepsFor(claim, { steps, continuous, allowance, devices }));
  if (wanted.length === 0)
    throw refused('claimIds', 'The method has no step for these promises. Choose another, or add one by hand.');
  return sheetOf(steps, [...new Set(wanted.map(({ id }) => id))]);
}

/** Make a sheet for a sample. @throws 422 when the method does not fit, or nothing is known to measure */
export async function createSheet(
  db: Database,
  sampleId: string,
  { methodId, rigId, claimIds }: { methodId: string; rigId: string; claimIds?: readonly string[] | undefined },
): Promise<StoredSheet> {
  return db.transaction(async (tx) => {
    const sample = await getSample(tx, sampleId);
    const { kind, ports } = sample.model;
    const found = await methodNow(tx, methodId);
    if (!found?.method.kinds.includes(kind))
      throw refused(
        'methodId',
        `This method is not for a ${kind === 'cable' ? kind : `${kind} charger`}. Choose ${methodsFor(kind)
          .map(({ title }) => title)
          .join(', ')}.`,
      );
    const { method, version: methodVersion } = found;
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
    const dossier = toJudge(await getDossier(tx, sampleId));
    const whole = wholeSheet(method, dossier).map((step) => withoutScope(step, rig));
    const steps = claimIds ? settling(whole, claimIds, dossier) : whole;
    const row = {
      id: newId(),
      sampleId,
      methodId,
      methodVersion,
      rigId,
      title: claimIds ? `${method.title}, what settles most` : method.title,
      steps: [...steps],
      conditions: [...(method.conditions ?? [])],
      version: 1,
      createdAt: new Date(),
    };
    await tx.insert(runSheets).values(row);
    return toSheet(row);
  });
}
