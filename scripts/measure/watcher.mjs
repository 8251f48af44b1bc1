// Somebody else at the server while it works: asks something small again and again, in a thread of its own, so that what
// the measuring process does itself is not counted.
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';

const PAUSE_MILLISECONDS = 20;

if (!isMainThread) {
  let busy = true;
  parentPort.once('message', () => {
    busy = false;
  });
  // Its own first question takes what a program's first question takes.
  await (await fetch(workerData)).arrayBuffer();
  const waits = [];
  while (busy) {
    const begun = performance.now();
    await (await fetch(workerData)).arrayBuffer();
    waits.push(performance.now() - begun);
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MILLISECONDS));
  }
  parentPort.postMessage(waits);
}

/** Begin to ask an address. @returns how to stop, which gives every wait in ms */
export function watchOthers(url) {
  const worker = new Worker(new URL(import.meta.url), { workerData: url });
  return () =>
    new Promise((resolve, reject) => {
      worker.once('error', reject);
      worker.once('message', resolve);
      worker.postMessage('stop');
    });
}
