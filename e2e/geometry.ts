// What no view may do at any size: scroll sideways, cut a text off without a way to read it, or lay one over another.
import type { Page } from '@playwright/test';

/** Runs in the page. @returns what is wrong, a sentence each */
function findings(): string[] {
  const wrong: string[] = [];
  const root = document.documentElement;
  const over = root.scrollWidth - root.clientWidth;
  if (over > 0) wrong.push(`the page scrolls sideways by ${over} px`);
  const shown = (element: Element): boolean => {
    if (!element.checkVisibility({ contentVisibilityAuto: true })) return false;
    const { visibility, display, opacity } = getComputedStyle(element);
    const { width, height } = element.getBoundingClientRect();
    return visibility !== 'hidden' && display !== 'none' && opacity !== '0' && width > 1 && height > 1;
  };
  const ownText = (element: Element): string =>
    [...element.childNodes]
      .filter(({ nodeType }) => nodeType === Node.TEXT_NODE)
      .map(({ textContent }) => textContent?.trim() ?? '')
      .join('');
  const name = (element: Element): string => `"${(element.textContent ?? '').trim().slice(0, 40)}"`;
  type Sides = Pick<DOMRect, 'left' | 'top' | 'right' | 'bottom'>;
  const ALL: Sides = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity };
  const windows = new Map<Element, Sides>();
  /** What can be seen through everything an element scrolls or hides in, itself included. */
  const windowOf = (element: Element): Sides => {
    const known = windows.get(element);
    if (known) return known;
    let { left, top, right, bottom } = element.parentElement ? windowOf(element.parentElement) : ALL;
    const { overflowX, overflowY } = getComputedStyle(element);
    if (overflowX !== 'visible' || overflowY !== 'visible') {
      const box = element.getBoundingClientRect();
      if (overflowX !== 'visible') [left, right] = [Math.max(left, box.left), Math.min(right, box.right)];
      if (overflowY !== 'visible') [top, bottom] = [Math.max(top, box.top), Math.min(bottom, box.bottom)];
    }
    const own = { left, top, right, bottom };
    windows.set(element, own);
    return own;
  };
  /** What a line of a text can be seen of. */
  const seen = (element: Element, line: DOMRect): DOMRect | null => {
    const cut = windowOf(element);
    const [left, right] = [Math.max(line.left, cut.left), Math.min(line.right, cut.right)];
    const [top, bottom] = [Math.max(line.top, cut.top), Math.min(line.bottom, cut.bottom)];
    return right - left > 1 && bottom - top > 1 ? new DOMRect(left, top, right - left, bottom - top) : null;
  };
  const floating = new Map<Element, boolean>();
  /** What lies above the page and may cover it. */
  const floats = (element: Element): boolean => {
    const known = floating.get(element);
    if (known !== undefined) return known;
    const above = element.parentElement !== null && floats(element.parentElement);
    const own = above || ['fixed', 'sticky'].includes(getComputedStyle(element).position);
    floating.set(element, own);
    return own;
  };
  const written = [...document.body.querySelectorAll('*')].filter(
    (element) =>
      ownText(element) !== '' &&
      shown(element) &&
      !element.closest('[aria-hidden=true], svg, option, legend, details:not([open]) > :not(summary)'),
  );
  // The name of a field lies over its frame, or in it.
  const texts = written.filter((element) => !element.closest('label'));
  for (const element of written) {
    const { overflowX, textOverflow } = getComputedStyle(element);
    const hidden = element.scrollWidth - element.clientWidth;
    if (overflowX === 'hidden' && hidden > 1 && !element.closest('[title]'))
      wrong.push(`${name(element)} is cut by ${hidden} px${textOverflow === 'ellipsis' ? ' with dots' : ''}`);
  }
  // A line of words is scrolled in its field; a number that is typed must be seen whole.
  for (const field of document.querySelectorAll<HTMLInputElement>('main input[data-entry]')) {
    if (!shown(field) || field.value === '') continue;
    if (field.scrollWidth - field.clientWidth > 2) wrong.push(`what stands in "${field.ariaLabel}" is cut`);
  }
  const boxes = texts
    .filter((element) => !floats(element))
    .flatMap((element) => {
      const range = document.createRange();
      range.selectNodeContents(element);
      return [...range.getClientRects()].flatMap((line) => {
        const box = seen(element, line);
        return box ? [{ element, box }] : [];
      });
    });
  // From the top down: below the end of a line nothing lies over it.
  boxes.sort((one, other) => one.box.top - other.box.top);
  boxes.forEach(({ element, box }, index) => {
    for (let at = index + 1; at < boxes.length; at += 1) {
      const other = boxes[at] as (typeof boxes)[number];
      if (other.box.top > box.bottom - 4) break;
      if (element === other.element || element.contains(other.element) || other.element.contains(element)) continue;
      const wide = Math.min(box.right, other.box.right) - Math.max(box.left, other.box.left);
      const high = Math.min(box.bottom, other.box.bottom) - Math.max(box.top, other.box.top);
      if (wide > 3 && high > 4) wrong.push(`${name(element)} lies over ${name(other.element)}`);
    }
  });
  return [...new Set(wrong)].slice(0, 12);
}

/** Longest that anything takes to follow the window, beside a busy processor. */
const SETTLED_MILLISECONDS = 15_000;

/** Small screen, the usual one at 200 % zoom, and a wide one. */
export const SIZES = [
  { width: 1024, height: 700 },
  { width: 640, height: 400 },
  { width: 1920, height: 1080 },
] as const;

/** What is wrong at the size there is, at this moment. */
export const glance = (page: Page): Promise<string[]> => page.evaluate(findings);

/** What is wrong with what is on screen at each size. The size it had is given back. */
export async function geometry(page: Page): Promise<string[]> {
  const before = page.viewportSize();
  const wrong: string[] = [];
  for (const size of before ? [before, ...SIZES] : SIZES) {
    await page.setViewportSize(size);
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    // What follows the size of the window comes to rest by itself; what stays wrong is told.
    const until = Date.now() + SETTLED_MILLISECONDS;
    let found = await glance(page);
    while (found.length > 0 && Date.now() < until) found = await glance(page);
    for (const one of found) wrong.push(`${size.width}×${size.height}: ${one}`);
  }
  if (before) await page.setViewportSize(before);
  return wrong;
}
