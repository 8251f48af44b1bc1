// Advice and evening by the worker; the newest question wins.
import type { Advice, Arrangement, Evening, PlugDevice, PlugSource, Ranked } from '@lastmark/core/split';
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { PlugWork } from '../../workers/plug.worker.ts';

export const EVENING_SECONDS = 12 * 3600;

export interface PlugResult {
  readonly advice: Advice | null;
  /** Of the arrangement as it stands. */
  readonly ranked: Ranked | null;
  readonly evening: Evening | null;
  readonly error: string | null;
}

const NOTHING: PlugResult = { advice: null, ranked: null, evening: null, error: null };

/** @param arrangement as it stands; null takes the best */
export function usePlug(
  source: PlugSource,
  devices: readonly PlugDevice[],
  arrangement: Arrangement | null,
): PlugResult {
  const [work, setWork] = useState<Remote<PlugWork> | null>(null);
  const [advice, setAdvice] = useState<Advice | null>(null);
  const [shown, setShown] = useState<PlugResult>(NOTHING);
  useEffect(() => {
    const worker = new Worker(new URL('../../workers/plug.worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<PlugWork>(worker);
    setWork(() => remote);
    return () => worker.terminate();
  }, []);
  useEffect(() => {
    if (!work || devices.length === 0) {
      setAdvice(null);
      return;
    }
    let wanted = true;
    void work
      .advise(source, devices)
      .then((found) => wanted && setAdvice(found))
      .catch(
        (error: unknown) =>
          wanted &&
          setShown({ ...NOTHING, error: error instanceof Error ? error.message : 'It could not be worked out.' }),
      );
    return () => {
      wanted = false;
    };
  }, [work, source, devices]);
  useEffect(() => {
    const standing = arrangement ?? advice?.best.arrangement;
    if (!work || !standing || devices.length === 0) return;
    let wanted = true;
    void work
      .evening(source, devices, standing, EVENING_SECONDS)
      .then(({ ranked, evening }) => wanted && setShown({ advice, ranked, evening, error: null }))
      .catch(() => undefined);
    return () => {
      wanted = false;
    };
  }, [work, source, devices, arrangement, advice]);
  return devices.length === 0 ? NOTHING : { ...shown, advice };
}
