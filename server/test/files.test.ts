import { createHash } from 'node:crypto';
import sharp from 'sharp';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aPoint, type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
let sampleId: string;
beforeAll(async () => {
  harness = await startHarness('files');
  make = makers(harness);
  sampleId = (await make.sample()).id;
});
afterAll(() => harness.stop());

const picture = (width: number, height: number) =>
  sharp({
    create: { width, height, channels: 3, noise: { type: 'gaussian', mean: 128, sigma: 60 }, background: '#808080' },
  })
    .png()
    .toBuffer();
const list = async () => (await request(harness.app).get(`/api/attachments?sampleId=${sampleId}`)).body.items;

describe('attached files', () => {
  it('come back byte for byte, with a thumbnail, even when larger than a database packet part', async () => {
    const bytes = await picture(1400, 1100);
    expect(bytes.length).toBeGreaterThan(2 * 1024 * 1024);
    const { status, body } = await make.attach('sample', sampleId, 'label photo.png', bytes);
    expect(status).toBe(201);
    expect(body).toMatchObject({ type: 'image/png', size: bytes.length, hasThumbnail: true, owner: 'sample' });
    const file = await request(harness.app).get(`/api/attachments/${body.id}`).buffer(true);
    expect(createHash('md5').update(file.body).digest('hex')).toBe(createHash('md5').update(bytes).digest('hex'));
    expect(file.headers['content-disposition']).toContain("filename*=UTF-8''label%20photo.png");
    const thumbnail = await request(harness.app).get(`/api/attachments/${body.id}/thumbnail`).buffer(true);
    const size = await sharp(thumbnail.body).metadata();
    expect(Math.max(size.width, size.height)).toBe(240);
  });

  it('belong to a sample, a claim or a reading', async () => {
    const claim = await make.claim(sampleId, { kind: 'total', watts: 65 });
    const rig = await make.rig();
    const setup = await make.setup(sampleId, rig.id);
    const point = aPoint(setup.id, rig.id, { watts: '71.6' });
    await make.post(`/samples/${sampleId}/readings`, { points: [point] });
    expect((await make.attach('claim', claim.id, 'box.pdf', Buffer.from('%PDF-1.4 …'))).status).toBe(201);
    const reading = await make.attach('reading', point.readings[0]?.id ?? '', 'meter.txt', Buffer.from('71.6 W'));
    expect(reading.status).toBe(201);
    expect((await list()).map(({ owner }: { owner: string }) => owner).sort()).toEqual(['claim', 'reading', 'sample']);
    const removal = await request(harness.app).delete(`/api/claims/${claim.id}`).set('If-Match', '"v1"');
    expect(removal.status).toBe(409);
    expect((await request(harness.app).delete(`/api/attachments/${reading.body.id}`)).status).toBe(204);
    expect((await request(harness.app).get(`/api/attachments/${reading.body.id}`)).status).toBe(404);
  });

  it.each([
    ['a program', 'run.exe', Buffer.from('MZ\u0000\u0000')],
    ['a page', 'page.html', Buffer.from('<script>alert(1)</script>')],
    ['a drawing with scripts', 'x.svg', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')],
    ['text named as a picture', 'x.png', Buffer.from('not a picture')],
    ['bytes named as text', 'x.csv', Buffer.from([0xff, 0xfe, 0x00, 0xd8])],
    ['nothing', 'x.png', Buffer.alloc(0)],
  ])('refuse %s', async (_what, name, bytes) => {
    expect((await make.attach('sample', sampleId, name, bytes)).status).toBe(415);
  });

  it('refuse what is too large or belongs to nobody', async () => {
    expect((await make.attach('sample', sampleId, 'big.txt', Buffer.alloc(21 * 1024 * 1024, 65))).status).toBe(413);
    expect((await make.attach('sample', '01JZZZZZZZZZZZZZZZZZZZZZZZ', 'a.txt', Buffer.from('a'))).status).toBe(404);
    expect((await make.attach('planet', sampleId, 'a.txt', Buffer.from('a'))).status).toBe(422);
  });
});

describe('what is handed out', () => {
  it('the sheet is a PDF of one page with real text', async () => {
    const answer = await request(harness.app).get(`/api/samples/${sampleId}/sheet.pdf`).buffer(true);
    expect(answer.headers['content-type']).toContain('application/pdf');
    const bytes = answer.body as Buffer;
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    expect(bytes.toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(1);
  });

  it('the sheet runs on to further pages rather than leave anything out', async () => {
    const sample = await make.sample({
      unit: { disclosure: 'd '.repeat(200), notes: 'n'.repeat(4000) },
      model: { inputRating: 'long '.repeat(24) },
    });
    for (let line = 0; line < 40; line += 1)
      await make.claim(sample.id, { kind: 'wording', text: `slogan ${line} ${'very '.repeat(50)}much` });
    const answer = await request(harness.app).get(`/api/samples/${sample.id}/sheet.pdf`).buffer(true);
    const pages = (answer.body as Buffer).toString('latin1').match(/\/Type \/Page\b/g) ?? [];
    expect(pages.length).toBeGreaterThan(1);
    expect(pages.length).toBeLessThan(8);
  });

  it('the CSV has one line a standing reading and no formulas a spreadsheet would run', async () => {
    const sample = await make.sample();
    const rig = await make.rig({ name: '=cmd()' });
    const setup = await make.setup(sample.id, rig.id);
    await make.post(`/samples/${sample.id}/readings`, {
      points: [aPoint(setup.id, rig.id, { watts: '71.62', volts: '20.043', amps: '3.248' })],
    });
    const { text } = await request(harness.app).get(`/api/samples/${sample.id}/export.csv`);
    const lines = text.trim().split('\r\n');
    expect(lines).toHaveLength(4);
    expect(lines[0]).toContain('quantity,place,port,value,unit,standard_uncertainty');
    expect(lines[1]).toContain('230 V 50 Hz,100,nothing,C1 20 V,load');
    expect(text).toContain("'=cmd()");
  });

  it('the JSON holds everything and what was concluded', async () => {
    const { body } = await request(harness.app).get(`/api/samples/${sampleId}/export.json`);
    expect(body).toMatchObject({ form: 'lastmark-sample/2', units: 'SI', sample: { id: sampleId } });
    expect(body.concluded.claims).toHaveLength(1);
    expect(body.points[0].readings[0].typed).toBe('71.6');
  });
});
