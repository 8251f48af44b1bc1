// Reads out one port alone, and the cable in the line.

import { decodeIdentity, decodeSource, wordOf } from '@lastmark/core/pd';
import type { SheetStep } from '@lastmark/core/plan';
import type { ReadOut } from '@lastmark/core/read-out';
import { newId } from '../../db/ids.ts';
import { storeReadOut } from '../../read-outs/store.ts';
import type { Bench } from '../task.ts';
import { StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { setSupply, wait } from './set-up.ts';

function markerOf(cable: readonly string[]): ReadOut['marker'] {
  const rating = decodeIdentity(cable.map(wordOf)).cable?.rating;
  if (!rating) return 'none';
  return rating.epr ? '5 A EPR' : rating.amps === 5 ? '5 A' : '3 A';
}

export async function readOutStep(bench: Bench, step: SheetStep): Promise<void> {
  const { driver, looks } = bench;
  const { port } = step;
  const instrumentId = driver.readsOut;
  if (!port || !bench.ports.includes(port)) throw new StepFailed('The step names no port of this sample.');
  if (!instrumentId) throw new StepFailed('The rig has no PD analyser. Choose one at Bench.');
  await driver.off();
  await setSupply(bench, step);
  await driver.occupy([port]);
  await wait(bench, step.dwell, `Plugged into ${port}`);
  const words = await driver.words(port);
  if (words.length === 0) throw new StepFailed(`${port} offers nothing: no PD, or no power.`);
  const cableWords = await driver.cableWords();
  const { hottest } = looks.heat();
  const objects = words.map((word) => decodeSource(wordOf(word)));
  await bench.db.transaction(async (tx) => {
    const id = newId();
    await storeReadOut(tx, bench.run.sample.id, {
      id,
      port,
      instrumentId,
      takenAt: new Date().toISOString(),
      occupied: [],
      marker: markerOf(cableWords),
      askedWith: null,
      temperature: hottest,
      elapsed: null,
      words: [...words],
      epr: words.length > 7,
      declared: null,
      cableWords: [...cableWords],
      signals: [],
      unreachable: [],
      note: '',
      source: sourceOf(bench),
      supersedes: null,
      withdrawn: false,
    });
    const count = objects.filter(({ kind }) => kind !== 'empty').length;
    await bench.finish(tx, {
      state: 'done',
      says: `${count} offers over a cable with marker: ${markerOf(cableWords)}`,
      madeIds: [id],
    });
  });
}
