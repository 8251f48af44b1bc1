// Reads a label line as it is printed and typed: "C1: 5V 3A / 9V 3A / 20V 2.25A", "C1+A1 45W+18W", "total 65 W".
import { findUnit, parseDecimal } from '../quantity/index.ts';
import { SIGNAL_MODES, type SignalMode } from '../signal/index.ts';
import type { Promised } from './types.ts';

export type ParsedLine = { readonly promises: readonly Promised[] } | { readonly reason: string };

interface Amount {
  readonly quantity: 'voltage' | 'current' | 'power' | 'efficiency';
  readonly value: number;
}

const AMOUNT = /(\d+(?:[.,]\d+)?)\s*(mV|V|mA|A|mW|W|%)(?![A-Za-z])/g;
const QUANTITY_OF: Readonly<Record<string, Amount['quantity']>> = {
  V: 'voltage',
  A: 'current',
  W: 'power',
  '%': 'efficiency',
};

function amountsOf(text: string): Amount[] {
  return [...text.matchAll(AMOUNT)].flatMap(([, number = '', unit = '']) => {
    const quantity = QUANTITY_OF[unit.slice(-1)];
    const factor = quantity && findUnit(quantity, unit)?.factor;
    return quantity && factor ? [{ quantity, value: parseDecimal(number) * factor }] : [];
  });
}

/** Longest labels first, so that "C1" does not take the start of "C10". */
function leadingPorts(text: string, labels: readonly string[]): { ports: string[]; rest: string } {
  const ports: string[] = [];
  let rest = text.trimStart();
  const sorted = [...labels].sort((a, b) => b.length - a.length);
  for (;;) {
    const label = sorted.find(
      (one) => rest.toLowerCase().startsWith(one.toLowerCase()) && !/^[\p{L}\d]/u.test(rest.slice(one.length)),
    );
    if (!label) return { ports, rest };
    ports.push(label);
    rest = rest.slice(label.length).trimStart();
    if (!/^[+&,]/.test(rest)) return { ports, rest };
    rest = rest.slice(1).trimStart();
  }
}

function portLines(port: string, amounts: readonly Amount[]): ParsedLine {
  const promises: Promised[] = [];
  for (let index = 0; index < amounts.length; index += 2) {
    const volts = amounts[index];
    const amps = amounts[index + 1];
    if (volts?.quantity !== 'voltage' || amps?.quantity !== 'current') {
      return { reason: `After ${port}, volts and amps are expected in pairs, such as 20 V 3.25 A.` };
    }
    promises.push({ kind: 'port-line', port, volts: volts.value, amps: amps.value });
  }
  return { promises };
}

const RANGE =
  /^[:\s]*(pps|spr avs|epr avs|avs)\s+(\d+(?:[.,]\d+)?)\s*V?\s*(?:-|–|…|to)\s*(\d+(?:[.,]\d+)?)\s*V\s+(\d+(?:[.,]\d+)?)\s*A$/i;

/** "PPS 3.3–21 V 3.25 A"; an AVS that goes beyond 20 V is an EPR one. */
function rangeLine(port: string, text: string): ParsedLine | null {
  const found = RANGE.exec(text.trim());
  if (!found) return null;
  const [, word = '', ...numbers] = found;
  const [low = 0, high = 0, amps = 0] = numbers.map(parseDecimal);
  if (!(low < high)) return { reason: 'A range runs from the lower voltage to the higher one.' };
  const named = word.toLowerCase();
  const supply = named === 'pps' ? 'pps' : named === 'epr avs' || high > 20 ? 'epr-avs' : 'spr-avs';
  return { promises: [{ kind: 'range', port, supply, low, high, amps }] };
}

function combination(ports: readonly string[], amounts: readonly Amount[]): ParsedLine {
  const watts = amounts.filter(({ quantity }) => quantity === 'power');
  if (watts.length !== ports.length || watts.length !== amounts.length) {
    return {
      reason: `${ports.join(' + ')} are ${ports.length} ports: give each its watts, such as ${ports.map(() => '30 W').join(' + ')}.`,
    };
  }
  return {
    promises: [
      { kind: 'combination', shares: ports.map((port, index) => ({ port, watts: watts[index]?.value ?? 0 })) },
    ],
  };
}

/**
 * Understand one typed label line.
 * @param labels the port labels of the sample
 * @param modes signalling outside PD that a line may name by its title
 * @returns the promises in it, or why it was not understood
 */
export function parseClaimLine(
  text: string,
  labels: readonly string[],
  modes: readonly SignalMode[] = SIGNAL_MODES,
): ParsedLine {
  const line = text.trim();
  if (line === '') return { reason: 'Nothing typed.' };
  const quoted = /^["“](.+)["”]$/.exec(line);
  if (quoted?.[1]) return { promises: [{ kind: 'wording', text: quoted[1] }] };
  const { ports, rest } = leadingPorts(line, labels);
  const amounts = amountsOf(rest);
  if (ports.length > 1) return combination(ports, amounts);
  const [port] = ports;
  const range = port ? rangeLine(port, rest) : null;
  if (range) return range;
  const mode = port
    ? modes.find(({ title }) => title.toLowerCase() === rest.replace(/^[:\s]+/, '').toLowerCase())
    : null;
  if (port && mode) return { promises: [{ kind: 'signal', port, mode: mode.id, title: mode.title }] };
  if (port && amounts.length > 0) return portLines(port, amounts);
  const [only] = amounts;
  const word = /^[a-z]+/i.exec(line)?.[0].toLowerCase() ?? '';
  if (only?.quantity === 'power' && /^(total|max|maximum|output)$/.test(word))
    return { promises: [{ kind: 'total', watts: only.value }] };
  if (only?.quantity === 'power' && /^(idle|standby|no)$/.test(word))
    return { promises: [{ kind: 'idle', watts: only.value, mains: null }] };
  if (only?.quantity === 'efficiency')
    return { promises: [{ kind: 'average-efficiency', ratio: only.value, mains: null }] };
  return {
    reason: `Start with a port (${labels.join(', ') || 'none entered'}), "total", "idle" or "efficiency"; put a slogan in quotes.`,
  };
}
