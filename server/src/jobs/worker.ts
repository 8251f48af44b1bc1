// A worker thread: a connection of its own to the database, and one job after the other.
import { setPriority } from 'node:os';
import { workerData } from 'node:worker_threads';
import type { Problem } from '@lastmark/contract';
import { type Connection, connect } from '../db/database.ts';
import { toProblem } from '../http/problem.ts';
import { writeEntry } from '../log/write.ts';
import { type Scope, withScope } from '../who/scope.ts';
import { type Deed, inDeed } from '../who/who.ts';
import { JOBS, type JobName } from './table.ts';

/** How a job ended, as plain data: an error's own kind does not survive the way between threads. */
export type Ended = { readonly result: unknown } | { readonly problem: Problem };

const CONNECTIONS = 3;
/** On Linux this holds for the calling thread alone: jobs give way to the thread that holds the loads. */
const NICE = 10;
try {
  setPriority(NICE);
} catch {
  // Where it may not be set, everything works all the same.
}
let connection: Connection | null = null;

interface Task {
  readonly name: JobName;
  readonly needs: unknown;
  /** What it is part of; null for what is nobody's. */
  readonly deed: Deed | null;
  /** What whoever asked sees of the shelf; null for all. */
  readonly scope: Scope | null;
}

export default async function carryOut({ name, needs, deed, scope }: Task): Promise<Ended> {
  connection ??= connect((workerData as { databaseUrl: string }).databaseUrl, CONNECTIONS);
  try {
    const work = JOBS[name].work as (db: Connection['db'], needs: unknown) => Promise<unknown>;
    const { db } = connection;
    const seen = () => withScope(scope, () => work(db, needs));
    return { result: deed ? (await inDeed(deed, writeEntry, seen)).result : await seen() };
  } catch (error) {
    const problem = toProblem(error);
    // What nobody foresaw is told with its details to the log, by the thread that has it.
    if (problem.status >= 500) throw error;
    return { problem };
  }
}
