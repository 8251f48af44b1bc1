// Bounds that are printed in a line of their own: ripple, and how hot a surface gets.
import { parseDecimal } from '../quantity/index.ts';
import type { Promised } from './types.ts';

const NUMBER = String.raw`(\d+(?:[.,]\d+)?)`;
const BELOW = String.raw`\s*[:=]?\s*(?:is\s+)?(?:below|under|up to|at most|less than|max(?:imum)?\.?|<=|<|≤|≦)?\s*`;
const MOST = String.raw`(?:\s*(?:max(?:imum)?\.?))?`;
/** The bandwidth ripple is read in by usage. */
const BANDWIDTH = String.raw`(?:\s*[,(]?\s*(?:@|at|in)?\s*20\s*MHz(?:\s*bandwidth)?\)?)?`;
const RIPPLE = new RegExp(
  String.raw`^(?:max(?:imum)?\.?\s+)?(?:output\s+)?ripple(?:\s*(?:&|and|\+)\s*noise)?(?:\s+voltage)?${BELOW}${NUMBER}\s*(m?)V\s*(?:pp|p-p|pk-pk|peak[- ]to[- ]peak)?${MOST}${BANDWIDTH}$`,
  'i',
);
const SURFACE = new RegExp(
  String.raw`^(?:max(?:imum)?\.?\s+)?(?:surface|case|housing)(?:\s+temp(?:erature)?)?${BELOW}${NUMBER}\s*°?\s*([CF])${MOST}$`,
  'i',
);

/**
 * A bound of ripple, peak to peak, or of a surface.
 * @returns null for a line that is none
 * @example boundIn('ripple < 50 mVpp') // { kind: 'ripple', volts: 0.05, mains: null }
 */
export function boundIn(line: string): Extract<Promised, { kind: 'ripple' | 'surface' }> | null {
  const [, volts, milli] = RIPPLE.exec(line.trim()) ?? [];
  if (volts !== undefined) return { kind: 'ripple', volts: parseDecimal(volts) * (milli ? 1e-3 : 1), mains: null };
  const [, degrees, scale] = SURFACE.exec(line.trim().replace('℃', '°C').replace('℉', '°F')) ?? [];
  if (degrees === undefined) return null;
  const told = parseDecimal(degrees);
  return { kind: 'surface', celsius: scale?.toUpperCase() === 'F' ? ((told - 32) * 5) / 9 : told };
}
