// No serious accessibility finding on any view, light or dim; and at no size is anything cut, covered or beside the page.
import { STATIONS_ABOUT } from '@lastmark/core/station';
import type { Page } from '@playwright/test';
// @ts-expect-error plain script without types
import { allViews } from '../scripts/lib/views.mjs';
import { crowdedSample, DEMO, demoSample, expect, follow, freshSample, look } from './bench.ts';
import { faintTexts } from './contrast.ts';
import { findings, WCAG } from './findings.ts';
import { geometry, glance } from './geometry.ts';
import { forgetShifts, shifted, watchShifts } from './shifts.ts';

interface View {
  readonly name: string;
  readonly path: string;
  readonly sample?: string | null;
}

const moving = (): number => document.getAnimations().filter(({ playState }) => playState === 'running').length;

/** Everything is there and nothing is on its way to another look. */
async function atRest(page: Page): Promise<void> {
  await expect(page.getByRole('status', { name: /^Loading/ })).toHaveCount(0);
  await expect.poll(() => page.evaluate(moving)).toBe(0);
}

/** In both themes; between them only colours differ. */
async function expectNone(page: Page, twice = false): Promise<void> {
  await atRest(page);
  expect(await findings(page, { tags: WCAG, twice }), 'light').toEqual([]);
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dim');
  await atRest(page);
  expect(await faintTexts(page), 'dim').toEqual([]);
  await page.emulateMedia({ colorScheme: 'light' });
}

async function anyRig(page: Page): Promise<string> {
  const { items } = (await (await page.request.get('/api/rigs')).json()) as { items: { id: string }[] };
  return items[0]?.id ?? '';
}

/** Where a view is: of the demo's sample, or of a fresh one where it has nothing. */
async function pathOf(page: Page, { path, sample }: View): Promise<string> {
  if (sample === undefined) return path;
  return path.replace('{id}', sample === null ? (await freshSample(page, 'Axe')).id : await demoSample(page, sample));
}

look.beforeAll(({ shown: { page } }) => watchShifts(page));

/**
 * Show a view: loaded anew, or as by a link where the program stands there already on another page, which is most of the
 * time and takes a fifth of the work.
 */
async function show(page: Page, path: string, anew: boolean): Promise<void> {
  const pathOnly = (address: string): string => new URL(address, 'http://nowhere').pathname;
  if (anew || !page.url().startsWith('http') || pathOnly(page.url()) === pathOnly(path))
    return void (await page.goto(path));
  await follow(page, path);
  await forgetShifts(page);
}

/** Views with texts on many grounds and over pictures. */
const LOOKED_AT_TWICE = ['Shelf', 'Bench day', 'a comparison', 'Splits', 'Proof', 'Heat', 'Verdict'];

async function expectAccessible(page: Page, twice = false): Promise<void> {
  await expect(page.getByRole('heading').first()).toBeVisible();
  await atRest(page);
  for (const details of await page.locator('main details').all())
    await details.evaluate((one: HTMLDetailsElement) => (one.open = true));
  await expectNone(page, twice);
  expect(await geometry(page), 'at every size').toEqual([]);
}

for (const view of allViews() as View[])
  look(`${view.name} has no serious finding`, async ({ page }) => {
    const twice = LOOKED_AT_TWICE.includes(view.name);
    await show(page, await pathOf(page, view), twice);
    await expect(page.getByRole('heading').first()).toBeVisible();
    await atRest(page);
    // A tab is told from the others by its name.
    await expect(page).toHaveTitle(/^\S.* · Lastmark$/);
    expect(await shifted(page), 'moved after it was shown').toEqual([]);
    await expectAccessible(page, twice);
  });

look('every view that is looked at twice is there', () => {
  expect((allViews() as View[]).map(({ name }) => name)).toEqual(expect.arrayContaining(LOOKED_AT_TWICE));
});

look('six ports with long names and long numbers fit at every size', async ({ page }) => {
  const { id, rigId } = await crowdedSample(page);
  await page.goto('/');
  for (const { path, title } of [
    ...STATIONS_ABOUT.map((station) => ({ path: `/samples/${id}/${station.id}`, title: station.title })),
    { path: `/run-sheets?sample=${id}`, title: 'Run sheets' },
    { path: '/?q=hut', title: 'Shelf' },
  ]) {
    await follow(page, path);
    await expect(page).toHaveTitle(new RegExp(`^${title}`));
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await atRest(page);
    expect(await geometry(page), title).toEqual([]);
  }
  expect(rigId).not.toBe('');
});

look('a run sheet has no serious finding', async ({ page }) => {
  const sheet = await page.request.post(`/api/samples/${await demoSample(page, DEMO.six)}/run-sheets`, {
    data: { methodId: 'desk', rigId: await anyRig(page) },
  });
  await page.goto(`/run-sheets/${((await sheet.json()) as { id: string }).id}`);
  await expect(page.getByRole('list', { name: 'Steps' })).toBeVisible();
  await atRest(page);
  expect(await shifted(page), 'moved after it was shown').toEqual([]);
  await expectAccessible(page);
});

look('a trial of either kind has no serious finding', async ({ page }) => {
  const answer = await page.request.get('/api/trials');
  const { items } = (await answer.json()) as { items: { id: string; kind: string }[] };
  for (const kind of ['blocks', 'matrix']) {
    const one = items.find((trial) => trial.kind === kind);
    expect(one, kind).toBeDefined();
    await page.goto(`/trials/${one?.id}`);
    await expect(page).toHaveTitle(/\? · Trial · Lastmark$/);
    await atRest(page);
    expect(await shifted(page), 'moved after it was shown').toEqual([]);
    await expectAccessible(page);
  }
});

look('who asked for less motion sees every state at once', async ({ page }) => {
  await page.goto(`/samples/${await demoSample(page, DEMO.trio)}/claims`);
  await expect(page.getByRole('heading', { name: 'Claims' })).toBeVisible();
  const button = page.getByRole('button').first();
  await button.hover();
  expect(await button.evaluate((one) => getComputedStyle(one).transitionDuration)).toBe('0s');
  // Nothing goes on for ever either, such as the shimmer of what is loading.
  await expect.poll(() => page.evaluate(() => document.getAnimations().length)).toBe(0);
});

look('dialogs have no serious finding', async ({ page }) => {
  const id = await demoSample(page, DEMO.trio);
  await page.goto(`/samples/${id}/efficiency`);
  await page.getByRole('button', { name: 'Add a loading' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectNone(page);
  await page.keyboard.press('Escape');
  await follow(page, `/samples/${id}/read-out`);
  await page.getByRole('button', { name: 'Enter a read-out' }).click();
  await page.getByLabel('What the analyser shows').fill('51A1 0801912C 0002D12C 0004B12C 00064145 C0DC323C');
  await expectNone(page);
  expect(await geometry(page), 'at every size').toEqual([]);
  await page.keyboard.press('Escape');
  await follow(page, `/samples/${id}/proof?part=hold`);
  await page.getByRole('button', { name: 'Enter a hold' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectNone(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('listbox')).toBeVisible();
  await expectNone(page);
});

look('what lies over another, is cut, or is beside the page is seen', async ({ browser }) => {
  // A page of nobody's: ours lets no style be written into it.
  const page = await browser.newPage();
  const body = (inner: string) => page.setContent(`<body style="margin:0;font:16px sans-serif">${inner}</body>`);
  await body('<p>One line</p><p>and another</p>');
  expect(await glance(page)).toEqual([]);
  await body('<p style="margin:0">One line</p><p style="margin:-10px 0 0">another</p>');
  expect((await glance(page)).join()).toContain('"One line" lies over "another"');
  await body(
    '<p style="width:60px;overflow:hidden;white-space:nowrap;text-overflow:ellipsis">A long line of words</p>',
  );
  expect((await glance(page)).join()).toMatch(/"A long line of words" is cut by \d+ px with dots/);
  await body('<p style="width:2000px">Wide</p>');
  expect((await glance(page)).join()).toContain('the page scrolls sideways');
  // What is scrolled out of sight lies over nothing.
  await body('<div style="height:20px;overflow:auto"><p>Seen</p><p>Not seen</p></div><p style="margin:0">Below</p>');
  expect(await glance(page)).toEqual([]);
  await page.close();
});

look('a text too faint for its ground is seen, through every layer', async ({ browser }) => {
  // A page of nobody's: ours lets no style be written into it.
  const page = await browser.newPage();
  const body = (inner: string) => page.setContent(`<body style="margin:0;font:16px sans-serif">${inner}</body>`);
  await body('<p style="color:#767676">Just enough</p><p style="color:#fff;background:#000">Plain</p>');
  expect(await faintTexts(page)).toEqual([]);
  await body('<p style="color:#777">Not quite</p>');
  expect(await faintTexts(page)).toEqual(['"Not quite" stands out by 4.48 only: rgb(119, 119, 119) on 255,255,255,1']);
  // What cannot be used may be faint, its label too; the label of what can may not.
  await body('<label style="color:#777">Off <input disabled></label><label style="color:#777">On <input></label>');
  expect((await faintTexts(page)).map((one) => one.slice(0, 5))).toEqual(['"On" ']);
  // Nor what is only to be seen; a space without width is not.
  await body('<p aria-hidden="true" style="color:#777">Seen</p><p style="color:#777">\u200b</p>');
  expect((await faintTexts(page)).map((one) => one.slice(0, 6))).toEqual(['"Seen"']);
  // Half a black layer makes a grey ground; large letters may be fainter.
  await body('<div style="background:rgba(0,0,0,.5)"><p style="color:#fff">On grey</p></div>');
  expect((await faintTexts(page)).join()).toContain('"On grey" stands out by 4.00');
  await body('<div style="background:rgba(0,0,0,.5)"><p style="color:#fff;font-size:24px">On grey</p></div>');
  expect(await faintTexts(page)).toEqual([]);
  await page.close();
});
