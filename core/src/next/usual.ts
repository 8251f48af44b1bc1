// By which method and on which rig a sample would be measured where nobody chose.
import { type Method, methodsFor } from '../plan/index.ts';
import type { Rig } from '../reading/index.ts';

/**
 * The first method that ships for a kind and a rig that can follow it: instruments where there is a load that runs by itself.
 * @returns null on a bench without rigs
 */
export function usualWay<R extends Pick<Rig, 'drives'>>(
  kind: Method['kinds'][number],
  rigs: readonly R[],
): { readonly method: Method; readonly rig: R } | null {
  const driven = rigs.find(({ drives }) => drives?.load);
  const method = methodsFor(kind).find(({ by }) => by === 'keypad' || driven !== undefined);
  const rig = method?.by === 'instruments' ? driven : rigs[0];
  return method && rig ? { method, rig } : null;
}
