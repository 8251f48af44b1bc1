// What moves on a page after it was shown.
import type { Page } from '@playwright/test';

interface Shift {
  readonly value: number;
  readonly what: string;
}

/** Layout shift a view may have after it is shown. */
const MOST_SHIFT = 0.01;

/** Write down what moves, from the next page that is loaded on. */
export const watchShifts = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    const shifts: Shift[] = [];
    Object.assign(window, { shifts });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) {
        const { value, sources } = entry as unknown as { value: number; sources: { node: Node | null }[] };
        shifts.push({ value, what: sources.map(({ node }) => (node?.textContent ?? '').slice(0, 30)).join(' | ') });
      }
    }).observe({ type: 'layout-shift', buffered: true });
  });

/** Forget what moved as one page took the place of another: that is no move of its own. */
export const forgetShifts = (page: Page): Promise<void> =>
  page.evaluate(
    () =>
      new Promise<void>((done) => {
        const forget = () => {
          (window as unknown as { shifts: unknown[] }).shifts.splice(0);
          done();
        };
        requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(forget)));
      }),
  );

const shiftsOf = (page: Page): Promise<Shift[]> =>
  page.evaluate(() => (window as unknown as { shifts: Shift[] }).shifts);
const words = (shifts: readonly Shift[]): string[] => shifts.map(({ value, what }) => `${value.toFixed(4)} ${what}`);

/** Whatever moved. */
export const whatMoved = async (page: Page): Promise<string[]> => words(await shiftsOf(page));

/** What moved, where it was more than a view may. */
export async function shifted(page: Page): Promise<string[]> {
  const shifts = await shiftsOf(page);
  return shifts.reduce((all, { value }) => all + value, 0) > MOST_SHIFT ? words(shifts) : [];
}
