// Which loads draw what a meter at the mains shows.
import type { StoredInstrument, StoredRig } from '@lastmark/contract';

type OfRig = Pick<StoredRig, 'meters' | 'drives'>;

/**
 * The loads whose power a meter at the mains should follow: those that stand in rigs behind it and behind no other meter.
 * Where no rig says, the only load of the bench is behind its only analyser.
 * @returns ids; empty where nobody knows
 */
export function loadsBehind(
  meterId: string,
  instruments: readonly Pick<StoredInstrument, 'id' | 'class'>[],
  rigs: readonly OfRig[],
): readonly string[] {
  const loadsOf = (here: boolean) =>
    rigs.flatMap(({ meters, drives }) => ((meters.mains === meterId) === here && drives?.load ? [drives.load] : []));
  const elsewhere = new Set(loadsOf(false));
  const own = new Set(loadsOf(true));
  const only = (kind: StoredInstrument['class']) => {
    const ids = instruments.filter((one) => one.class === kind).map(({ id }) => id);
    return ids.length === 1 ? ids : [];
  };
  const behind = own.size > 0 ? [...own] : only('power analyser').includes(meterId) ? only('DC load') : [];
  return behind.filter((id) => !elsewhere.has(id));
}
