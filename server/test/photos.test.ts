// Photos: upright, without the place they were taken at, captioned, and in the report where somebody chose them.
import type { StoredReport } from '@lastmark/contract';
import sharp from 'sharp';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
let make: ReturnType<typeof makers>;
beforeAll(async () => {
  harness = await startHarness('photos');
  make = makers(harness);
});
afterAll(() => harness.stop());

/** A photo as a phone makes it: wide, turned by a note, with the place in it. */
const phonePhoto = () =>
  sharp({ create: { width: 320, height: 200, channels: 3, background: '#a03020' } })
    .withExif({
      IFD0: { Make: 'Fernwall Camera', Orientation: '6' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '47/1 12/1 30/1', GPSLongitudeRef: 'E', GPSLongitude: '10/1 1/1 2/1' },
    })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();
const fileOf = async (id: string) =>
  (await request(harness.app).get(`/api/attachments/${id}`).buffer(true)).body as Buffer;

it('a phone’s photo stands upright and tells nobody where it was taken', async () => {
  const { id } = await make.sample();
  const sent = await phonePhoto();
  const before = await sharp(sent).metadata();
  expect([before.orientation, before.exif === undefined]).toEqual([6, false]);
  const { body } = await make.attach('sample', id, 'label.jpg', sent);
  const kept = await fileOf(body.id);
  const after = await sharp(kept).metadata();
  expect([after.width, after.height, after.orientation ?? 1]).toEqual([200, 320, 1]);
  expect([after.exif, after.xmp, after.iptc]).toEqual([undefined, undefined, undefined]);
  expect(kept.toString('latin1')).not.toMatch(/GPS|Fernwall Camera|Exif/);
  expect(body.size).toBe(kept.length);
});

it('a picture with nothing of it comes back byte for byte', async () => {
  const { id } = await make.sample();
  const sent = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#203040' } })
    .jpeg()
    .toBuffer();
  const { body } = await make.attach('sample', id, 'plain.jpg', sent);
  expect((await fileOf(body.id)).equals(sent)).toBe(true);
});

it('is captioned and chosen, and stands in the report as it was then', async () => {
  const { id } = await make.sample();
  const { body } = await make.attach('sample', id, 'label.jpg', await phonePhoto());
  expect([body.caption, body.inReport]).toEqual(['', false]);
  const without = await request(harness.app).get(`/api/samples/${id}/report.html?language=en`);
  expect(without.text).not.toContain('<img');
  const put = (input: object, of = body.id) => request(harness.app).put(`/api/attachments/${of}`).send(input);
  const described = await put({ caption: 'The label <from below>', inReport: true });
  expect([described.status, described.body.caption, described.body.inReport]).toEqual([
    200,
    'The label <from below>',
    true,
  ]);
  const report = { kind: 'first', id: newId(), language: 'en', person: 'Keeper' };
  const issued = await request(harness.app).post(`/api/samples/${id}/reports`).send({ report });
  const { id: reportId } = issued.body as StoredReport;
  await put({ caption: 'Something else', inReport: false });
  const { text } = await request(harness.app).get(`/api/reports/${reportId}/report.html`);
  expect(text).toContain('alt="The label &lt;from below&gt;"');
  const [, jpeg = ''] = /data:image\/jpeg;base64,([^"]+)/.exec(text) ?? [];
  expect(await sharp(Buffer.from(jpeg, 'base64')).metadata()).toMatchObject({
    format: 'jpeg',
    width: 200,
    height: 320,
  });
  const pdf = await request(harness.app).get(`/api/reports/${reportId}/report.pdf`).buffer(true);
  expect((pdf.body as Buffer).toString('latin1')).toMatch(/\/Subtype \/Image/);
});

it('only pictures stand in a report, and a caption fits on a line or two', async () => {
  const { id } = await make.sample();
  const { body } = await make.attach('sample', id, 'notes.txt', Buffer.from('a note'));
  const refused = await request(harness.app).put(`/api/attachments/${body.id}`).send({ caption: '', inReport: true });
  expect([refused.status, refused.body.detail]).toEqual([422, 'Only pictures stand in a report.']);
  const long = await request(harness.app)
    .put(`/api/attachments/${body.id}`)
    .send({ caption: 'x'.repeat(201), inReport: false });
  expect(long.status).toBe(422);
  const none = await request(harness.app).put(`/api/attachments/${newId()}`).send({ caption: '', inReport: false });
  expect(none.status).toBe(404);
});
