// A current as an inline meter shows it: amps, or the watts beside a voltage.
import { type Parsed, parseQuantity } from './parse.ts';

/**
 * Parse a current typed as amps or as watts.
 * @param volts voltage read with it, V; null or 0 while it is not known
 * @example parseAmps('60 W', 20) // { ok: true, value: 3, unit: 'W' }
 */
export function parseAmps(text: string, volts: number | null): Parsed {
  const amps = parseQuantity(text, 'current');
  if (amps.ok) return amps;
  const watts = parseQuantity(text, 'power', '');
  if (!watts.ok || !/w\s*$/i.test(text)) return amps;
  if (volts === null || !(volts > 0)) return { ok: false, reason: 'Watts need the volts read with them.' };
  return { ok: true, value: watts.value / volts, unit: watts.unit };
}
