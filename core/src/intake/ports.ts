// Ports as people note them.
export interface ListedPort {
  readonly label: string;
  readonly connector: 'C' | 'A';
}

const MOST_PORTS = 12;
const COUNTED = /^(\d{1,2})\s*[x×]?\s*(?:usb[- ]?)?([ca])$/i;
const NAMED = /^(?:usb[- ]?)?([ca])(?:[- ]?(\d{1,2}))?$/i;

/**
 * Ports as people note them: `C1 C2 A1`, `2C + 1A`, `2 × USB-C`, `USB-C, USB-A`.
 * @returns the ports in the order written, or why not
 */
export function parsePorts(text: string): readonly ListedPort[] | string {
  const parts = text
    .replace(/\([^)]*\)/g, ' ')
    .replace(/(?:usb[- ]?)?type[- ]?([ca])\b/gi, '$1')
    .replace(/usb[- ]([ca])/gi, '$1')
    .replace(/(\d)\s*[x×]\s*(?=[ca]\b)/gi, '$1')
    // "C 1, C 2" are names, "2 C, 1 A" are counts.
    .replace(/\b([ca])\s+(\d{1,2})(?=\s*(?:[,;/+&]|$))/gi, '$1$2')
    .replace(/(^|[,;/+&]\s*)(\d{1,2})\s+(?=[ca]\b)/gi, '$1$2')
    .replace(/\b([ca])\s*[x×]\s*(\d{1,2})\b/gi, '$2$1')
    .split(/[\s,;/+&]+/)
    .filter(Boolean);
  const counts = { C: 0, A: 0 };
  const next = (letter: string): ListedPort => {
    const connector = letter.toUpperCase() === 'C' ? 'C' : 'A';
    counts[connector] += 1;
    return { label: `${connector}${counts[connector]}`, connector };
  };
  const ports: ListedPort[] = [];
  for (const part of parts) {
    const [, many, counted] = COUNTED.exec(part) ?? [];
    const [, letter] = NAMED.exec(part) ?? [];
    if (many !== undefined && counted !== undefined) {
      for (let index = 0; index < Number(many) && ports.length <= MOST_PORTS; index += 1) ports.push(next(counted));
    } else if (letter !== undefined) ports.push(next(letter));
    else return `"${part}" is not a port. Write ports like C1 C2 A1, or 2C 1A.`;
  }
  return ports.length > MOST_PORTS ? `more than ${MOST_PORTS} ports.` : ports;
}
