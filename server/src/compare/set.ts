// The set a rule makes of the whole shelf, with values of the measures that are wanted, each under one condition for all.
import type { MeasureColumn, SetAnswer, SetMember, WantedMeasure } from '@lastmark/contract';
import { membersOf, type SetFacts, type SetRule, sharedConditions } from '@lastmark/core/compare';
import { FIGURES_FORM } from '@lastmark/core/verdict';
import { and, eq, inArray, isNotNull, ne } from 'drizzle-orm';
import { EVERYONE, revisionsOf, sharedRevision } from '../changes/changes.ts';
import type { Queries } from '../db/database.ts';
import { figures, measures, models, runSheets, samples, sheetRuns } from '../db/schema.ts';
import { tagOf } from '../samples/store.ts';

/** So many of those outside are named; the others are counted. */
const MOST_OUT = 300;
const MOST_CONDITIONS = 60;

interface Facts extends SetFacts {
  readonly member: SetMember;
  readonly pending: boolean;
}

/** Methods whose run sheets were carried out, by sample. */
async function methodsOf(db: Queries): Promise<ReadonlyMap<string, readonly string[]>> {
  const rows = await db
    .selectDistinct({ id: sheetRuns.sampleId, method: runSheets.methodId })
    .from(sheetRuns)
    .innerJoin(runSheets, eq(runSheets.id, sheetRuns.sheetId))
    .where(isNotNull(sheetRuns.endedAt));
  const all = new Map<string, string[]>();
  for (const { id, method } of rows) all.set(id, [...(all.get(id) ?? []), method]);
  return all;
}

/** Everything a rule may ask, of every sample on the shelf. */
async function factsOf(db: Queries, rule: SetRule): Promise<readonly Facts[]> {
  const [rows, revisions, methods] = await Promise.all([
    db
      .select({
        id: samples.id,
        modelId: samples.modelId,
        maker: models.maker,
        model: models.model,
        serial: samples.serial,
        kind: samples.kind,
        facts: samples.facts,
        labels: samples.labels,
        archived: samples.archived,
        createdAt: samples.createdAt,
        stale: samples.stale,
        watts: figures.watts,
        ports: figures.ports,
        since: figures.since,
        measured: figures.measured,
        shared: figures.shared,
        form: figures.form,
      })
      .from(samples)
      .innerJoin(models, eq(samples.modelId, models.id))
      .leftJoin(figures, eq(figures.sampleId, samples.id))
      .where(ne(samples.demo, 'away'))
      .orderBy(samples.id),
    revisionsOf(db, [EVERYONE]),
    rule.kind === 'rule' && rule.method !== null ? methodsOf(db) : new Map<string, readonly string[]>(),
  ]);
  const shared = sharedRevision(revisions);
  return rows.map(({ facts, labels, archived, createdAt, stale, measured, shared: made, form, ...row }): Facts => {
    const member: SetMember = {
      ...row,
      tag: tagOf(row.id),
      ports: row.ports ?? 0,
      since: row.since ?? createdAt.toISOString().slice(0, 10),
      group: [facts.revision, facts.dateCode].filter(Boolean).join(', '),
      labels: labels ?? [],
    };
    return {
      ...member,
      title: `${row.maker} ${row.model}, ${row.serial || member.tag}`,
      methods: methods.get(row.id) ?? [],
      archived,
      measured: measured ?? 0,
      member,
      pending: stale || made !== shared || form !== FIGURES_FORM,
    };
  });
}

/** Ids of a set, as it is now. */
export async function memberIds(db: Queries, rule: SetRule): Promise<readonly string[]> {
  return membersOf(rule, await factsOf(db, rule)).members.map(({ id }) => id);
}

type ValueRow = Pick<
  typeof measures.$inferSelect,
  'sampleId' | 'measure' | 'condition' | 'value' | 'u' | 'common' | 'meters' | 'at' | 'below'
>;

/** Above so many members it is quicker to read a measure whole. */
const FEW = 500;

async function valuesOf(db: Queries, ids: readonly string[], wanted: readonly string[]): Promise<readonly ValueRow[]> {
  if (ids.length === 0 || wanted.length === 0) return [];
  const few = ids.length <= FEW ? inArray(measures.sampleId, [...ids]) : undefined;
  return db
    .select()
    .from(measures)
    .where(and(inArray(measures.measure, [...wanted]), few))
    .orderBy(measures.measure, measures.condition, measures.sampleId);
}

function columnOf(
  { measure, condition }: { readonly measure: string; readonly condition: string },
  rows: readonly ValueRow[],
  places: ReadonlyMap<string, number>,
  meters: string[],
): MeasureColumn {
  const column: MeasureColumn = {
    measure,
    condition,
    of: [],
    value: [],
    u: [],
    common: [],
    meters: [],
    below: [],
    at: [],
  };
  for (const row of rows) {
    const place = places.get(row.sampleId);
    if (place === undefined || row.condition !== condition) continue;
    let meter = row.meters === '' ? -1 : meters.indexOf(row.meters);
    if (meter === -1 && row.meters !== '') meter = meters.push(row.meters) - 1;
    column.of.push(place);
    column.value.push(row.value);
    column.u.push(row.u);
    column.common.push(row.common);
    column.meters.push(meter);
    column.below.push(row.below);
    column.at.push(row.at);
  }
  return column;
}

/**
 * The set of a rule, and values of measures. A measure without a condition takes the one most members share; values under another
 * are left out, never mixed in.
 */
export async function lookAtSet(db: Queries, rule: SetRule, wanted: readonly WantedMeasure[]): Promise<SetAnswer> {
  const { members, out } = membersOf(rule, await factsOf(db, rule));
  const places = new Map(members.map(({ id }, place) => [id, place]));
  const names = [...new Set(wanted.map(({ measure }) => measure))].filter((measure) => !measure.startsWith('own-'));
  const rows = await valuesOf(
    db,
    members.map(({ id }) => id),
    names,
  );
  const byMeasure = new Map(names.map((measure) => [measure, [] as ValueRow[]]));
  for (const row of rows) if (places.has(row.sampleId)) byMeasure.get(row.measure)?.push(row);
  const conditions = names.map((measure) => ({
    measure,
    shared: sharedConditions(
      (byMeasure.get(measure) ?? []).map(({ sampleId, condition }) => ({ id: sampleId, condition })),
    ).slice(0, MOST_CONDITIONS),
  }));
  const meters: string[] = [];
  const columns = wanted.flatMap(({ measure, condition }): MeasureColumn[] => {
    const own = byMeasure.get(measure);
    const under = condition ?? conditions.find((one) => one.measure === measure)?.shared[0]?.condition;
    return own && under !== undefined ? [columnOf({ measure, condition: under }, own, places, meters)] : [];
  });
  return {
    members: members.map(({ member }) => member),
    out: out.slice(0, MOST_OUT),
    outCount: out.length,
    conditions,
    columns,
    meters,
    pending: members.some(({ pending }) => pending),
  };
}
