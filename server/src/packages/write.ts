// Writing a package: a sample with everything known of it, in forms anybody can read.
import { createHash } from 'node:crypto';
import { endianness } from 'node:os';
import { currentCaptures } from '@lastmark/core/capture';
import { strToU8, type Zippable, zipSync } from 'fflate';
import { listAttachments, readAttachment } from '../attachments/store.ts';
import { getConclusion } from '../conclusions/store.ts';
import type { Database } from '../db/database.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toCsv } from '../export/data.ts';
import { readingFields } from '../export/fields.ts';
import { contentBytes, issuedPdf, listReports } from '../issued/store.ts';
import { ownOnly } from '../reports/content.ts';
import { listSheets } from '../sheets/store.ts';
import { readTrace } from '../traces/store.ts';
import {
  MANIFEST,
  type Manifest,
  PACKAGE_FORM,
  PACKAGE_VERSION,
  type PackedFile,
  ROWS,
  type StudyManifest,
} from './form.ts';
import { packedRows, SPANNING, TRAVELLING, trialsWithin } from './rows.ts';
import { sampleSchema } from './schema.ts';

export const json = (value: unknown): Uint8Array => strToU8(`${JSON.stringify(value, null, 1)}\n`);

/** A name that stands in a path: letters, digits, and what does no harm between them. */
export const plainName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9._-]+/g, '-')
    .replace(/\.{2,}/g, '.')
    .replace(/^[^A-Za-z0-9]+/, '')
    .slice(-80) || 'file';

/** Numbers as they are stored, in one order of bytes whatever machine wrote them. */
function littleEndian(values: Float32Array | Float64Array): Uint8Array {
  const bytes = new Uint8Array(values.buffer.slice(values.byteOffset, values.byteOffset + values.byteLength));
  if (endianness() === 'LE') return bytes;
  const size = values.BYTES_PER_ELEMENT;
  for (let at = 0; at < bytes.length; at += size) bytes.subarray(at, at + size).reverse();
  return bytes;
}

/** Files of an archive, listed with their hashes as they go in. */
export class Packing {
  readonly #files: Zippable = {};
  readonly #listed: PackedFile[] = [];

  /** @param level of deflate; 0 for what is packed already */
  add(path: string, bytes: Uint8Array, what: string, level: 0 | 6 = 6): void {
    this.#files[path] = [bytes, { level }];
    this.#listed.push({ path, bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex'), what });
  }

  done(head: Omit<Manifest, 'files'> | Omit<StudyManifest, 'files'>): Uint8Array {
    // The manifest comes first, for whoever reads it as a stream.
    const manifest = json({ ...head, files: this.#listed });
    return zipSync({ [MANIFEST]: manifest, ...this.#files }, { mtime: new Date(head.made) });
  }
}

/** Every recording: its samples as plain numbers, and what they are beside them. */
async function addTraces(db: Database, packing: Packing, ids: readonly string[]): Promise<void> {
  for (const id of ids) {
    const trace = await readTrace(db, id).catch(() => null);
    if (!trace) continue;
    const channels = trace.channels.map(({ name, quantity, unit }, at) => ({
      name,
      quantity,
      unit,
      file: `${id}-${at}.f32`,
    }));
    trace.channels.forEach(({ values }, at) => {
      packing.add(`traces/${id}-${at}.f32`, littleEndian(Float32Array.from(values)), 'trace');
    });
    if (trace.times) packing.add(`traces/${id}-times.f64`, littleEndian(trace.times), 'trace');
    const { samples, interval, began, facts } = trace;
    packing.add(
      `traces/${id}.json`,
      json({
        captureId: id,
        samples,
        interval,
        times: trace.times ? `${id}-times.f64` : null,
        began,
        facts,
        channels,
        encoding: { f32: 'IEEE 754 binary32, little-endian', f64: 'IEEE 754 binary64, little-endian, s' },
      }),
      'trace description',
    );
  }
}

/**
 * A sample as one archive: all of it as JSON, its readings as CSV with a table schema, recordings as plain numbers with their
 * descriptions, attachments, issued reports, and a hash of each.
 * @throws 404
 */
export async function packageOf(
  db: Database,
  sampleId: string,
  made = new Date(),
): Promise<{ name: string; title: string; bytes: Uint8Array }> {
  const dossier = ownOnly(await getDossier(db, sampleId));
  const { model, tag } = dossier.sample;
  const title = `${model.maker} ${model.model} ${tag}`;
  const packing = new Packing();
  const attachments = await listAttachments(db, sampleId);
  const files = attachments.map((info) => ({ info, path: `attachments/${info.id}-${plainName(info.name)}` }));
  const reports = await listReports(db, sampleId);
  const file = 'sample.json';
  packing.add(
    file,
    json({
      dossier,
      conclusion: await getConclusion(db, sampleId),
      sheets: await listSheets(db, sampleId),
      attachments: files.map(({ info, path }) => ({ ...info, path })),
      reports: reports.map((report) => ({ ...report, path: `reports/${report.code}.pdf` })),
    }),
    'sample',
  );
  packing.add('sample.schema.json', json(sampleSchema()), 'sample schema');
  const { modelId } = dossier.sample;
  const wanted = {
    sampleId,
    modelId,
    rigIds: dossier.rigs.map(({ id }) => id),
    instrumentIds: dossier.instruments.map(({ id }) => id),
    deviceIds: dossier.devices.map(({ id }) => id),
  };
  // A trial of this sample alone travels with it; one among several with all of them.
  const alone = { trialIds: await trialsWithin(db, [sampleId]), comparisonId: null };
  const rows = { ...(await packedRows(db, TRAVELLING, wanted)), ...(await packedRows(db, SPANNING, alone)) };
  packing.add(ROWS, json(rows), 'rows');
  packing.add('tables/readings.csv', strToU8(toCsv(dossier)), 'table');
  packing.add('tables/readings.schema.json', json({ path: 'readings.csv', fields: readingFields() }), 'table schema');
  await addTraces(
    db,
    packing,
    currentCaptures(dossier.captures).map(({ id }) => id),
  );
  for (const { info, path } of files) packing.add(path, (await readAttachment(db, info.id)).bytes, 'attachment');
  for (const { id, code } of reports) {
    packing.add(`reports/${code}.pdf`, (await issuedPdf(db, id)).bytes, 'report');
    packing.add(`reports/${code}.content`, await contentBytes(db, id), 'what a report was made from');
  }
  const bytes = packing.done({
    form: PACKAGE_FORM,
    version: PACKAGE_VERSION,
    made: made.toISOString(),
    sample: { id: sampleId, title, file },
  });
  return { name: `${title}.lastmark.zip`, title, bytes };
}
