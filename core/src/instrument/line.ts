// A line as it would go to an instrument, taken apart into its commands before anyone judges it.

/** One command of a line. */
export interface LineUnit {
  readonly text: string;
  /** Whether it only asks: its header ends with a question mark. IEEE 488.2-1992, 7.3.3 */
  readonly asks: boolean;
}

/** Questions that take something away from whoever asks next, or make the instrument do something. */
const NOT_JUST_ASKING = /^:?(\*TST|\*CAL|\*ESR|\*OPC|SYST(EM)?:ERR(OR)?(:\w+)*|INIT\w*|READ)(:[\w:]*)?\?/i;

/**
 * Take a line apart at its semicolons; those inside quotes belong to a text. IEEE 488.2-1992, 7.3.3 and 7.7.5
 * @returns its commands in order; empty for a line of nothing
 * @example unitsOf('INP ON;*IDN?') // [{ text: 'INP ON', asks: false }, { text: '*IDN?', asks: true }]
 */
export function unitsOf(line: string): readonly LineUnit[] {
  const texts: string[] = [''];
  let quote = '';
  for (const sign of line) {
    if (quote === '' && sign === ';') {
      texts.push('');
      continue;
    }
    if (quote === '' && (sign === '"' || sign === "'")) quote = sign;
    else if (sign === quote) quote = '';
    texts[texts.length - 1] += sign;
  }
  return texts
    .map((text) => text.trim())
    .filter((text) => text !== '')
    .map((text) => ({ text, asks: /^\S+\?$/.test(text.split(/\s/, 1)[0] ?? '') }));
}

/** Whether a whole line does nothing but ask, and takes nothing away by asking. */
export function onlyAsks(line: string): boolean {
  const units = unitsOf(line);
  return units.length > 0 && units.every(({ text, asks }) => asks && !NOT_JUST_ASKING.test(text));
}

/** What keeps a line from being sent at all, in a sentence; null when nothing does. */
export function lineProblem(line: string): string | null {
  // biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are what is looked for
  if (/[\u0000-\u001f\u007f\u0085\u2028\u2029]/.test(line))
    return 'One command at a time, on one line, without control characters.';
  if (/\p{Surrogate}/u.test(line)) return 'The line has half a character in it.';
  const quotes = (line.match(/"/g) ?? []).length;
  return quotes % 2 === 1 ? 'A text in quotes has no end.' : null;
}
