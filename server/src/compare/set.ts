// The set a rule makes of the whole shelf, with values of the measures that are wanted, each under one condition for all.

import type { MeasureColumn, SetAnswer, SetMember, WantedMeasure } from '@lastmark/contract';
import { membersOf, type SetFacts, type SetRule, sharedConditions } from '@lastmark/core/compare';
import type { Fate } from '@lastmark/core/report';
import { FIGURES_FORM } from '@lastmark/core/verdict';
import { eq, isNotNull } from 'drizzle-orm';
import { EVERYONE, revisionsOf, sharedRevision } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { runSheets, sheetRuns } from '../db/schema.ts';
import { tagOf } from '../samples/store.ts';
import { seenText } from '../seen/seen.ts';

/** So many of those outside are named; the others are counted. */
const MOST_OUT = 300;
const MOST_CONDITIONS = 60;

/** A sample as a rule looks at it: its member of the answer with what is asked beside it, not a copy of either. */
class Facts implements SetFacts {
  constructor(
    readonly member: SetMember,
    readonly methods: readonly string[],
    readonly archived: boolean,
    readonly measured: number,
    readonly pending: boolean,
  ) {}

  get id(): string {
    return this.member.id;
  }

  get modelId(): string {
    return this.member.modelId;
  }

  get kind(): string {
    return this.member.kind;
  }

  get watts(): number | null {
    return this.member.watts;
  }

  get ports(): number {
    return this.member.ports;
  }

  get since(): string {
    return this.member.since;
  }

  get labels(): readonly string[] {
    return this.member.labels;
  }

  /** Of those outside only: it is put together when it is asked for. */
  get title(): string {
    const { maker, model, serial, tag } = this.member;
    return `${maker} ${model}, ${serial || tag}`;
  }
}

const NO_METHODS: readonly string[] = [];

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

/** A row as the database has it: of ten thousand, what maps each would be most of the time. */
interface FactsRow {
  readonly id: string;
  readonly modelId: string;
  readonly maker: string;
  readonly model: string;
  readonly serial: string;
  readonly kind: SetMember['kind'];
  readonly unitGroup: string | null;
  /** As text, or read already: that is the driver's to choose. */
  readonly labels: string | readonly string[] | null;
  readonly archived: number;
  readonly createdOn: string;
  readonly stale: number;
  readonly watts: number | null;
  readonly ports: number | null;
  readonly since: string | null;
  readonly measured: number | null;
  readonly shared: number | null;
  readonly form: number | null;
}

/** Rows of a query as the driver reads them, past what would map each: of tens of thousands that is most of the time. */
async function rowsOf<Row>(db: Database, query: string, values: readonly unknown[] = []): Promise<readonly Row[]> {
  const [rows] = await db.$client.query(query, [...values]);
  return rows as Row[];
}

/** Everything a rule may ask, of every sample on the shelf. */
async function factsOf(db: Database, rule: SetRule): Promise<readonly Facts[]> {
  const within = seenText('s');
  const [rows, revisions, methods] = await Promise.all([
    rowsOf<FactsRow>(
      db,
      `SELECT s.id, s.model_id AS modelId, m.maker, m.model, s.serial, s.kind, f.unit_group AS unitGroup,
        s.labels, s.archived, DATE_FORMAT(s.created_at, '%Y-%m-%d') AS createdOn, s.stale,
        f.watts, f.ports, f.since, f.measured, f.shared, f.form
        FROM samples s JOIN models m ON m.id = s.model_id LEFT JOIN figures f ON f.sample_id = s.id
        WHERE s.demo <> 'away' AND ${within.text} ORDER BY s.id`,
      within.values,
    ),
    revisionsOf(db, [EVERYONE]),
    rule.kind === 'rule' && rule.method !== null ? methodsOf(db) : new Map<string, readonly string[]>(),
  ]);
  const shared = sharedRevision(revisions);
  return rows.map((row): Facts => {
    const { labels } = row;
    const member: SetMember = {
      id: row.id,
      modelId: row.modelId,
      tag: tagOf(row.id),
      maker: row.maker,
      model: row.model,
      serial: row.serial,
      kind: row.kind,
      watts: row.watts,
      ports: row.ports ?? 0,
      since: row.since ?? row.createdOn,
      group: row.unitGroup ?? '',
      labels: labels === null ? [] : typeof labels === 'string' ? (JSON.parse(labels) as string[]) : [...labels],
    };
    const pending = row.stale === 1 || row.shared !== shared || row.form !== FIGURES_FORM;
    return new Facts(member, methods.get(row.id) ?? NO_METHODS, row.archived === 1, row.measured ?? 0, pending);
  });
}

/** Ids of a set, as it is now. */
export async function memberIds(db: Database, rule: SetRule): Promise<readonly string[]> {
  return membersOf(rule, await factsOf(db, rule)).members.map(({ id }) => id);
}

interface ValueRow {
  readonly sampleId: string;
  readonly measure: string;
  readonly condition: string;
  readonly value: number;
  readonly u: number | null;
  readonly common: number;
  readonly meters: string;
  readonly at: string | null;
  readonly below: number;
}

/** Above so many members it is quicker to read a measure whole. */
const FEW = 500;
/** So few measures are read whole while the members are still being looked for. */
const FEW_MEASURES = 3;

/** @param ids of whom; null for everybody */
async function valuesOf(
  db: Database,
  ids: readonly string[] | null,
  wanted: readonly string[],
): Promise<readonly ValueRow[]> {
  if (ids?.length === 0 || wanted.length === 0) return [];
  const few = ids !== null && ids.length <= FEW;
  return rowsOf<ValueRow>(
    db,
    `SELECT sample_id AS sampleId, measure, condition_words AS \`condition\`, value, u, common, meters, \`at\`, below
      FROM measures WHERE measure IN (?)${few ? ' AND sample_id IN (?)' : ''}`,
    few ? [wanted, ids] : [wanted],
  );
}

function columnOf(
  { measure, condition }: { readonly measure: string; readonly condition: string },
  rows: readonly ValueRow[],
  places: ReadonlyMap<string, number>,
  meters: Map<string, number>,
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
    if (row.meters !== '' && !meters.has(row.meters)) meters.set(row.meters, meters.size);
    column.of.push(place);
    column.value.push(row.value);
    column.u.push(row.u);
    column.common.push(row.common);
    column.meters.push(meters.get(row.meters) ?? -1);
    column.below.push(row.below === 1);
    column.at.push(row.at);
  }
  return column;
}

interface FateRow {
  readonly id: string;
  readonly fate: Fate;
  readonly day: string;
}

/** What became of members, from what amended their reports. */
async function fatesIn(db: Database, members: readonly Facts[]): Promise<SetAnswer['fates']> {
  const since = new Map(members.map((one) => [one.id, one.since]));
  const rows = await rowsOf<FateRow>(
    db,
    `SELECT sample_id AS id, fate, DATE_FORMAT(issued_at, '%Y-%m-%d') AS day FROM reports WHERE fate IS NOT NULL ORDER BY issued_at`,
  );
  return rows.flatMap(({ id, fate, day }) => {
    const from = since.get(id);
    return from === undefined ? [] : [{ id, since: from.slice(0, 10), on: day, failed: fate !== 'held up well' }];
  });
}

/**
 * The set of a rule, and values of measures. A measure without a condition takes the one most members share; values under another
 * are left out, never mixed in.
 */
export async function lookAtSet(db: Database, rule: SetRule, wanted: readonly WantedMeasure[]): Promise<SetAnswer> {
  const names = [...new Set(wanted.map(({ measure }) => measure))].filter((measure) => !measure.startsWith('own-'));
  const whole = rule.kind === 'rule' && names.length <= FEW_MEASURES;
  const [all, everybody] = await Promise.all([factsOf(db, rule), whole ? valuesOf(db, null, names) : null]);
  const { members, out } = membersOf(rule, all);
  const places = new Map(members.map(({ id }, place) => [id, place]));
  const rows =
    everybody ??
    (await valuesOf(
      db,
      members.map(({ id }) => id),
      names,
    ));
  const byMeasure = new Map(names.map((measure) => [measure, [] as ValueRow[]]));
  for (const row of rows) if (places.has(row.sampleId)) byMeasure.get(row.measure)?.push(row);
  const conditions = names.map((measure) => ({
    measure,
    shared: sharedConditions(
      (byMeasure.get(measure) ?? []).map(({ sampleId, condition }) => ({ id: sampleId, condition })),
    ).slice(0, MOST_CONDITIONS),
  }));
  const meters = new Map<string, number>();
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
    meters: [...meters.keys()],
    fates: await fatesIn(db, members),
    // Who is not worked out yet may belong to it as well.
    pending: all.some(({ pending }) => pending),
  };
}
