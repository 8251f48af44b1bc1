// Taking a package in: the same ids are recognised, differences are told, nothing here is overwritten, and it is all or nothing.
import { endianness } from 'node:os';
import type { TakenIn, TakenPackage } from '@lastmark/contract';
import { judgeSample } from '@lastmark/core/verdict';
import { eq, getTableColumns } from 'drizzle-orm';
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core';
import { recognise } from '../attachments/content.ts';
import { OUT_OF_DATE } from '../changes/changes.ts';
import { type Database, isDatabaseError, type Queries } from '../db/database.ts';
import { attachmentParts, attachments, captures, reportParts, samples } from '../db/schema.ts';
import { getDossier } from '../dossier/dossier.ts';
import { toJudge } from '../dossier/judged.ts';
import { dropUnnamed, nameTrace, writeTrace } from '../traces/store.ts';
import { ROWS } from './form.ts';
import { PackageRefused, type ReadPackage, readStudy } from './read.ts';
import {
  differing,
  nameOf,
  type PackedRow,
  type PackedRows,
  SPANNING,
  TRAVELLING,
  type Travelling,
  unpackedRow,
} from './rows.ts';

const PIECE = 1024 * 1024;

const isRow = (value: unknown): value is PackedRow =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function rowsOf(files: ReadPackage['files']): PackedRows {
  const bytes = files[ROWS];
  if (!bytes) throw new PackageRefused('rows.json is missing: it can be judged, and not taken in.');
  const value: unknown = JSON.parse(Buffer.from(bytes).toString('utf8'));
  if (!isRow(value)) throw new PackageRefused('rows.json is not whole.');
  for (const [table, rows] of Object.entries(value))
    if (!Array.isArray(rows) || !rows.every(isRow)) throw new PackageRefused(`rows.json: ${table} is no list of rows.`);
  return value as PackedRows;
}

/** Numbers as they are kept, from the one order of bytes they travel in. */
function numbers(bytes: Uint8Array, size: 4 | 8): ArrayBuffer {
  if (bytes.length % size !== 0) throw new PackageRefused('A recording is cut short.');
  const own = bytes.slice();
  if (endianness() === 'BE') for (let at = 0; at < own.length; at += size) own.subarray(at, at + size).reverse();
  return own.buffer;
}

interface TraceAbout {
  readonly samples: number;
  readonly interval: number;
  readonly times: string | null;
  readonly began: number | null;
  readonly facts: {
    readonly bandwidth: number | null;
    readonly envelope: boolean;
    readonly coupling: 'AC' | 'DC' | null;
  };
  readonly channels: readonly {
    readonly name: string;
    readonly quantity: never;
    readonly unit: string;
    readonly file: string;
  }[];
}

/** Write the recordings that are new here; nothing names them before the transaction does. @returns their ids */
async function writeTraces(db: Database, { files }: ReadPackage, rows: PackedRows, written: string[]): Promise<void> {
  for (const row of rows.captures ?? []) {
    const id = String(row.id);
    const about = files[`traces/${id}.json`];
    const [there] = await db.select({ id: captures.id }).from(captures).where(eq(captures.id, id));
    if (!about || there) continue;
    const {
      samples: count,
      interval,
      times,
      began,
      facts,
      channels,
    } = JSON.parse(Buffer.from(about).toString('utf8')) as TraceAbout;
    const of = (name: string): Uint8Array => {
      const bytes = files[`traces/${name}`];
      if (!bytes) throw new PackageRefused(`traces/${name} is missing.`);
      return bytes;
    };
    const values = channels.map(({ name, quantity, unit, file }) => ({
      name,
      quantity,
      unit,
      values: new Float32Array(numbers(of(file), 4)),
    }));
    if (values.some((one) => one.values.length !== count))
      throw new PackageRefused(`The recording ${id} is cut short.`);
    written.push(id);
    await writeTrace(db, id, {
      samples: count,
      interval,
      times: times === null ? null : new Float64Array(numbers(of(times), 8)),
      began,
      channels: values,
      facts,
      remarks: [],
    });
  }
}

async function storePieces(bytes: Uint8Array, store: (part: number, piece: Buffer) => Promise<unknown>): Promise<void> {
  for (let part = 0; part * PIECE < bytes.length; part += 1)
    await store(part, Buffer.from(bytes.subarray(part * PIECE, (part + 1) * PIECE)));
}

/** What belongs to a row and stands in files of its own. */
async function storeFiles(
  tx: Queries,
  { files }: ReadPackage,
  table: string,
  row: PackedRow,
  written: readonly string[],
): Promise<void> {
  const id = String(row.id);
  if (table === 'captures' && written.includes(id)) await nameTrace(tx, id);
  if (table === 'attachments') {
    const path = Object.keys(files).find((one) => one.startsWith(`attachments/${id}-`));
    const bytes = path === undefined ? undefined : files[path];
    if (!bytes) throw new PackageRefused(`The file of ${String(row.name)} is missing.`);
    const { thumbnail, type } = await recognise(Buffer.from(bytes), String(row.name));
    if (type !== row.type) throw new PackageRefused(`${String(row.name)} is no ${String(row.type)}.`);
    await tx.update(attachments).set({ thumbnail }).where(eq(attachments.id, id));
    await storePieces(bytes, (part, piece) =>
      tx.insert(attachmentParts).values({ attachmentId: id, part, bytes: piece }),
    );
  }
  if (table === 'reports') {
    for (const [what, path] of [
      ['pdf', `reports/${String(row.code)}.pdf`],
      ['content', `reports/${String(row.code)}.content`],
    ] as const) {
      const bytes = files[path];
      if (!bytes) throw new PackageRefused(`${path} is missing.`);
      await storePieces(bytes, (part, piece) =>
        tx.insert(reportParts).values({ reportId: id, what, part, bytes: piece }),
      );
    }
  }
}

/** Claims with their states, as they are compared. */
const statesOf = (verdict: ReturnType<typeof judgeSample>): string =>
  JSON.stringify(verdict.claims.map(({ claimId, state, sentence }) => [claimId, state, sentence]).sort());

type Came = Omit<TakenIn, 'sampleId' | 'title' | 'sameVerdict'>;

/** Add what is new of some tables; what is known stays, and what is another under the same id is told. */
async function addRows(
  tx: Queries,
  tables: readonly Omit<Travelling, 'rows'>[],
  rows: PackedRows,
  add?: (table: string, row: PackedRow) => Promise<void>,
): Promise<Came> {
  const added: Record<string, number> = {};
  const differences: TakenIn['differences'] = [];
  let known = 0;
  for (const travelling of tables) {
    const table = nameOf(travelling);
    const column = getTableColumns(travelling.table)[travelling.key] as AnyMySqlColumn;
    for (const row of rows[table] ?? []) {
      const id = String(row[travelling.key]);
      const [there] = await tx.select().from(travelling.table).where(eq(column, id));
      if (there) {
        known += 1;
        const fields = differing(travelling, there, row);
        if (fields.length > 0) differences.push({ table, id, fields: [...fields] });
        continue;
      }
      await tx.insert(travelling.table).values(unpackedRow(travelling, row));
      await add?.(table, row);
      added[table] = (added[table] ?? 0) + 1;
    }
  }
  return { added, differences, known };
}

/**
 * Take a package in, of a sample or of a study: all of it, or nothing.
 * @throws PackageRefused with the reason; nothing of it is kept then
 */
export async function takeIn(db: Database, bytes: Uint8Array): Promise<TakenPackage> {
  const { title, samples: read, files } = readStudy(bytes);
  const packed = read.map((one) => ({ one, rows: rowsOf(one.files), ...one.manifest.sample }));
  for (const { id, rows } of packed)
    if (rows.samples?.length !== 1 || rows.samples[0]?.id !== id)
      throw new PackageRefused('Its rows are not of the sample its manifest names.');
  const spanning = [...packed.map(({ rows }) => rows), ...(files ? [rowsOf(files)] : [])];
  const written: string[] = [];
  try {
    for (const { one, rows } of packed) await writeTraces(db, one, rows, written);
    const done = await db.transaction(async (tx) => {
      const came: Came[] = [];
      for (const { one, rows, id } of packed) {
        const sample = await addRows(tx, TRAVELLING, rows, (table, row) => storeFiles(tx, one, table, row, written));
        if (Object.keys(sample.added).length > 0) await tx.update(samples).set(OUT_OF_DATE).where(eq(samples.id, id));
        came.push(sample);
      }
      // What spans samples names them: they stand here by now.
      const across: Came[] = [];
      for (const rows of spanning) across.push(await addRows(tx, SPANNING, rows));
      return { came, across };
    });
    const taken: TakenIn[] = [];
    for (const [at, { one, id, title: name }] of packed.entries()) {
      const here = judgeSample(toJudge(await getDossier(db, id)));
      const there = judgeSample(toJudge(one.dossier));
      const came = done.came[at] ?? { added: {}, differences: [], known: 0 };
      taken.push({ sampleId: id, title: name, ...came, sameVerdict: statesOf(here) === statesOf(there) });
    }
    const count = (table: string): number => done.across.reduce((sum, { added }) => sum + (added[table] ?? 0), 0);
    return {
      title,
      samples: taken,
      trials: count('trials'),
      comparisons: count('comparisons'),
      differences: done.across.flatMap(({ differences }) => differences),
    };
  } catch (error) {
    for (const id of written) await dropUnnamed(db, id);
    if (error instanceof RangeError || error instanceof SyntaxError)
      throw new PackageRefused('Something in it is not as the format has it.');
    if (isDatabaseError(error, 'ER_NO_REFERENCED_ROW_2'))
      throw new PackageRefused('Something in it refers to what is not there. Pack it anew.');
    throw error;
  }
}
