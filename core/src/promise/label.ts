// A whole label as it is printed: several lines, where a port named once holds for the lines below it.
import { SIGNAL_MODES, type SignalMode } from '../signal/index.ts';
import { tokensOf } from './label-tokens.ts';
import { type ParsedLine, parseClaimLine, unusedOf } from './parse.ts';
import type { Promised } from './types.ts';

export type LabelLine = ParsedLine & {
  /** As typed. */
  readonly line: string;
};

/** Ports a line is about and nothing else: "C1/C2:". */
function bareHead(line: string, labels: readonly string[], modes: readonly SignalMode[]): string | null {
  if (/\d\s*[VvWw]/.test(line)) return null;
  const head = line.replace(/[:：\s]+$/, '');
  const tried = parseClaimLine(`${head}: 5V 1A`, labels, modes);
  return 'promises' in tried && (tried.unused ?? []).length === 0 ? head : null;
}

/** Ports whose levels a line gives, as a head for the next line; null where it gives none. */
function headOf(promises: readonly Promised[]): string | null {
  const ports = promises.map((one) => (one.kind === 'port-line' || one.kind === 'range' ? one.port : null));
  return ports.length > 0 && !ports.includes(null) ? [...new Set(ports)].join('/') : null;
}

/**
 * Understand a label line by line. A line that says levels without a port belongs to the port above it; lines that say
 * nothing ("Output:") are left out.
 * @param labels the port labels of the sample
 * @example parseLabel('C1: 5V 3A, 9V 3A\n20V 2.25A\nTotal 45 W', ['C1']).map(({ line }) => line).length // 3
 */
export function parseLabel(
  text: string,
  labels: readonly string[],
  modes: readonly SignalMode[] = SIGNAL_MODES,
): readonly LabelLine[] {
  let head: string | null = null;
  return text.split(/\r?\n/).flatMap((printed): LabelLine[] => {
    const line = printed.trim();
    if (line === '') return [];
    const alone = parseClaimLine(line, labels, modes);
    if ('promises' in alone) {
      head = headOf(alone.promises);
      return [{ line, ...alone }];
    }
    const bare = bareHead(line, labels, modes);
    if (bare !== null) {
      head = bare;
      return [];
    }
    if (unusedOf(tokensOf(line, labels)).length === 0) return [];
    const carried = head === null ? null : parseClaimLine(`${head}: ${line}`, labels, modes);
    return [{ line, ...(carried && 'promises' in carried ? carried : alone) }];
  });
}
