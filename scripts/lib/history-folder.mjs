// Where every change of a private database is kept (MariaDB's binary log), and for how long.
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const DAYS = 8;
/** Where changes of a data folder are kept. */
export const historyFolder = (folder) => join(folder, 'changes');

/** What tells the changes of these tables from those of tables that stood here before. */
export function seriesOf(folder) {
  const path = join(historyFolder(folder), 'series');
  if (!existsSync(path)) writeFileSync(path, randomBytes(8).toString('hex'), { mode: 0o600 });
  return readFileSync(path, 'utf8');
}

/** Days for which changes are kept; 0 for none. @throws Error for what is no number of days */
export function historyDays() {
  const told = process.env.LASTMARK_HISTORY ?? String(DAYS);
  const days = Number(told);
  if (!Number.isInteger(days) || days < 0 || days > 90)
    throw new Error(`LASTMARK_HISTORY is "${told}"; give the days for which every change is kept, 0 for none.`);
  return days;
}

/** Forget all changes: the tables were put in place of others, and nothing of before leads to them. */
export const forgetHistory = (folder) => rmSync(historyFolder(folder), { recursive: true, force: true });
