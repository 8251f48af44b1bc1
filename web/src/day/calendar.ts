// The day as a calendar file (iCalendar, RFC 5545): one entry a stretch somebody has to be there for, or a run of one sample.
import type { DayPlan, DayProblem } from '@lastmark/core/schedule';
import type { DateArray, EventAttributes } from 'ics';

export interface Stretch {
  readonly id: string;
  readonly title: string;
  readonly steps: readonly string[];
  readonly from: number;
  readonly to: number;
  readonly who: string | null;
}

/** Steps of one sample with one person in a row are one stretch: a calendar of two hundred steps helps nobody. */
export function stretchesOf({ tasks, people }: DayProblem, { placed }: DayPlan): readonly Stretch[] {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const stretches: (Stretch & { readonly sampleId: string; readonly personId: string | null })[] = [];
  const add = (one: (typeof stretches)[number]) => {
    const at = stretches.findLastIndex(({ sampleId }) => sampleId === one.sampleId);
    const last = stretches[at];
    if (last && last.personId === one.personId && one.from <= last.to + 1)
      stretches[at] = { ...last, steps: [...last.steps, ...one.steps], to: Math.max(last.to, one.to) };
    else stretches.push(one);
  };
  for (const { id, start, end, personId, setUp } of placed) {
    const task = byId.get(id);
    if (!task) continue;
    const whoIs = (person: string | null) => people.find((one) => one.id === person)?.title ?? null;
    const step = task.title.split(': ').slice(1).join(': ') || task.title;
    const common = { title: task.title.split(': ')[0] ?? task.title, sampleId: task.sampleId };
    // Somebody sets it up, and goes where it then runs by itself.
    if (setUp > 0)
      add({
        ...common,
        id: `${id} set-up`,
        steps: ['set up'],
        from: start - setUp,
        to: start,
        who: whoIs(personId),
        personId,
      });
    const attends = task.attended ? personId : null;
    add({ ...common, id, steps: [step], from: start, to: end, who: whoIs(attends), personId: attends });
  }
  return stretches.map(({ sampleId: _sample, personId: _person, ...one }) => one);
}

/** @param day ISO day the seconds count from */
export async function calendarOf(stretches: readonly Stretch[], day: string): Promise<string> {
  const { createEvents } = await import('ics');
  const partsOf = (seconds: number): DateArray => {
    const at = new Date(`${day}T00:00:00`);
    at.setSeconds(Math.round(seconds));
    return [at.getFullYear(), at.getMonth() + 1, at.getDate(), at.getHours(), at.getMinutes()];
  };
  const events = stretches.map(
    ({ id, title, steps, from, to, who }): EventAttributes => ({
      uid: `${day}-${id.replace(/[^A-Za-z0-9]+/g, '-')}@lastmark`,
      productId: 'lastmark/bench-day',
      title: who ? `${title}: ${who}` : `${title}: runs by itself`,
      description: steps.join('\n'),
      start: partsOf(from),
      end: partsOf(Math.max(to, from + 60)),
      startInputType: 'local',
      startOutputType: 'local',
    }),
  );
  const { error, value } = createEvents(events);
  if (error || !value) throw error ?? new Error('The calendar could not be written.');
  return value;
}
