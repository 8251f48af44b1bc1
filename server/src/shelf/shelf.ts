// The shelf: pages of samples with their key figures, worked out when first asked for after a change.
import type { Page, SampleRow, ShelfQuery } from '@lastmark/contract';
import { FIGURES_FORM, judgeSample, type KeyFigures } from '@lastmark/core/verdict';
import { and, count, desc, eq, like, or, type SQL } from 'drizzle-orm';
import type { Database } from '../db/database.ts';
import { models, samples } from '../db/schema.ts';
import { getDossier, loadShared, type Shared, toJudge } from '../dossier/dossier.ts';
import { tagOf } from '../samples/store.ts';

const DEFAULT_SIZE = 50;

const containing = (word: string): string => `%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;

/** Every word must be found in maker, model, serial or tag. */
function filters({ q, kind }: ShelfQuery): SQL | undefined {
  const words = (q ?? '').split(/\s+/).filter(Boolean);
  const perWord = words.map((word) =>
    or(
      like(models.maker, containing(word)),
      like(models.model, containing(word)),
      like(samples.serial, containing(word)),
      like(samples.id, `%${containing(word).slice(1, -1).toUpperCase()}`),
    ),
  );
  return and(...perWord, kind ? eq(models.kind, kind) : undefined);
}

const UNKNOWN: KeyFigures = {
  form: FIGURES_FORM,
  watts: null,
  efficiency: null,
  idle: null,
  massPerWatt: null,
  pricePerWatt: null,
  claims: {},
};

/** Key figures of a sample. One that cannot be judged costs its own row only. @returns null figures when it cannot */
async function figuresOf(
  db: Database,
  sample: typeof samples.$inferSelect,
  shared: Shared,
): Promise<KeyFigures | null> {
  if (sample.figures?.form === FIGURES_FORM) return sample.figures;
  const dossier = await getDossier(db, sample.id, shared);
  let figures: KeyFigures;
  try {
    figures = judgeSample(toJudge(dossier)).figures;
    if (!allFinite(figures)) return null;
  } catch {
    return null;
  }
  await keepFigures(db, sample, figures);
  return figures;
}

/** Keep figures only if nothing changed since the row they follow from was read. */
export async function keepFigures(
  db: Database,
  seen: Pick<typeof samples.$inferSelect, 'id' | 'changes' | 'updatedAt'>,
  figures: KeyFigures,
): Promise<void> {
  await db
    .update(samples)
    .set({ figures, updatedAt: seen.updatedAt })
    .where(and(eq(samples.id, seen.id), eq(samples.changes, seen.changes)));
}

/** What JSON and the database would turn into nothing. */
const allFinite = (value: unknown): boolean =>
  typeof value === 'number'
    ? Number.isFinite(value)
    : typeof value !== 'object' || value === null || Object.values(value).every(allFinite);

/** One page of the shelf, last changed first. */
export async function listSamples(db: Database, query: ShelfQuery): Promise<Page<SampleRow>> {
  const { page = 1, size = DEFAULT_SIZE } = query;
  const where = filters(query);
  const [counted] = await db
    .select({ total: count() })
    .from(samples)
    .innerJoin(models, eq(samples.modelId, models.id))
    .where(where);
  const rows = await db
    .select({ sample: samples, model: models })
    .from(samples)
    .innerJoin(models, eq(samples.modelId, models.id))
    .where(where)
    .orderBy(desc(samples.updatedAt), desc(samples.id))
    .limit(size)
    .offset((page - 1) * size);
  const shared = await loadShared(db);
  const items: SampleRow[] = [];
  for (const { sample, model } of rows) {
    const figures = await figuresOf(db, sample, shared);
    items.push({
      id: sample.id,
      tag: tagOf(sample.id),
      maker: model.maker,
      model: model.model,
      kind: model.kind,
      serial: sample.serial,
      ports: model.facts.ports,
      figures: figures ?? UNKNOWN,
      unjudged: figures === null,
      updatedAt: sample.updatedAt.toISOString(),
    });
  }
  return { items, page, size, total: counted?.total ?? 0 };
}
