// A bench day as it is typed, and as it is kept.
import type { BenchDay, BenchDayBody, SheetRow } from '@lastmark/contract/plan';
import type { Person } from '@lastmark/core/schedule';
import { typedMinutes } from '../parts/fields.tsx';
import { clockOf, clockWords, peopleOf } from './dayText.ts';

export const MOST_SHEETS = 12;

export interface SheetForm {
  readonly sheetId: string;
  /** When its sample comes, and when it has to be back, as typed; empty for there all day. */
  readonly from: string;
  readonly due: string;
  /** Empty for the open room. */
  readonly chamberId: string;
}

export interface DayForm {
  readonly from: string;
  readonly people: string;
  readonly setUp: string;
  readonly sheets: readonly SheetForm[];
  /** Where somebody holds a step, s after midnight, by the id of its task. */
  readonly pins: Readonly<Record<string, number>>;
}

const MIDNIGHT = 86_400;
const spanWords = ({ from, to }: { readonly from: number; readonly to: number }): string =>
  `${clockWords(from)}–${to === MIDNIGHT ? '24:00' : clockWords(to)}`;

/** What is kept, as somebody would type it. */
export const formOf = ({ from, setUp, people, sheets, pins }: BenchDay): DayForm => ({
  from: clockWords(from),
  people: people
    .map(({ title, there }) => [title, there.map(spanWords).join(', ')].filter(Boolean).join(' '))
    .join('\n'),
  setUp: String(setUp / 60),
  sheets: sheets.map(({ sheetId, from: comes, due, chamberId }) => ({
    sheetId,
    from: comes === null ? '' : clockWords(comes),
    due: due === null ? '' : clockWords(due),
    chamberId: chamberId ?? '',
  })),
  pins: Object.fromEntries(pins.map(({ taskId, at }) => [taskId, at])),
});

export interface ReadForm {
  /** Null while something in it cannot be read. */
  readonly body: BenchDayBody | null;
  readonly people: readonly Person[];
  readonly problems: readonly string[];
}

/** A time that may be left out. @returns undefined for what is no time */
const maybe = (text: string): number | null | undefined => (text.trim() === '' ? null : (clockOf(text) ?? undefined));

/** What somebody typed, to be kept and planned by. @param nameOf how a sheet is called in what is wrong */
export function readForm(form: DayForm, nameOf: (sheetId: string) => string): ReadForm {
  const problems: string[] = [];
  const from = clockOf(form.from);
  if (from === null) problems.push('From: write a time such as 8:00.');
  const setUp = typedMinutes(form.setUp);
  if (setUp === null || !(setUp >= 0 && setUp <= 7200))
    problems.push('Set-up: write the minutes another sample takes, such as 10.');
  const days = peopleOf(form.people);
  const once = peopleOf(form.people, 1);
  if (!days.ok) problems.push(...days.problems);
  const sheets = form.sheets.map(({ sheetId, from: comes, due, chamberId }) => {
    const [there, back] = [maybe(comes), maybe(due)];
    const name = nameOf(sheetId);
    if (there === undefined) problems.push(`${name}, there from: write a time such as 10:30.`);
    if (back === undefined) problems.push(`${name}, back by: write a time such as 15:00.`);
    if (there != null && back != null && back <= there) problems.push(`${name} goes back before it comes.`);
    return { sheetId, from: there ?? null, due: back ?? null, chamberId: chamberId === '' ? null : chamberId };
  });
  if (problems.length > 0 || from === null || setUp === null || !once.ok || !days.ok)
    return { body: null, people: [], problems };
  return {
    body: {
      from,
      setUp,
      people: once.people.map(({ title, there }) => ({
        title,
        there: there.map(({ from: a, to: b }) => ({ from: a, to: b })),
      })),
      sheets,
      pins: Object.entries(form.pins).map(([taskId, at]) => ({ taskId, at })),
    },
    people: days.people,
    problems,
  };
}

/** What a loan says to being planned on a day; null where nothing is to be said. */
export function loanWords({ sample }: Pick<SheetRow, 'sample'>, day: string): string | null {
  const { returnBy } = sample;
  if (returnBy === null || returnBy > day) return null;
  return returnBy === day ? 'goes back today' : `was to go back on ${returnBy}`;
}
