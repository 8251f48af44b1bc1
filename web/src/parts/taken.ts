// A moment as people write it down: a day, or a day and a time by the clock on the wall.

/** A moment, or why it is none. */
export type Taken = { readonly at: Date } | { readonly reason: string };

const SHAPE = /^(\d{4})-(\d{2})-(\d{2})(?:[ T](\d{1,2})[:.](\d{2}))?$/;

/**
 * Read a moment. Empty means now; a day alone means its noon.
 * @example parseTaken('2026-03-02 14:30', new Date()) // { at: that time by this machine's clock }
 */
export function parseTaken(text: string, now: Date): Taken {
  if (text.trim() === '') return { at: now };
  const [found, year = '', month = '', day = '', hour = '12', minute = '0'] = SHAPE.exec(text.trim()) ?? [];
  if (found === undefined) return { reason: 'Write it like 2026-03-02 14:30.' };
  const at = new Date(Number(year), Number(month) - 1, Number(day), Number(hour), Number(minute));
  const real = at.getMonth() === Number(month) - 1 && at.getDate() === Number(day) && at.getHours() === Number(hour);
  if (!real || Number(minute) > 59) return { reason: 'There is no such day or time.' };
  return at > now ? { reason: 'That is still to come.' } : { at };
}

/** A moment as it is typed. @param iso UTC ISO 8601 */
export function toTaken(iso: string): string {
  const at = new Date(iso);
  const two = (part: number) => String(part).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())} ${two(at.getHours())}:${two(at.getMinutes())}`;
}

/** The moment typed; refused in words where it is none. */
export function takenOf(text: string): Date {
  const read = parseTaken(text, new Date());
  if ('reason' in read) throw new Error(`Taken: ${read.reason}`);
  return read.at;
}
