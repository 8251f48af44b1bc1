// Reads out one port alone, and the cable in the line.

import type { ReadOutInput } from '@lastmark/contract';
import { decodeIdentity, decodeSource, wordOf } from '@lastmark/core/pd';
import type { ReadOutStep } from '@lastmark/core/plan';
import type { ReadOut } from '@lastmark/core/read-out';
import { newId } from '../../db/ids.ts';
import { storeReadOut } from '../../read-outs/store.ts';
import type { Hands } from '../hands.ts';
import { offersNothing } from '../silences.ts';
import { StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { wait } from './set-up.ts';

function markerOf(cable: readonly string[]): ReadOut['marker'] {
  const rating = decodeIdentity(cable.map(wordOf)).cable?.rating;
  if (!rating) return 'none';
  return rating.epr ? '5 A EPR' : rating.amps === 5 ? '5 A' : '3 A';
}

/** What an analyser of the rig read, as a read-out. @param occupied other ports in use */
export function readOutOf(
  hands: Hands,
  port: string,
  words: readonly string[],
  cableWords: readonly string[],
  occupied: readonly string[],
): ReadOutInput {
  return {
    id: newId(),
    port,
    instrumentId: hands.driver.readsOut ?? '',
    takenAt: new Date().toISOString(),
    occupied: [...occupied],
    marker: markerOf(cableWords),
    askedWith: null,
    temperature: hands.looks.heat().hottest,
    elapsed: null,
    words: [...words],
    epr: words.length > 7,
    declared: null,
    cableWords: [...cableWords],
    signals: [],
    unreachable: [],
    note: '',
    source: sourceOf(hands),
    supersedes: null,
    withdrawn: false,
  };
}

export async function readOutStep(hands: Hands, step: ReadOutStep): Promise<void> {
  const { driver } = hands;
  const { port } = step;
  if (!hands.ports.includes(port)) throw new StepFailed('The step names no port of this sample.');
  if (!driver.readsOut) throw new StepFailed('The rig has no PD analyser. Choose one at Bench.');
  await driver.off();
  await driver.occupy([port]);
  await wait(hands, step.dwell, `Plugged into ${port}`);
  const words = await driver.words(port);
  if (words.length === 0) return offersNothing(hands, port);
  const cableWords = await driver.cableWords();
  const objects = words.map((word) => decodeSource(wordOf(word)));
  await hands.db.transaction(async (tx) => {
    const readOut = readOutOf(hands, port, words, cableWords, []);
    const { id } = readOut;
    await storeReadOut(tx, hands.run.sample.id, readOut);
    const count = objects.filter(({ kind }) => kind !== 'empty').length;
    await hands.finish(tx, {
      state: 'done',
      says: `${count} offers over a cable with marker: ${markerOf(cableWords)}`,
      madeIds: [id],
    });
  });
}
