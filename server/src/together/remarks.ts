// Remarks: notes, questions with their answers, and a second pair of eyes on a reading or a report. Only ever added.

import type { OpenRemark, Remark, RemarkInput } from '@lastmark/contract';
import { and, asc, desc, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/mysql-core';
import type { Database, Queries } from '../db/database.ts';
import { claims, models, people, points, readings, remarks, reports, samples } from '../db/schema.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { FORGOTTEN } from '../log/search.ts';
import { knownPeople, seen } from '../seen/seen.ts';
import { type Who, wasRepeated } from '../who/who.ts';

const MOST_LISTED = 1000;
const MOST_OPEN = 100;
/** What was said to somebody is listed so long, days. */
const RECENT_DAYS = 14;

type Row = typeof remarks.$inferSelect;

const toRemark = ({ madeAt, ...row }: Row, name: string | null): Remark => ({
  ...row,
  who: row.who || name || FORGOTTEN,
  madeAt: madeAt.toISOString(),
});

export async function listRemarks(db: Queries, sampleId: string): Promise<Remark[]> {
  const rows = await db
    .select({ remark: remarks, name: people.name })
    .from(remarks)
    .leftJoin(people, eq(people.id, remarks.author))
    .where(eq(remarks.sampleId, sampleId))
    .orderBy(asc(remarks.id))
    .limit(MOST_LISTED);
  return rows.map(({ remark, name }) => toRemark(remark, name));
}

/** Whose work a thing is, where it is of the sample. @returns undefined where it is not; null where nobody is known */
async function authorOf(
  db: Queries,
  sampleId: string,
  { about, aboutId }: Pick<RemarkInput, 'about' | 'aboutId'>,
): Promise<string | null | undefined> {
  if (about === 'sample') {
    const [row] = await db.select({ id: samples.id }).from(samples).where(eq(samples.id, aboutId));
    return row?.id === sampleId ? null : undefined;
  }
  if (about === 'claim') {
    const [row] = await db
      .select({ id: claims.id })
      .from(claims)
      .innerJoin(samples, eq(samples.modelId, claims.modelId))
      .where(and(eq(claims.id, aboutId), eq(samples.id, sampleId)));
    return row ? null : undefined;
  }
  if (about === 'reading') {
    const [row] = await db
      .select({ author: readings.author })
      .from(readings)
      .innerJoin(points, eq(points.id, readings.pointId))
      .where(and(eq(readings.id, aboutId), eq(points.sampleId, sampleId)));
    return row?.author;
  }
  const [row] = await db
    .select({ author: reports.author })
    .from(reports)
    .where(and(eq(reports.id, aboutId), eq(reports.sampleId, sampleId)));
  return row?.author;
}

const ABOUT_WORDS = { sample: 'sample', claim: 'claim', reading: 'reading', report: 'report' } as const;

async function check(db: Queries, sampleId: string, input: RemarkInput, who: Who): Promise<void> {
  const author = await authorOf(db, sampleId, input);
  if (author === undefined)
    throw refused('remark.aboutId', `This ${ABOUT_WORDS[input.about]} is not of the sample, or is gone.`);
  if (input.kind === 'witness') {
    if (input.about !== 'reading' && input.about !== 'report')
      throw refused('remark.kind', 'A second pair of eyes is for a reading or a report.');
    if (who.id === null) throw conflict('A second pair of eyes needs people who are told apart on this server.');
    if (author === who.id) throw conflict('This is your own. A second pair of eyes is somebody else’s.');
  } else if (input.text.trim() === '') throw refused('remark.text', 'Remark is empty.');
  if ((input.kind === 'answer') !== (input.answers !== null))
    throw refused('remark.answers', 'An answer names its question, and nothing else does.');
  if (input.answers !== null) {
    const [question] = await db.select().from(remarks).where(eq(remarks.id, input.answers));
    if (question?.sampleId !== sampleId || question.kind !== 'question')
      throw refused('remark.answers', 'This is no question about the sample.');
  }
  if (input.mentions.length > 0) {
    const known = await db
      .select({ id: people.id })
      .from(people)
      .where(and(inArray(people.id, [...input.mentions]), knownPeople(db)));
    if (known.length < new Set(input.mentions).size) throw refused('remark.mentions', 'Somebody named is not here.');
  }
}

/** Say something. The same id again changes nothing. */
export async function addRemark(db: Database, sampleId: string, input: RemarkInput, who: Who): Promise<Remark> {
  return db.transaction(async (tx) => {
    const [sample] = await tx.select({ id: samples.id }).from(samples).where(eq(samples.id, sampleId));
    if (!sample) throw notFound('sample');
    const [there] = await tx.select().from(remarks).where(eq(remarks.id, input.id));
    if (there) {
      if (there.sampleId !== sampleId || there.text !== input.text.trim())
        throw conflict('Another remark has this id.');
      wasRepeated();
      return toRemark(there, who.name);
    }
    await check(tx, sampleId, input, who);
    const row = {
      ...input,
      text: input.text.trim(),
      sampleId,
      who: who.id === null ? who.name : '',
      madeAt: new Date(),
    };
    await tx.insert(remarks).values(row);
    return toRemark({ ...row, author: who.id }, who.name);
  });
}

/** Questions nobody answered, and what was said to somebody lately, the newest first. */
export async function listOpenRemarks(db: Queries, who: Who): Promise<OpenRemark[]> {
  const answer = alias(remarks, 'answer');
  const open = and(eq(remarks.kind, 'question'), isNull(answer.id));
  const mine = and(
    sql`JSON_CONTAINS(${remarks.mentions}, JSON_QUOTE(${who.id ?? ''}))`,
    sql`${remarks.madeAt} > UTC_TIMESTAMP(3) - INTERVAL ${sql.raw(String(RECENT_DAYS))} DAY`,
  );
  const rows = await db
    .select({ remark: remarks, name: people.name, maker: models.maker, model: models.model, serial: samples.serial })
    .from(remarks)
    .innerJoin(samples, eq(samples.id, remarks.sampleId))
    .innerJoin(models, eq(models.id, samples.modelId))
    .leftJoin(people, eq(people.id, remarks.author))
    .leftJoin(answer, eq(answer.answers, remarks.id))
    .where(and(who.id === null ? open : or(open, mine), seen()))
    .groupBy(remarks.id)
    .orderBy(desc(remarks.id))
    .limit(MOST_OPEN);
  return rows.map(({ remark, name, maker, model, serial }) => ({
    ...toRemark(remark, name),
    sample: [maker, model, serial].filter(Boolean).join(' '),
  }));
}
