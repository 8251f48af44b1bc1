// The port face of a charger as SVG, ports in physical order with the maker's own labels.
import { escaped } from './escaped.ts';

interface FacePort {
  readonly label: string;
  readonly connector: string;
}

const WIDTH = 46;
const GAP = 8;
const PAD = 12;
const HEIGHT = 66;
const INK = '#16211d';

const connector = (kind: string, middle: number): string =>
  kind === 'A'
    ? `<rect x="${middle - 17}" y="14" width="34" height="16" fill="none" stroke="${INK}" stroke-width="2"/><rect x="${middle - 13}" y="17" width="26" height="5" fill="${INK}"/>`
    : `<rect x="${middle - 15}" y="15" width="30" height="14" rx="7" fill="none" stroke="${INK}" stroke-width="2"/><line x1="${middle - 8}" y1="22" x2="${middle + 8}" y2="22" stroke="${INK}" stroke-width="3"/>`;

/** Width of a face, in its own units. */
export const faceWidth = (ports: readonly FacePort[]): number =>
  Math.max(1, ports.length) * (WIDTH + GAP) - GAP + PAD * 2;

/** A port face; an empty frame where no ports are known. */
export function faceSvg(ports: readonly FacePort[], font: string): string {
  const width = faceWidth(ports);
  const drawn = ports.map(({ label, connector: kind }, at) => {
    const middle = PAD + at * (WIDTH + GAP) + WIDTH / 2;
    const shown = label.length > 6 ? `${label.slice(0, 5)}…` : label;
    return `${connector(kind, middle)}<text x="${middle}" y="52" font-family="${font}" font-size="12" font-weight="bold" fill="${INK}" text-anchor="middle">${escaped(shown)}</text>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${HEIGHT}" width="${width}" height="${HEIGHT}" role="img" aria-label="${escaped(ports.map(({ label }) => label).join(', '))}"><rect x="1" y="1" width="${width - 2}" height="${HEIGHT - 2}" rx="9" fill="none" stroke="#bcc8c1" stroke-width="2"/>${drawn.join('')}</svg>`;
}
