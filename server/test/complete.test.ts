// A sheet that is done leaves nothing of a complete result open: the plan and what the app asks for afterwards agree.
import { ofKind, sheetGaps } from '@lastmark/core/plan';
import { completeLoadings, judgeSample, openLoadings } from '@lastmark/core/verdict';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { getDossier } from '../src/dossier/dossier.ts';
import { toJudge } from '../src/dossier/judged.ts';
import { createSheet } from '../src/planning/make-sheet.ts';
import { storePoints } from '../src/readings/store.ts';
import { loadingFor } from '../src/setups/store.ts';
import { listSamples } from '../src/shelf/shelf.ts';
import { type Harness, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('complete', { demo: true });
});
afterAll(() => harness.stop());

const MODELS = ['Ember 45', 'Trio 75', 'Quad 130', 'Six 210', 'Monolith 180', 'Pip 20', 'Shuttle 75'];
/** The efficiency of every charger here, whatever its load. */
const RATIO = 0.88;

it.each(MODELS)('of %s', async (model) => {
  const { db } = harness;
  const row = (await listSamples(db, { size: 50 })).items.find((one) => one.model === model);
  const before = await getDossier(db, row?.id ?? '');
  const { sample, rigs } = before;
  const rig = rigs.find(({ drives }) => drives?.load);
  if (!rig) throw new Error('no rig that runs by itself');
  const methodId = sample.model.kind === 'car' ? 'car' : 'regulatory-pair';
  const { steps } = await createSheet(db, sample.id, { methodId, rigId: rig.id });
  const points = ofKind(steps, 'point').filter(({ station }) => station === 'efficiency');
  await db.transaction(async (tx) => {
    for (const step of points) {
      const setup = await loadingFor(tx, sample.id, step.outputs, rig.id, 'efficiency');
      const reading = (port: string | null, quantity: 'voltage' | 'current' | 'power', typed: string) => ({
        id: newId(),
        quantity,
        place: port === null ? ('mains' as const) : rig.outputPlace,
        port,
        typed,
        count: 1,
        spread: 0,
      });
      const watts = step.outputs.reduce((sum, { volts, amps }) => sum + volts * amps * step.load, 0);
      await storePoints(
        tx,
        sample.id,
        [
          {
            id: newId(),
            setupId: setup.id,
            mains: step.mains,
            load: step.load,
            attached: 'nothing',
            rigId: rig.id,
            takenAt: new Date().toISOString(),
            readings: [
              reading(null, 'power', `${(watts / RATIO).toFixed(4)} W`),
              ...step.outputs.flatMap(({ port, volts, amps }) => [
                reading(port, 'voltage', `${volts} V`),
                reading(port, 'current', `${(amps * step.load).toFixed(5)} A`),
              ]),
            ],
          },
        ],
        'the sheet',
      );
    }
  });
  const after = await getDossier(db, sample.id);
  const judged = toJudge(after);
  const { series } = judgeSample(judged).results.efficiency;
  const wanted = completeLoadings(judged, series);
  expect(wanted.length).toBeGreaterThan(0);
  expect(openLoadings(wanted).map(({ outputs, why }) => `${JSON.stringify(outputs)} ${why}`)).toEqual([]);
  const kind = sample.model.kind === 'car' ? 'dc' : 'ac';
  const mains = after.profile.mains.filter((one) => one.kind === kind);
  expect(sheetGaps({ steps, wanted, mains, loadings: [], readOuts: after.readOuts })).toEqual([]);
});
