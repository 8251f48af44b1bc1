// Reads out one port alone, and the cable in the line.

import type { ReadOutInput } from '@lastmark/contract';
import { markerReadOut } from '@lastmark/core/marker';
import { decodeSource, wordOf } from '@lastmark/core/pd';
import type { ReadOutStep } from '@lastmark/core/plan';
import { markerIn } from '@lastmark/core/read-out';
import { newId } from '../../db/ids.ts';
import { storeReadOut } from '../../read-outs/store.ts';
import type { Hands } from '../hands.ts';
import { offersNothing } from '../silences.ts';
import { StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { wait } from './set-up.ts';

/** What a port answered to an analyser. */
export interface Answered {
  readonly words: readonly string[];
  readonly info: string | null;
}

/** What an analyser of the rig read, as a read-out. @param occupied other ports in use */
export function readOutOf(
  hands: Hands,
  port: string,
  { words, info }: Answered,
  cableWords: readonly string[],
  occupied: readonly string[],
): ReadOutInput {
  return {
    id: newId(),
    port,
    instrumentId: hands.driver.analyser.id ?? '',
    takenAt: new Date().toISOString(),
    occupied: [...occupied],
    marker: markerIn(cableWords),
    askedWith: null,
    temperature: hands.looks.heat().hottest,
    elapsed: null,
    words: [...words],
    epr: words.length > 7,
    declared: null,
    info,
    extended: null,
    cableWords: [...cableWords],
    signals: [],
    unreachable: [],
    note: '',
    source: sourceOf(hands),
    supersedes: null,
    withdrawn: false,
  };
}

/** What answers in the cable itself; an end that is silent is an answer too. */
async function readMarker(hands: Hands, { port }: ReadOutStep): Promise<void> {
  const cableWords = await hands.driver.analyser.cableWords();
  const readOut = markerReadOut({
    id: newId(),
    port,
    instrumentId: hands.driver.analyser.id ?? '',
    takenAt: new Date().toISOString(),
    temperature: hands.looks.heat().room,
    cableWords,
    source: sourceOf(hands),
  });
  await hands.db.transaction(async (tx) => {
    await storeReadOut(tx, hands.run.sample.id, readOut);
    const says = cableWords.length === 0 ? 'Nothing answers: no marker.' : `Its marker says ${readOut.marker}.`;
    await hands.finish(tx, { state: 'done', says, madeIds: [readOut.id] });
  });
}

export async function readOutStep(hands: Hands, step: ReadOutStep): Promise<void> {
  const { driver } = hands;
  const { port } = step;
  if (!hands.ports.includes(port)) throw new StepFailed('The step names no port of this sample.');
  if (!driver.analyser.id) throw new StepFailed('The rig has no PD analyser. Choose one at Bench.');
  await driver.off();
  await driver.occupy([port]);
  await wait(hands, step.dwell, `Plugged into ${port}`);
  if (hands.inLine) return readMarker(hands, step);
  const words = await driver.analyser.words(port);
  if (words.length === 0) return offersNothing(hands, port);
  const info = await driver.analyser.info(port);
  const cableWords = await driver.analyser.cableWords();
  const objects = words.map((word) => decodeSource(wordOf(word)));
  await hands.db.transaction(async (tx) => {
    const readOut = readOutOf(hands, port, { words, info }, cableWords, []);
    const { id } = readOut;
    await storeReadOut(tx, hands.run.sample.id, readOut);
    const count = objects.filter(({ kind }) => kind !== 'empty').length;
    await hands.finish(tx, {
      state: 'done',
      says: `${count} offers over a cable with marker: ${markerIn(cableWords)}`,
      madeIds: [id],
    });
  });
}
