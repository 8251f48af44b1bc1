// Methods: those that ship, and those this bench wrote, version by version. A sheet names the version it was made by.
import type { MethodInput, StoredMethod } from '@lastmark/contract';
import { METHODS, type Method, methodOf, methodProblems } from '@lastmark/core/plan';
import { and, desc, eq } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { methods, methodVersions } from '../db/schema.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';

/** Those that ship have one version: another one would be another program. */
const SHIPPED_VERSION = 1;

const shipped = ({ id, ...method }: Method): StoredMethod => ({
  id,
  version: SHIPPED_VERSION,
  builtIn: true,
  retired: false,
  method,
  note: '',
  createdAt: null,
});

type VersionRow = typeof methodVersions.$inferSelect;

const toMethod = ({ methodId, version, body, note, createdAt }: VersionRow, retired: boolean): StoredMethod => ({
  id: methodId,
  version,
  builtIn: false,
  retired,
  method: body,
  note,
  createdAt: createdAt.toISOString(),
});

/** Every method as it is now, those that ship first. */
export async function listMethods(db: Queries): Promise<StoredMethod[]> {
  const rows = await db
    .select({ row: methodVersions, retired: methods.retired })
    .from(methods)
    .innerJoin(
      methodVersions,
      and(eq(methodVersions.methodId, methods.id), eq(methodVersions.version, methods.version)),
    )
    .orderBy(methods.id);
  return [...METHODS.map(shipped), ...rows.map(({ row, retired }) => toMethod(row, retired))];
}

/** Every version of one, the newest first. @throws 404 */
export async function listMethodVersions(db: Queries, id: string): Promise<StoredMethod[]> {
  const own = methodOf(id);
  if (own) return [shipped(own)];
  const [head] = await db.select().from(methods).where(eq(methods.id, id));
  if (!head) throw notFound('method');
  const rows = await db
    .select()
    .from(methodVersions)
    .where(eq(methodVersions.methodId, id))
    .orderBy(desc(methodVersions.version));
  return rows.map((row) => toMethod(row, head.retired));
}

/** A method as it is now, to make sheets by. @returns null for one nobody knows, or that is retired */
export async function methodNow(
  db: Queries,
  id: string,
): Promise<{ readonly method: Method; readonly version: number } | null> {
  const own = methodOf(id);
  if (own) return { method: own, version: SHIPPED_VERSION };
  const [found] = await db
    .select({ body: methodVersions.body, version: methodVersions.version })
    .from(methods)
    .innerJoin(
      methodVersions,
      and(eq(methodVersions.methodId, methods.id), eq(methodVersions.version, methods.version)),
    )
    .where(and(eq(methods.id, id), eq(methods.retired, false)));
  return found ? { method: { ...found.body, id }, version: found.version } : null;
}

/** @throws 422 with every problem, each with what to do */
function check({ method }: MethodInput): void {
  const problems = methodProblems(method);
  if (problems.length > 0) throw refused('method', problems.join(' '));
}

export async function createMethod(db: Database, input: MethodInput): Promise<StoredMethod> {
  check(input);
  const row = { methodId: newId(), version: 1, body: input.method, note: input.note, createdAt: new Date() };
  await db.transaction(async (tx) => {
    await tx.insert(methods).values({ id: row.methodId });
    await tx.insert(methodVersions).values(row);
  });
  return toMethod(row, false);
}

async function locked(tx: Queries, id: string, seen: string | null): Promise<typeof methods.$inferSelect> {
  if (methodOf(id)) throw conflict('This method ships with Lastmark and stays as it is. Copy it, and change the copy.');
  const [head] = await tx.select().from(methods).where(eq(methods.id, id)).for('update');
  if (!head) throw notFound('method');
  requireMatch(seen, etagOf(head.version), 'method');
  return head;
}

/** A new version; a method that was retired is in use again. */
export async function updateMethod(
  db: Database,
  id: string,
  input: MethodInput,
  seen: string | null,
): Promise<StoredMethod> {
  check(input);
  return db.transaction(async (tx) => {
    const { version: before } = await locked(tx, id, seen);
    const row = { methodId: id, version: before + 1, body: input.method, note: input.note, createdAt: new Date() };
    await tx.insert(methodVersions).values(row);
    await tx.update(methods).set({ version: row.version, retired: false }).where(eq(methods.id, id));
    return toMethod(row, false);
  });
}

/** Its versions stay: sheets were made by them. */
export async function retireMethod(db: Database, id: string, seen: string | null): Promise<void> {
  await db.transaction(async (tx) => {
    await locked(tx, id, seen);
    await tx.update(methods).set({ retired: true }).where(eq(methods.id, id));
  });
}
