// Reports over the API: frozen with their hash, amended and never rewritten, known by their code.
import { createHash } from 'node:crypto';
import { deflateSync, inflateSync } from 'node:zlib';
import type { CodeAnswer, StoredReport } from '@lastmark/contract';
import { sql } from 'drizzle-orm';
import { strFromU8, unzipSync } from 'fflate';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;

beforeAll(async () => {
  harness = await startHarness('reports');
  make = makers(harness);
});
afterAll(() => harness.stop());

const first = (part: object = {}) => ({ kind: 'first', id: newId(), language: 'en', person: 'Bench keeper', ...part });
const issue = (sampleId: string, report: object) =>
  request(harness.app).post(`/api/samples/${sampleId}/reports`).send({ report });
const check = async (code: string) => {
  const { body } = await request(harness.app).get(`/api/report-codes/${encodeURIComponent(code)}`);
  return body as CodeAnswer;
};
const total = (sampleId: string, watts: number) =>
  make.post(`/samples/${sampleId}/claims`, {
    promise: { kind: 'total', watts },
    duration: { kind: 'unstated' },
    printed: 'label',
  });

it('a report is issued once, as a PDF of several pages that is known by its code', async () => {
  const { id } = await make.sample();
  await total(id, 45);
  const report = first();
  const { status, body } = await issue(id, report);
  expect(status).toBe(201);
  const stored = body as StoredReport;
  expect(stored).toMatchObject({ kind: 'first', amends: null, amendedBy: null, changes: [], person: 'Bench keeper' });
  expect(stored.code).toMatch(/^[0-9A-Z]{4}(-[0-9A-Z]{4}){3}$/);
  expect((await issue(id, report)).body).toEqual(stored);
  const pdf = await request(harness.app).get(`/api/reports/${stored.id}/report.pdf`).buffer(true);
  expect([pdf.status, pdf.headers['content-type']]).toEqual([200, 'application/pdf']);
  const text = (pdf.body as Buffer).toString('latin1');
  expect(text.startsWith('%PDF-')).toBe(true);
  expect((text.match(/\/Type \/Page\b/g) ?? []).length).toBeGreaterThanOrEqual(3);
  expect((pdf.body as Buffer).length).toBe(stored.size);
  expect(await check(stored.code.toLowerCase().replaceAll('-', ' '))).toMatchObject({
    state: 'untouched',
    newest: null,
  });
});

it('a draft is there in both languages and issues nothing', async () => {
  const { id } = await make.sample();
  for (const language of ['en', 'de']) {
    const draft = await request(harness.app).get(`/api/samples/${id}/report.pdf?language=${language}`).buffer(true);
    expect([draft.status, (draft.body as Buffer).toString('latin1', 0, 5)]).toEqual([200, '%PDF-']);
  }
  expect((await request(harness.app).get(`/api/samples/${id}/report.pdf?language=fr`)).status).toBe(422);
  expect((await request(harness.app).get(`/api/samples/${id}/reports`)).body.items).toEqual([]);
});

it('is amended with what changed, by one at a time, and the old one says so', async () => {
  const { id } = await make.sample();
  await total(id, 45);
  const before = (await issue(id, first())).body as StoredReport;
  await total(id, 65);
  const correction = { ...first(), kind: 'correction', amends: before.id, reason: 'A second label was found.' };
  const { status, body: after } = await issue(id, correction);
  expect(status).toBe(201);
  expect((after as StoredReport).changes).toEqual([{ name: 'Total 65 W', was: null, is: 'not tested' }]);
  expect(await check(before.code)).toMatchObject({
    state: 'amended',
    report: { code: before.code, amendedBy: (after as StoredReport).code },
    newest: { code: (after as StoredReport).code },
  });
  const second = await issue(id, { ...correction, id: newId() });
  expect([second.status, second.body.detail]).toEqual([409, expect.stringContaining('is the newer one. Amend that.')]);
  const died = {
    ...first(),
    kind: 'follow-up',
    amends: (after as StoredReport).id,
    reason: 'After nine months.',
    fate: 'died',
  };
  expect((await issue(id, died)).body).toMatchObject({ fate: 'died', changes: [] });
  expect((await check(before.code)).newest?.fate).toBe('died');
  expect((await request(harness.app).get('/api/reports')).body.items[0]).toMatchObject({ fate: 'died' });
  const foreign = await issue((await make.sample()).id, { ...died, id: newId() });
  expect([foreign.status, foreign.body.errors[0].path]).toEqual([422, 'report.amends']);
});

it('waits until every sentence of the conclusion has its yes', async () => {
  const { id } = await make.sample();
  const line = {
    kind: 'sentence',
    id: newId(),
    from: 'average',
    sentence: 'average',
    seen: [{ name: 'found', words: '91.7 %' }],
    text: {},
    hidden: false,
  };
  const kept = await request(harness.app)
    .put(`/api/samples/${id}/conclusion`)
    .set('If-Match', '"v0"')
    .send({ lines: [line] });
  expect(kept.status).toBe(200);
  const refused = await issue(id, first());
  expect([refused.status, refused.body.detail]).toEqual([
    422,
    expect.stringContaining('One sentence of the conclusion waits for a yes'),
  ]);
  // A draft shows what there is.
  expect((await request(harness.app).get(`/api/samples/${id}/report.pdf?language=en`)).status).toBe(200);
});

it('a code nobody issued is unknown, one that cannot be says why, and a record that was changed is damaged', async () => {
  const { id } = await make.sample();
  const stored = (await issue(id, first())).body as StoredReport;
  const other = (await issue((await make.sample()).id, first())).body as StoredReport;
  await harness.db.execute(sql`DELETE FROM report_parts WHERE report_id = ${other.id}`);
  expect((await check(other.code)).state).toBe('damaged');
  await harness.db.execute(sql`DELETE FROM reports WHERE id = ${other.id}`);
  expect(await check(other.code)).toEqual({ code: other.code, state: 'unknown', report: null, newest: null });
  const mistyped = await request(harness.app).get('/api/report-codes/AAAA-BBBB');
  expect([mistyped.status, mistyped.body.detail]).toEqual([422, 'A code has 16 signs; this has 8.']);
  expect((await check(stored.code)).state).toBe('untouched');
  await harness.db.execute(sql`UPDATE reports SET person = 'Somebody else' WHERE id = ${stored.id}`);
  expect((await check(stored.code)).state).toBe('damaged');
  await harness.db.execute(sql`UPDATE reports SET person = ${stored.person} WHERE id = ${stored.id}`);
  expect((await check(stored.code)).state).toBe('untouched');
  await harness.db.execute(
    sql`UPDATE report_parts SET bytes = CONCAT(bytes, 'x') WHERE report_id = ${stored.id} AND what = 'pdf'`,
  );
  expect((await check(stored.code)).state).toBe('damaged');
});

it('keeps its sample', async () => {
  const { id, etag } = await make.sample();
  await issue(id, first());
  const removed = await request(harness.app).delete(`/api/samples/${id}`).set('If-Match', etag);
  expect([removed.status, removed.body.detail]).toEqual([409, expect.stringContaining('Reports were issued of')]);
});

it('is one HTML file too: text stays text, nothing is fetched, and only its own script may run', async () => {
  const evil = '<img src=x onerror=alert(1)>"&\'';
  const { id } = await make.sample({ model: { model: evil } });
  await total(id, 45);
  const stored = (await issue(id, first({ person: '</title><script>alert(2)</script>' }))).body as StoredReport;
  const { text, headers } = await request(harness.app).get(`/api/reports/${stored.id}/report.html`);
  expect(headers['content-type']).toContain('text/html');
  expect(headers['content-disposition']).toMatch(/^attachment/);
  expect(text).toContain('&lt;img src=x onerror=alert(1)&gt;');
  expect(text).not.toMatch(/<img|<script>alert|<link|<iframe|src="http|@import|url\(/);
  expect(text.match(/<script>/g)).toHaveLength(1);
  const [, script = ''] = /<script>([\s\S]*?)<\/script>/.exec(text) ?? [];
  const hash = createHash('sha256').update(script).digest('base64');
  expect(text).toContain(`script-src 'sha256-${hash}'`);
  expect(text).toContain(stored.code);
  expect(text).toContain('Total 45 W');
});

it('is made of what was frozen, whatever is known by now', async () => {
  const { id } = await make.sample();
  await total(id, 45);
  const stored = (await issue(id, first())).body as StoredReport;
  await total(id, 99);
  const { text } = await request(harness.app).get(`/api/reports/${stored.id}/report.html`);
  expect(text).toContain('Total 45 W');
  expect(text).not.toContain('Total 99 W');
  const draft = await request(harness.app).get(`/api/samples/${id}/report.html?language=de`);
  expect(draft.text).toContain('Zusammen 99 W');
  expect(draft.text).toContain('Entwurf: nicht ausgestellt');
});

it('gives its pictures as SVG with their data as CSV', async () => {
  const { id } = await make.sample();
  await make.post(`/samples/${id}/claims`, {
    promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 2.25 },
    duration: { kind: 'unstated' },
    printed: 'label',
  });
  const { body, headers } = await request(harness.app)
    .get(`/api/samples/${id}/pictures.zip?language=en`)
    .buffer(true)
    .parse((res, done) => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part));
      res.on('end', () => done(null, Buffer.concat(parts)));
    });
  expect(headers['content-type']).toContain('application/zip');
  const files = unzipSync(new Uint8Array(body as Buffer));
  const names = Object.keys(files).sort();
  expect(names).toEqual(expect.arrayContaining(['01-ports-promised-and-proven.csv', 'claims.csv']));
  // Each picture has its data beside it.
  for (const name of names.filter((one) => one.endsWith('.svg'))) expect(names).toContain(name.replace('.svg', '.csv'));
  const text = (name: string) => strFromU8(files[name] ?? new Uint8Array());
  expect(text('01-ports-promised-and-proven.csv')).toBe(
    'port,promised_watts,proven_watts,state\r\nC1,45,,not tested\r\n',
  );
  expect(text('01-ports-promised-and-proven.svg').startsWith('<svg xmlns="http://www.w3.org/2000/svg"')).toBe(true);
});

it('leaves out what somebody chose, says so, and keeps what a record must hold', async () => {
  const { id } = await make.sample();
  await total(id, 45);
  const stored = (await issue(id, first({ leaves: ['ripple', 'safety', 'photos'], makerSaw: false })))
    .body as StoredReport;
  expect(stored).toMatchObject({ leaves: ['ripple', 'safety', 'photos'], otherSamples: [] });
  const { text } = await request(harness.app).get(`/api/reports/${stored.id}/report.html`);
  expect(text).toContain('Left out of this report: Ripple, Safety, Photos.');
  expect(text).toContain('The maker did not see this text before it was issued.');
  expect(text).not.toContain('<h2 id="ripple">');
  expect(text).toContain('<h2 id="heat">');
  expect(text).toContain('<h2 id="record">');
  const wrong = await issue(id, first({ leaves: ['record'] }));
  expect([wrong.status, wrong.body.errors[0].path]).toEqual([422, 'report.leaves[0]']);
  const draft = await request(harness.app).get(`/api/samples/${id}/report.html?language=de&leaves=ripple,heat`);
  expect(draft.text).toContain('In diesem Bericht weggelassen: Welligkeit, Wärme.');
  expect(draft.text).not.toContain('The maker');
  expect((await request(harness.app).get(`/api/samples/${id}/report.html?language=en&leaves=claims`)).status).toBe(422);
});

it('holds several samples, beside each other and each on its own, and an amendment says whose figures changed', async () => {
  const { id } = await make.sample();
  const other = await make.sample({ model: { model: 'Ember 65' } });
  await total(id, 45);
  await total(other.id, 45);
  await total(other.id, 65);
  const stored = (await issue(id, first({ otherSamples: [other.id, id] }))).body as StoredReport;
  // A sample does not stand beside itself.
  expect(stored.otherSamples).toEqual([other.id]);
  const tag = other.id.slice(-6);
  const { text } = await request(harness.app).get(`/api/reports/${stored.id}/report.html`);
  expect(text).toContain('<h2 id="beside">');
  expect(text).toContain(`<h1 id="${tag}" class="next">Tarnhook Ember 65 ${tag}</h1>`);
  const [, table = ''] = /<h2 id="beside">([\s\S]*?)<\/table>/.exec(text) ?? [];
  expect(table).toContain(
    '<td>Total 45 W</td><td>not tested: No full-load reading that asks for 45 W.</td><td>not tested: ',
  );
  expect(table).toContain('<td>Mass, with plug</td><td>83 g</td><td>83 g</td>');
  expect(text).toContain('<h3>Mass per watt: with plug</h3>');
  // Promised by one alone: it stands in that one's part.
  expect(table).not.toContain('Total 65 W');
  expect(text).toContain('Total 65 W');
  await total(other.id, 99);
  const correction = { ...first(), kind: 'correction', amends: stored.id, reason: 'A box was found.' };
  const after = (await issue(id, { ...correction, otherSamples: [other.id] })).body as StoredReport;
  expect(after.changes).toEqual([{ name: `${tag}: Total 99 W`, was: null, is: 'not tested' }]);
  const nobody = await issue(id, first({ otherSamples: [newId()] }));
  expect(nobody.status).toBe(404);
});

it('of the first form stays readable', async () => {
  const { id } = await make.sample();
  const stored = (await issue(id, first())).body as StoredReport;
  const [[kept]] = (await harness.db.execute(
    sql`SELECT bytes FROM report_parts WHERE report_id = ${stored.id} AND what = 'content'`,
  )) as unknown as [[{ bytes: Buffer }]];
  const { leaves: _l, others: _o, photos: _p, makerSaw: _m, ...was } = JSON.parse(inflateSync(kept.bytes).toString());
  const old = deflateSync(Buffer.from(JSON.stringify({ ...was, form: 1 })));
  await harness.db.execute(
    sql`UPDATE report_parts SET bytes = ${old} WHERE report_id = ${stored.id} AND what = 'content'`,
  );
  const { status, text } = await request(harness.app).get(`/api/reports/${stored.id}/report.html`);
  expect([status, text.includes(stored.code)]).toEqual([200, true]);
});
