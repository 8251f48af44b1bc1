// Real devices that serve as loads, with what they take at most.
import type { DeviceInput, StoredDevice } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import { changedForAll } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { devices } from '../db/schema.ts';
import { notFound } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';

export async function listDevices(db: Queries): Promise<StoredDevice[]> {
  const rows = await db.select().from(devices).orderBy(devices.id);
  return rows.map(({ id, facts, version }) => ({ id, ...facts, version }));
}

export async function createDevice(db: Database, facts: DeviceInput): Promise<StoredDevice> {
  const id = newId();
  await db.transaction(async (tx) => {
    await tx.insert(devices).values({ id, facts });
    await changedForAll(tx, 'devices');
  });
  return { id, ...facts, version: 1 };
}

export async function updateDevice(
  db: Database,
  id: string,
  facts: DeviceInput,
  seen: string | null,
): Promise<StoredDevice> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(devices).where(eq(devices.id, id)).for('update');
    if (!row) throw notFound('device');
    requireMatch(seen, etagOf(row.version), 'device');
    const version = row.version + 1;
    await tx.update(devices).set({ facts, version }).where(eq(devices.id, id));
    await changedForAll(tx, 'devices');
    return { id, ...facts, version };
  });
}
