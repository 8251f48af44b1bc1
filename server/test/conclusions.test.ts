// The conclusion over the API: kept whole, by one person at a time, its figures never typed.
import type { StoredConclusion } from '@lastmark/contract';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;

beforeAll(async () => {
  harness = await startHarness('conclusions');
  make = makers(harness);
});
afterAll(() => harness.stop());

const sentence = (part: object = {}) => ({
  kind: 'sentence',
  id: newId(),
  from: 'average',
  sentence: 'average',
  seen: [
    { name: 'found', words: '91.7 ± 0.4 %' },
    { name: 'condition', words: 'C1 20 V, 115 V 60 Hz' },
  ],
  text: {},
  hidden: false,
  ...part,
});
const own = (text: object) => ({ kind: 'own', id: newId(), text });
const at = (id: string) => `/api/samples/${id}/conclusion`;
const put = (id: string, lines: readonly object[], etag = '"v0"') =>
  request(harness.app).put(at(id)).set('If-Match', etag).send({ lines });

it('is empty until somebody keeps one, and comes back as it was kept', async () => {
  const { id } = await make.sample();
  const empty = await request(harness.app).get(at(id));
  expect([empty.body, empty.headers.etag]).toEqual([{ lines: [], version: 0 }, '"v0"']);
  const lines = [sentence({ text: { de: 'Gut: {found}.' } }), own({ en: 'Enough for a hut.' })];
  const kept = await put(id, lines);
  expect([kept.status, kept.headers.etag]).toEqual([200, '"v1"']);
  expect((await request(harness.app).get(at(id))).body as StoredConclusion).toEqual({ lines, version: 1 });
});

it('somebody else’s is not overwritten unseen', async () => {
  const { id } = await make.sample();
  expect((await put(id, [own({ en: 'First.' })])).status).toBe(200);
  expect((await put(id, [own({ en: 'Second.' })])).status).toBe(412);
  expect((await request(harness.app).put(at(id)).send({ lines: [] })).status).toBe(428);
  expect((await request(harness.app).get(at(id))).body.lines).toMatchObject([{ text: { en: 'First.' } }]);
});

it('a typed number, a figure there is none of, and empty words are refused where they stand', async () => {
  const { id } = await make.sample();
  const refusals = [
    [[sentence(), sentence({ text: { en: 'About 92 %.' } })], 'lines[1].text.en', '“92” is typed'],
    [[sentence({ text: { de: 'Gut: {best}.' } })], 'lines[0].text.de', 'There is no figure {best}'],
    [[own({})], 'lines[0].text', 'Own words are empty'],
  ] as const;
  for (const [lines, path, message] of refusals) {
    const { status, body } = await put(id, lines);
    expect([status, body.errors[0].path]).toEqual([422, path]);
    expect(body.errors[0].message).toContain(message);
  }
  const twice = own({ en: 'Twice.' });
  expect((await put(id, [twice, twice])).status).toBe(422);
  expect((await request(harness.app).get(at(id))).body.lines).toEqual([]);
});

it('goes with its sample, and is none of a sample there is not', async () => {
  const { id, etag } = await make.sample();
  await put(id, [own({ en: 'Short life.' })]);
  expect((await request(harness.app).delete(`/api/samples/${id}`).set('If-Match', etag)).status).toBe(204);
  expect((await request(harness.app).get(at(id))).status).toBe(404);
});

it('words written before are offered again, those used most first, each in its language', async () => {
  const before = (await request(harness.app).get('/api/phrases?language=de')).body.items as { text: string }[];
  const [one, two] = [await make.sample(), await make.sample()];
  await put(one.id, [
    own({ en: 'Enough for a hut.', de: 'Genug für eine Hütte.' }),
    sentence({ text: { de: 'Gut: {found}.' } }),
  ]);
  await put(two.id, [own({ de: 'Genug für eine Hütte.' }), own({ de: 'Nur nachts.' })]);
  const { items } = (await request(harness.app).get('/api/phrases?language=de')).body;
  expect(items[0]).toEqual({ sentence: null, text: 'Genug für eine Hütte.', uses: expect.any(Number) });
  expect(items[0].uses).toBe(2);
  expect(items).toContainEqual({ sentence: null, text: 'Nur nachts.', uses: 1 });
  expect(items.find((phrase: { text: string }) => phrase.text === 'Gut: {found}.').sentence).toBe('average');
  expect(items.length).toBeGreaterThanOrEqual(before.length + 2);
  expect(items.some((phrase: { text: string }) => phrase.text === 'Enough for a hut.')).toBe(false);
  expect((await request(harness.app).get('/api/phrases?language=fr')).status).toBe(422);
});
