// Backups by themselves: made, brought back once and compared, by the script a person would use, on one server at a time.
import { readdirSync } from 'node:fs';
import type { Logger } from 'pino';
import type { Database } from '../db/database.ts';
import { runScript } from '../db/script.ts';
import { takeTurn } from '../leases/turn.ts';

const WHAT = 'backup';
const HOUR = 3_600_000;
const LOOK_MILLISECONDS = 60_000;
/** The turn is taken again while a backup is being made, ms. */
const HOLD_MILLISECONDS = 5000;
/** After one that failed, ms. */
const AGAIN_MILLISECONDS = HOUR;
const NAME = /^auto-(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})-(\d{3})Z\.sql\.gz(\.sealed)?$/;

export interface BackupParts {
  readonly db: Database;
  readonly databaseUrl: string;
  readonly log: Logger;
  readonly owner: string;
  /** Where they are kept. */
  readonly folder: string;
  /** How often one is made, hours. */
  readonly hours: number;
}

/** When the newest in a folder was made, ms since 1970; null for none. */
export function newestBackup(folder: string): number | null {
  let names: string[];
  try {
    names = readdirSync(folder);
  } catch {
    return null;
  }
  const times = names.flatMap((name) => {
    const [, day, hour, minute, second, rest] = NAME.exec(name) ?? [];
    return day ? [Date.parse(`${day}T${hour}:${minute}:${second}.${rest}Z`)] : [];
  });
  return times.length === 0 ? null : Math.max(...times);
}

export class BackupKeeper {
  readonly #parts: BackupParts;
  #timer: NodeJS.Timeout | null = null;
  #going: Promise<void> = Promise.resolve();
  #stop: (() => void) | null = null;
  #closed = false;
  #failed = Number.NEGATIVE_INFINITY;

  constructor(parts: BackupParts) {
    this.#parts = parts;
  }

  /** @param after how long it waits before it looks first, ms */
  watch(after = LOOK_MILLISECONDS): void {
    if (this.#closed) return;
    this.#timer = setTimeout(() => {
      this.#going = this.#look().finally(() => this.watch());
    }, after).unref();
  }

  /** Age of the newest, s; null for none. */
  age(): number | null {
    const newest = newestBackup(this.#parts.folder);
    return newest === null ? null : (Date.now() - newest) / 1000;
  }

  /** Whether the newest is so old that another is to be made. */
  isDue(): boolean {
    const { folder, hours } = this.#parts;
    return Date.now() - (newestBackup(folder) ?? 0) >= hours * HOUR;
  }

  async #look(): Promise<void> {
    const { db, owner, log } = this.#parts;
    if (!this.isDue() || Date.now() - this.#failed < AGAIN_MILLISECONDS) return;
    try {
      if (!(await takeTurn(db, WHAT, owner)) || !this.isDue() || this.#closed) return;
      const hold = setInterval(() => void takeTurn(db, WHAT, owner).catch(() => undefined), HOLD_MILLISECONDS);
      try {
        await this.#make();
      } finally {
        clearInterval(hold);
      }
    } catch (error) {
      if (this.#closed) return;
      this.#failed = Date.now();
      log.error({ err: error }, 'the backup failed; it is tried again in an hour');
    }
  }

  /** @throws Error with what the script said */
  async #make(): Promise<void> {
    const { databaseUrl, folder, log } = this.#parts;
    const { ended, stop } = runScript('db-keep', [], { DATABASE_URL: databaseUrl, LASTMARK_BACKUP_FOLDER: folder });
    this.#stop = stop;
    const { status, complaint } = await ended;
    this.#stop = null;
    if (status !== 0) throw new Error(complaint || `ended with ${status}`);
    log.info('backed up, brought back once and compared');
  }

  async close(): Promise<void> {
    this.#closed = true;
    if (this.#timer) clearTimeout(this.#timer);
    this.#stop?.();
    await this.#going;
  }
}
