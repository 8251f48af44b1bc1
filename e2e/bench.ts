// What the journeys share: the address, the demo's samples, and ways of doing things at the bench.
import { type BrowserContext, test as base, expect, type Page } from '@playwright/test';

const url = (): string => {
  const found = process.env.LASTMARK_URL;
  if (!found) throw new Error('No stage: run the journeys through the Playwright configuration.');
  return found;
};

/** What a page logs as an error or throws, from now on. */
function errorsOf(page: Page): string[] {
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  page.on('console', (message) => {
    // The browser itself reports refused requests; journeys about refusals look at them on the page.
    if (message.type() === 'error' && !/Failed to load resource/.test(message.text())) errors.push(message.text());
  });
  return errors;
}

/** One for all journeys of a worker: what the program is made of is fetched and read once. */
const shared = base.extend<object, { readonly cached: BrowserContext }>({
  cached: [
    async ({ browser }, use) => {
      const { viewport, locale, contextOptions } = base.info().project.use;
      const context = await browser.newContext({
        ...contextOptions,
        baseURL: url(),
        ...(viewport === undefined ? {} : { viewport }),
        ...(locale === undefined ? {} : { locale }),
      });
      // While a page of the site stands, its process does.
      await (await context.newPage()).goto('/icon.svg');
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
});

/** What a browser kept of the journey before is forgotten as a page comes for the first time. */
const forget = () => {
  if (sessionStorage.getItem('begun')) return;
  localStorage.clear();
  sessionStorage.setItem('begun', 'yes');
};

/** Fails a journey when the page logs an error or throws. */
export const test = shared.extend<{ page: Page }>({
  // biome-ignore lint/correctness/noEmptyPattern: the runner wants a pattern here
  baseURL: async ({}, use) => use(url()),
  context: async ({ cached }, use) => use(cached),
  page: async ({ cached }, use, info) => {
    const page = await cached.newPage();
    await page.addInitScript(forget);
    const errors = errorsOf(page);
    await use(page);
    if (info.status === 'passed') expect(errors, 'errors on the page').toEqual([]);
    // All but the first, which keeps the process.
    for (const one of cached.pages().slice(1)) await one.close();
  },
});

/** Journeys that only look share their page too. */
export const look = shared.extend<{ page: Page }, { readonly shown: { page: Page; errors: string[] } }>({
  shown: [
    async ({ cached }, use) => {
      const page = await cached.newPage();
      await use({ page, errors: errorsOf(page) });
    },
    { scope: 'worker' },
  ],
  page: async ({ shown: { page, errors } }, use, info) => {
    errors.length = 0;
    await use(page);
    if (info.status === 'passed') expect(errors, 'errors on the page').toEqual([]);
    await page.evaluate(() => localStorage.clear());
    await page.emulateMedia({ colorScheme: 'light' });
  },
});

export { expect };

/**
 * Go to another page as by a link of the program: what stands there is not loaded again.
 * @returns when the tab is named after something else
 */
export async function follow(page: Page, path: string): Promise<void> {
  const before = await page.title();
  await page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, path);
  await expect.poll(() => page.title()).not.toBe(before);
  await expect(page).not.toHaveTitle('Lastmark');
}

/** Id of a demo sample by its serial. */
export async function demoSample(page: Page, serial: string): Promise<string> {
  const answer = await page.request.get(`/api/samples?q=${encodeURIComponent(serial)}`);
  const { items } = (await answer.json()) as { items: { id: string }[] };
  const id = items[0]?.id;
  if (!id) throw new Error(`No sample ${serial} on the shelf.`);
  return id;
}

export const DEMO = {
  ember: 'TE-45-0117',
  ember2: 'TE-45-0868',
  trio: 'PT-75-3310',
  pip: 'QP-5520',
  six: 'M6-1177',
  quad: 'GQ-20931',
  monolith: 'OB-18-0092',
  shuttle: 'SH-0441',
} as const;

/** A wall charger as Intake sends it. */
export const wallCharger = (model: string, ports: readonly string[] = ['C1']) => ({
  model: {
    maker: 'Tarnhook',
    model,
    kind: 'wall',
    ports: ports.map((label) => ({ label, connector: label.slice(0, 1), twin: null })),
    length: null,
    width: null,
    height: null,
    mass: null,
    withPlug: true,
    plugForm: 'fixed',
    plugEarthed: false,
    plugBlocksNeighbour: false,
    inputRating: '',
    marks: [],
    prices: [],
  },
  unit: {
    revision: '',
    serial: `S-${model}`.slice(0, 80),
    dateCode: '',
    obtained: 'bought',
    disclosure: '',
    notes: '',
  },
});

/** A fresh wall charger with a 20 V 2.25 A loading of its own, made over the API. */
export async function freshSample(
  page: Page,
  model: string,
  ports: readonly string[] = ['C1'],
): Promise<{ id: string; setupId: string }> {
  const post = async (path: string, data: object) => {
    const answer = await page.request.post(`/api${path}`, { data });
    expect(answer.status(), await answer.text()).toBe(201);
    return (await answer.json()) as { id: string };
  };
  const sample = await post('/samples', wallCharger(model, ports));
  const rigs = (await (await page.request.get('/api/rigs')).json()) as { items: { id: string; name: string }[] };
  const rig = rigs.items.find(({ name }) => name === 'Load bench');
  const setup = await post(`/samples/${sample.id}/setups`, {
    name: 'C1 20 V',
    outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
    evidence: 'load',
    purpose: 'efficiency',
    rigId: rig?.id,
    nameplateClass: null,
  });
  return { id: sample.id, setupId: setup.id };
}

/** A six-port charger with names as long as they may get and numbers as long as they come, made over the API. */
export async function crowdedSample(page: Page): Promise<{ id: string; rigId: string }> {
  const post = async (path: string, data: object) => {
    const answer = await page.request.post(`/api${path}`, { data });
    expect(answer.status(), await answer.text()).toBe(201);
    return (await answer.json()) as { id: string };
  };
  const { items: rigs } = (await (await page.request.get('/api/rigs')).json()) as { items: { id: string }[] };
  const rigId = rigs[0]?.id ?? '';
  const labels = ['Bunk room, north wall 1', 'Bunk room, north wall 2', 'C3', 'Warden’s table, left', 'A1', 'A2'];
  const { id } = await post('/samples', {
    model: {
      maker: 'Fernwall Hut Association, valley workshop',
      model: 'Six-port desktop charger of the second year',
      kind: 'desktop',
      ports: labels.map((label, index) => ({ label, connector: index < 4 ? 'C' : 'A', twin: null })),
      length: null,
      width: null,
      height: null,
      mass: 1.234567,
      withPlug: true,
      plugForm: 'detachable lead',
      plugEarthed: true,
      plugBlocksNeighbour: false,
      inputRating: '100–240 V 50/60 Hz 3.5 A, Class I, indoor use only',
      marks: [],
      prices: [{ kind: 'paid', amount: 123456.78, currency: 'EUR', date: '2026-03-01' }],
    },
    unit: {
      revision: '',
      serial: 'SERIAL-NUMBER-AS-LONG-AS-A-LABEL-IS-WIDE',
      dateCode: '',
      obtained: 'bought',
      disclosure: '',
      notes: '',
    },
  });
  const claim = (promise: object) =>
    post(`/samples/${id}/claims`, { promise, duration: { kind: 'unstated' }, printed: 'box, back, below the fold' });
  const [first = '', second = ''] = labels;
  for (const port of labels) await claim({ kind: 'port-line', port, volts: 20.123, amps: 4.8765 });
  await claim({ kind: 'combination', shares: labels.map((port) => ({ port, watts: 98.765 })) });
  await claim({ kind: 'idle', watts: 0.12345, mains: null });
  const setup = await post(`/samples/${id}/setups`, {
    name: 'Both ports of the bunk room’s north wall together',
    purpose: 'efficiency',
    outputs: [first, second].map((port) => ({ port, volts: 20.123, amps: 4.8765 })),
    evidence: 'load',
    rigId,
    nameplateClass: null,
  });
  let count = 0;
  const ulid = () => {
    count += 1;
    return `01JZZZZZZZ${String(Date.now()).slice(-12)}${String(count).padStart(4, '0')}`;
  };
  const reading = (quantity: string, place: string, port: string | null, typed: string) => ({
    id: ulid(),
    quantity,
    place,
    port,
    typed,
  });
  await post(`/samples/${id}/readings`, {
    points: [1, 0.75, 0.5, 0.25].map((load) => ({
      id: ulid(),
      setupId: setup.id,
      mains: { kind: 'ac', volts: 230, hertz: 50 },
      load,
      attached: 'nothing',
      rigId,
      takenAt: '2026-03-02T09:00:00.000Z',
      readings: [
        reading('power', 'mains', null, `${(load * 211.98765).toFixed(5)} W`),
        ...[first, second].flatMap((port) => [
          reading('voltage', 'port', port, '20.12345 V'),
          reading('current', 'port', port, `${(load * 4.87654).toFixed(5)} A`),
        ]),
      ],
    })),
  });
  return { id, rigId };
}
