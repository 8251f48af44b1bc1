// No serious accessibility finding on any view, light or dim.
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { DEMO, demoSample, expect, freshSample, test } from './bench.ts';

const SERIOUS = ['serious', 'critical'];

/** Everything is there and nothing is on its way to another look. */
async function atRest(page: Page): Promise<void> {
  await expect(page.getByRole('status', { name: /^Loading/ })).toHaveCount(0);
  await page.waitForFunction(() => document.getAnimations().every(({ playState }) => playState !== 'running'));
}

async function findings(page: Page): Promise<string[]> {
  await atRest(page);
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze();
  return violations
    .filter(({ impact }) => SERIOUS.includes(impact ?? ''))
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 140)).join(' | ')}`);
}

async function anyRig(page: Page): Promise<string> {
  const { items } = (await (await page.request.get('/api/rigs')).json()) as { items: { id: string }[] };
  return items[0]?.id ?? '';
}

const VIEWS: readonly (readonly [string, (page: Page) => Promise<string>])[] = [
  ['Shelf', async () => '/'],
  ['an empty shelf', async () => '/?q=nothing-like-this'],
  ['Take in a sample', async () => '/samples/new'],
  ['Intake', async (page) => `/samples/${await demoSample(page, DEMO.trio)}/intake`],
  ['Intake of six ports', async (page) => `/samples/${await demoSample(page, DEMO.six)}/intake`],
  ['Claims', async (page) => `/samples/${await demoSample(page, DEMO.trio)}/claims`],
  ['Read-out', async (page) => `/samples/${await demoSample(page, DEMO.monolith)}/read-out`],
  ['Read-out of all ports', async (page) => `/samples/${await demoSample(page, DEMO.six)}/read-out?port=all`],
  ['Read-out without any', async (page) => `/samples/${(await freshSample(page, 'Axe')).id}/read-out`],
  ['Proof', async (page) => `/samples/${await demoSample(page, DEMO.quad)}/proof`],
  ['Proof, meter chain', async (page) => `/samples/${await demoSample(page, DEMO.quad)}/proof?part=meters`],
  ['Proof, for how long', async (page) => `/samples/${await demoSample(page, DEMO.trio)}/proof?part=hold`],
  ['Proof, over the rating', async (page) => `/samples/${await demoSample(page, DEMO.monolith)}/proof?part=over`],
  ['Proof, devices', async (page) => `/samples/${await demoSample(page, DEMO.shuttle)}/proof?part=devices`],
  ['Splits', async (page) => `/samples/${await demoSample(page, DEMO.quad)}/splits`],
  ['Splits, promised table', async (page) => `/samples/${await demoSample(page, DEMO.six)}/splits?part=promises`],
  ['Splits, rule', async (page) => `/samples/${await demoSample(page, DEMO.six)}/splits?part=rule`],
  ['Splits, where to plug', async (page) => `/samples/${await demoSample(page, DEMO.trio)}/splits?part=plug`],
  ['Idle', async (page) => `/samples/${await demoSample(page, DEMO.pip)}/idle`],
  ['Efficiency', async (page) => `/samples/${await demoSample(page, DEMO.ember)}/efficiency`],
  ['Surface', async (page) => `/samples/${await demoSample(page, DEMO.ember)}/efficiency?view=surface`],
  ['Mains current', async (page) => `/samples/${await demoSample(page, DEMO.monolith)}/efficiency?view=mains`],
  ['Supply', async (page) => `/samples/${await demoSample(page, DEMO.shuttle)}/efficiency?view=supply`],
  ['Compare', async (page) => `/samples/${await demoSample(page, DEMO.ember)}/efficiency?view=compare`],
  ['Efficiency without readings', async (page) => `/samples/${(await freshSample(page, 'Axe')).id}/efficiency`],
  ['Verdict', async (page) => `/samples/${await demoSample(page, DEMO.trio)}/verdict`],
  ['Run sheets', async () => '/run-sheets'],
  [
    'a run sheet',
    async (page) => {
      const sheet = await page.request.post(`/api/samples/${await demoSample(page, DEMO.six)}/run-sheets`, {
        data: { methodId: 'desk', rigId: await anyRig(page) },
      });
      return `/run-sheets/${((await sheet.json()) as { id: string }).id}`;
    },
  ],
  ['Bench', async () => '/bench'],
  ['Rules', async () => '/rules'],
  ['a missing page', async () => '/nowhere'],
];

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(colorScheme === 'dark' ? 'dim' : 'light', () => {
    test.use({ colorScheme });
    for (const [name, path] of VIEWS) {
      test(`${name} has no serious finding`, async ({ page }) => {
        await page.goto(await path(page));
        await expect(page.getByRole('heading').first()).toBeVisible();
        await atRest(page);
        for (const details of await page.locator('main details').all())
          await details.evaluate((one: HTMLDetailsElement) => (one.open = true));
        expect(await findings(page)).toEqual([]);
        const sideways = await page.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        );
        expect(sideways, 'no sideways scroll of the page').toBeLessThanOrEqual(0);
      });
    }

    test('who asked for less motion sees every state at once', async ({ page }) => {
      await page.goto(`/samples/${await demoSample(page, DEMO.trio)}/claims`);
      await expect(page.getByRole('heading', { name: 'Claims' })).toBeVisible();
      const button = page.getByRole('button').first();
      await button.hover();
      expect(await button.evaluate((one) => getComputedStyle(one).transitionDuration)).toBe('0s');
      // Nothing goes on for ever either, such as the shimmer of what is loading.
      await page.waitForFunction(() => document.getAnimations().length === 0);
    });

    test('dialogs have no serious finding', async ({ page }) => {
      await page.goto(`/samples/${await demoSample(page, DEMO.trio)}/efficiency`);
      await page.getByRole('button', { name: 'Add a loading' }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      expect(await findings(page)).toEqual([]);
      await page.keyboard.press('Escape');
      await page.goto(`/samples/${await demoSample(page, DEMO.trio)}/read-out`);
      await page.getByRole('button', { name: 'Enter a read-out' }).click();
      await page.getByLabel('What the analyser shows').fill('51A1 0801912C 0002D12C 0004B12C 00064145 C0DC323C');
      expect(await findings(page)).toEqual([]);
      await page.keyboard.press('Escape');
      await page.goto(`/samples/${await demoSample(page, DEMO.trio)}/proof?part=hold`);
      await page.getByRole('button', { name: 'Enter a hold' }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      expect(await findings(page)).toEqual([]);
      await page.keyboard.press('Escape');
      await page.keyboard.press('Control+k');
      await expect(page.getByRole('listbox')).toBeVisible();
      expect(await findings(page)).toEqual([]);
    });
  });
}
