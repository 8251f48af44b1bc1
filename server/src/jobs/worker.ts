// A worker thread: connections of its own to the database of a job, and one job after the other.
import { setPriority } from 'node:os';
import type { Problem } from '@lastmark/contract';
import { type Connection, connect } from '../db/database.ts';
import { toProblem } from '../http/problem.ts';
import { writeEntry } from '../log/write.ts';
import { type Scope, withScope } from '../who/scope.ts';
import { type Deed, inDeed } from '../who/who.ts';
import { JOBS, type JobName, type Lane } from './table.ts';

/** How a job ended, as plain data: an error's own kind does not survive the way between threads. */
export type Ended = { readonly result: unknown } | { readonly problem: Problem };

const CONNECTIONS = 3;
/** Jobs give way to the thread that holds the loads; those nobody waits for give way to those somebody does. */
const NICE: Readonly<Record<Lane, number>> = { screen: 4, file: 4, background: 10 };
let polite = false;
/** On Linux this holds for the calling thread alone. A thread serves one lane as long as it lives. */
function giveWay(lane: Lane): void {
  if (polite) return;
  polite = true;
  try {
    setPriority(NICE[lane]);
  } catch {
    // Where it may not be set, everything works all the same.
  }
}
let open: { readonly url: string; readonly connection: Connection } | null = null;

export interface Task {
  readonly name: JobName;
  readonly needs: object;
  /** The database it is done on. */
  readonly databaseUrl: string;
  /** What it is part of; null for what is nobody's. */
  readonly deed: Deed | null;
  /** What whoever asked sees of the shelf; null for all. */
  readonly scope: Scope | null;
}

async function connectionTo(url: string): Promise<Connection> {
  if (open?.url === url) return open.connection;
  // A database that is gone by now keeps nobody from the next.
  await open?.connection.pool.end().catch(() => undefined);
  open = { url, connection: connect(url, CONNECTIONS) };
  return open.connection;
}

export default async function carryOut({ name, needs, databaseUrl, deed, scope }: Task): Promise<Ended> {
  giveWay(JOBS[name].lane);
  const { db } = await connectionTo(databaseUrl);
  try {
    const work = JOBS[name].work as (db: Connection['db'], needs: unknown) => Promise<unknown>;
    const seen = () => withScope(scope, () => work(db, needs));
    return { result: deed ? (await inDeed(deed, writeEntry, seen)).result : await seen() };
  } catch (error) {
    const problem = toProblem(error);
    // What nobody foresaw is told with its details to the log, by the thread that has it.
    if (problem.status >= 500) throw error;
    return { problem };
  }
}
