// A thread that tries arrangements of devices and chargers, for as long as somebody looks.
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { PlugWork } from '../workers/plug.worker.ts';

export function usePlugWork(): Remote<PlugWork> {
  const [{ worker, work }] = useState(() => {
    const started = new Worker(new URL('../workers/plug.worker.ts', import.meta.url), { type: 'module' });
    return { worker: started, work: wrap<PlugWork>(started) };
  });
  useEffect(() => () => worker.terminate(), [worker]);
  return work;
}
