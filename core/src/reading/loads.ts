// Loads as people say them: "C1 20 V 3.25 A + C2 9 V 2 A", "C1 5 V no load".
import { parseDecimal } from '../quantity/index.ts';
import type { Output } from './types.ts';

const LOAD = /^(.+?)[:\s]+([\d.,]+)\s*V\b\s*(?:(?:at|[@,/=⎓×x])?\s*([\d.,]+)\s*(m?A)|no load|unloaded|empty)?$/i;

/**
 * @param ports labels of the sample
 * @returns what is loaded, each port once, without load at 0 A; or what is not understood
 * @example parseLoads('C1 20 V 3.25 A + C2 9 V', ['C1', 'C2']) // [{ port: 'C1', volts: 20, amps: 3.25 }, { port: 'C2', volts: 9, amps: 0 }]
 */
export function parseLoads(text: string, ports: readonly string[]): readonly Output[] | { readonly reason: string } {
  const parts = text
    .split(/[+;\n]/)
    .map((part) => part.trim())
    .filter(Boolean);
  if (parts.length === 0) return { reason: 'Say what is loaded, such as C1 20 V 3.25 A.' };
  const outputs: Output[] = [];
  for (const part of parts) {
    const [, label = '', volts = '', amps, unit] = LOAD.exec(part) ?? [];
    const port = ports.find((one) => one.toLowerCase() === label.trim().toLowerCase());
    const level = parseDecimal(volts);
    const drawn = amps === undefined ? 0 : parseDecimal(amps) * (unit?.toLowerCase() === 'ma' ? 1e-3 : 1);
    if (!LOAD.test(part))
      return { reason: `“${part}” is not understood. Write it as C1 20 V 3.25 A, or C1 20 V for no load.` };
    if (!port) return { reason: `There is no port “${label.trim()}”. Its ports are ${ports.join(', ')}.` };
    if (!(level > 0) || level > 60 || !(drawn >= 0) || drawn > 20)
      return { reason: `“${part}” is beyond what a port gives: up to 60 V and 20 A.` };
    if (outputs.some((one) => one.port === port)) return { reason: `${port} stands there twice.` };
    outputs.push({ port, volts: level, amps: drawn });
  }
  return outputs;
}

/** The same in words. */
export const loadWords = (outputs: readonly Pick<Output, 'port' | 'volts' | 'amps'>[]): string =>
  outputs.map(({ port, volts, amps }) => `${port} ${volts} V${amps > 0 ? ` ${amps} A` : ', no load'}`).join(' + ');
