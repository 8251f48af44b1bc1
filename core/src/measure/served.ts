// How a charger serves the devices of the bench, all of them plugged in at once: scored against these, and against nobody else's.
import {
  adviseArrangement,
  MOST_EXACT,
  plugCharger,
  plugDevice,
  plugSource,
  type SplitResult,
} from '../split/index.ts';
import type { Dossier } from '../verdict/index.ts';

const LONGEST = 120;

/**
 * Part of the power that the devices of a bench want which they get from a charger, each in the port that serves all best; what has to
 * wait for a port gets nothing.
 * @returns null for one port, for one device, for more than are tried exactly, and where a share was never measured: a rule is no reading
 * @example servedBy(dossier, splits) // { part: 0.87, condition: 'Field laptop + Hut phone' }
 */
export function servedBy(
  dossier: Pick<Dossier, 'sample' | 'claims' | 'readOuts' | 'devices'>,
  splits: Pick<SplitResult, 'rule' | 'drops'>,
): { readonly part: number; readonly condition: string } | null {
  const { sample, devices } = dossier;
  if (sample.kind === 'cable' || sample.ports.length < 2 || devices.length < 2) return null;
  if (devices.length > MOST_EXACT || sample.ports.length > MOST_EXACT) return null;
  const charger = plugCharger(plugSource(dossier, splits, 'measured'));
  const wanting = devices.map((device) => plugDevice(device)).sort((a, b) => (a.name < b.name ? -1 : 1));
  const { best } = adviseArrangement(charger, wanting);
  const met = Object.values(best.met);
  const wanted = met.reduce((sum, one) => sum + one.wanted, 0);
  if (!(wanted > 0) || met.some(({ watts }) => watts === null) || best.measureFirst.length > 0) return null;
  const names = wanting.map(({ name }) => name).join(' + ');
  return {
    part: met.reduce((sum, { watts }) => sum + (watts ?? 0), 0) / wanted,
    condition: names.length > LONGEST ? `${wanting.length} devices` : names,
  };
}
