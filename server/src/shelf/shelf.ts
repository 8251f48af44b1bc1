// The shelf: pages of samples with their key figures as they were last worked out.

import type { Page, SampleRow, ShelfOrder, ShelfQuery } from '@lastmark/contract';
import { FIGURES_FORM, type KeyFigures } from '@lastmark/core/verdict';
import { and, asc, count, desc, eq, inArray, isNotNull, isNull, like, ne, or, type SQL, sql } from 'drizzle-orm';
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core';
import { EVERYONE, revisionsOf, sharedRevision } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { figures, models, samples } from '../db/schema.ts';
import { someArchived, someAway } from '../demo/shown.ts';
import { tagOf } from '../samples/store.ts';
import { seen } from '../seen/seen.ts';
import { searchedWords } from './words.ts';

const DEFAULT_SIZE = 50;

const containing = (word: string): string => `%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;

/** Whether there is anything that is not shown unasked: what is nowhere needs no looking for. */
interface Hidden {
  readonly away: boolean;
  readonly archived: boolean;
}

/** Every word must be found in maker, model, serial or tag, or begin one of what is known beside them. */
function filters(
  { q, kind, label, collection, archived = false }: ShelfQuery,
  hidden: Hidden,
  db: Queries,
): SQL | undefined {
  const words = (q ?? '').toLowerCase().split(/\s+/).filter(Boolean);
  return and(
    ...words.map((word) => {
      const [searched] = searchedWords(word);
      const named = like(samples.words, containing(word));
      // Too short for the index: only the name has it.
      if (searched === undefined) return named;
      const beside = db
        .select({ id: figures.sampleId })
        .from(figures)
        .where(sql`MATCH(${figures.words}) AGAINST (${`+${searched}*`} IN BOOLEAN MODE)`);
      return or(named, inArray(samples.id, beside));
    }),
    hidden.archived || archived ? eq(samples.archived, archived) : undefined,
    label ? sql`JSON_CONTAINS(${samples.labels}, ${JSON.stringify(label)})` : undefined,
    kind ? eq(samples.kind, kind) : undefined,
    collection ? eq(samples.collectionId, collection) : undefined,
    hidden.away ? ne(samples.demo, 'away') : undefined,
  );
}

/** Orders by a figure; what has none comes last, whichever way. */
const FIGURES = {
  watts: figures.watts,
  efficiency: figures.efficiency,
  idle: figures.idle,
  mass: figures.massPerWatt,
  short: figures.short,
} satisfies Partial<Record<ShelfOrder, AnyMySqlColumn>>;

const UNKNOWN: KeyFigures = {
  form: FIGURES_FORM,
  watts: null,
  efficiency: null,
  idle: null,
  massPerWatt: null,
  pricePerWatt: null,
  claims: {},
  stations: [],
};

interface Found {
  readonly ids: readonly string[];
  readonly total: number;
}

/** Ids in the order of a figure: along its index both ways, and those without the figure after them. */
async function idsByFigure(
  db: Database,
  column: AnyMySqlColumn,
  where: SQL | undefined,
  { down, size, offset }: { readonly down: boolean; readonly size: number; readonly offset: number },
): Promise<readonly string[]> {
  const among = (also: SQL | undefined) => {
    const ids = db.select({ id: figures.sampleId }).from(figures).$dynamic();
    if (where) ids.innerJoin(samples, eq(samples.id, figures.sampleId));
    return ids.where(and(where, also));
  };
  const idsOf = (rows: readonly { readonly id: string }[]) => rows.map(({ id }) => id);
  // Downwards MariaDB puts what is missing last by itself.
  if (down)
    return idsOf(await among(undefined).orderBy(desc(column), desc(figures.sampleId)).limit(size).offset(offset));
  const valued = idsOf(
    await among(isNotNull(column)).orderBy(asc(column), asc(figures.sampleId)).limit(size).offset(offset),
  );
  if (valued.length === size) return valued;
  const counted = db.select({ total: count() }).from(figures).$dynamic();
  if (where) counted.innerJoin(samples, eq(samples.id, figures.sampleId));
  const [before] = await counted.where(and(where, isNotNull(column)));
  const without = await among(isNull(column))
    .orderBy(asc(figures.sampleId))
    .limit(size - valued.length)
    .offset(Math.max(0, offset - (before?.total ?? 0)));
  return [...valued, ...idsOf(without)];
}

/** Ids of one page and how many there are: of narrow columns, so that only the rows of the page are read whole. */
async function idsOf(db: Database, query: ShelfQuery): Promise<Found> {
  const { page = 1, size = DEFAULT_SIZE, sort, down = false } = query;
  const [away, archived] = await Promise.all([someAway(db), someArchived(db)]);
  const where = and(filters(query, { away, archived }, db), seen());
  const offset = (page - 1) * size;
  // Ties go the way of the order, so that an index alone gives it.
  const way = !sort || down ? desc : asc;
  const ids =
    sort && sort !== 'name'
      ? await idsByFigure(db, FIGURES[sort], where, { down, size, offset })
      : await db
          .select({ id: samples.id })
          .from(samples)
          .where(where)
          .orderBy(way(sort ? samples.words : samples.updatedAt), way(samples.id))
          .limit(size)
          .offset(offset)
          .then((rows) => rows.map(({ id }) => id));
  // A page that is not full is the last one: what a search looked through is not looked through again to count it.
  const last = ids.length < size && (ids.length > 0 || offset === 0);
  if (last) return { ids, total: offset + ids.length };
  const [counted] = await db.select({ total: count() }).from(samples).where(where);
  return { ids, total: counted?.total ?? 0 };
}

/** What a row of the shelf is made of, and no more: notes and words of a sample are long. */
const ROW = {
  id: samples.id,
  serial: samples.serial,
  stale: samples.stale,
  labels: samples.labels,
  archived: samples.archived,
  updatedAt: samples.updatedAt,
  maker: models.maker,
  model: models.model,
  kind: models.kind,
  facts: models.facts,
  // Drizzle takes the whole of it for missing where the first of it is null, as a body may be.
  made: { shared: figures.shared, form: figures.form, judged: figures.judged, body: figures.body },
};

/** One page of the shelf, last changed first. It waits for no arithmetic: what is out of date says so. */
export async function listSamples(db: Database, query: ShelfQuery): Promise<Page<SampleRow>> {
  const { page = 1, size = DEFAULT_SIZE } = query;
  const [{ ids, total }, revisions] = await Promise.all([idsOf(db, query), revisionsOf(db, [EVERYONE])]);
  const shared = sharedRevision(revisions);
  const rows =
    ids.length === 0
      ? []
      : await db
          .select(ROW)
          .from(samples)
          .innerJoin(models, eq(samples.modelId, models.id))
          .leftJoin(figures, eq(figures.sampleId, samples.id))
          .where(inArray(samples.id, [...ids]));
  const byId = new Map(rows.map((row) => [row.id, row]));
  const items = ids.flatMap((id): SampleRow[] => {
    const row = byId.get(id);
    if (!row) return [];
    const { maker, model, kind, serial, facts, stale, archived, updatedAt, made } = row;
    return [
      {
        id,
        tag: tagOf(id),
        maker,
        model,
        kind,
        serial,
        ports: facts.ports,
        figures: made?.body ?? UNKNOWN,
        pending: stale || made?.shared !== shared || made.form !== FIGURES_FORM,
        unjudged: made !== null && !made.judged,
        labels: row.labels ?? [],
        archived,
        updatedAt: updatedAt.toISOString(),
      },
    ];
  });
  return { items, page, size, total };
}
