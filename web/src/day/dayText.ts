// A day as it is typed: who is there when, and times as people write them.
import type { Person, Presence } from '@lastmark/core/schedule';

const HOUR = 3600;
const CLOCK = /^(\d{1,2})(?:[:.h](\d{2}))?$/;

/** Seconds after midnight; null for what is no time. */
export function clockOf(text: string): number | null {
  const found = CLOCK.exec(text.trim());
  const [hours, minutes] = [Number(found?.[1]), Number(found?.[2] ?? 0)];
  return found && hours <= 24 && minutes < 60 && hours * HOUR + minutes * 60 <= 24 * HOUR
    ? hours * HOUR + minutes * 60
    : null;
}

/** `8:05`; after midnight with the day: `+1 8:05`. */
export function clockWords(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  const day = Math.floor(minutes / 1440);
  const clock = `${Math.floor((minutes % 1440) / 60)}:${String(minutes % 60).padStart(2, '0')}`;
  return day > 0 ? `+${day} ${clock}` : clock;
}

export type ReadPeople =
  | { readonly ok: true; readonly people: readonly Person[] }
  | { readonly ok: false; readonly problems: readonly string[] };

const SPAN = /(\d{1,2}(?:[:.h]\d{2})?)\s*[-–—]\s*(\d{1,2}(?:[:.h]\d{2})?)/g;

/**
 * A line a person: `Warden 8:00–12:00, 13:00–17:00`. Whoever has no times is there all day.
 * @param days for how many days they come at the same hours
 */
export function peopleOf(text: string, days = 3): ReadPeople {
  const problems: string[] = [];
  const people = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line, at): Person => {
      const spans = [...line.matchAll(SPAN)];
      const title = line
        .replace(SPAN, '')
        .replace(/[\s,;:]+$/g, '')
        .trim();
      if (title === '') problems.push(`Line ${at + 1}: write a name before the hours.`);
      const hours = spans.flatMap((span): Presence[] => {
        const [from, to] = [clockOf(span[1] ?? ''), clockOf(span[2] ?? '')];
        if (from === null || to === null || to <= from) {
          problems.push(`Line ${at + 1}: “${span[0]}” are no hours. Write 8:00–12:00.`);
          return [];
        }
        return [{ from, to }];
      });
      if (/\d/.test(title))
        problems.push(`Line ${at + 1}: “${title}” has hours that cannot be read. Write 8:00–12:00.`);
      const own = hours.length > 0 ? hours : [{ from: 0, to: 24 * HOUR }];
      return {
        id: `person-${at}`,
        title,
        there: Array.from({ length: days }, (_day, day) =>
          own.map(({ from, to }) => ({ from: from + day * 24 * HOUR, to: to + day * 24 * HOUR })),
        ).flat(),
      };
    });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, people };
}
