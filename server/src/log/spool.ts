// Entries the database has not taken yet, in a file: a server that ends meanwhile leaves them to the next one on its machine.
import { appendFile, mkdir, readdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { isAlive } from '../alive.ts';
import type { Deed } from '../who/who.ts';

/** An entry on its way to the log. */
export interface Waiting {
  readonly deed: Deed;
  /** Ids of what was made by it. */
  readonly made: readonly string[];
  /** When it was done, ISO. */
  readonly at: string;
}

const NAME = /^(\d+)\.jsonl$/;
/** Only whoever runs the server reads it. */
const PRIVATE = 0o600;

/** A line as it was written; null for one that was torn by the end of the server, or is something else. */
function read(line: string): Waiting | null {
  try {
    const { deed, made, at } = JSON.parse(line) as Partial<Waiting>;
    return typeof deed?.id === 'string' && Array.isArray(made) && typeof at === 'string' ? { deed, made, at } : null;
  } catch {
    return null;
  }
}

export class Spool {
  readonly #folder: string;
  readonly #pid: number;
  /** One after the other. */
  #turn: Promise<unknown> = Promise.resolve();

  /** @param folder made when there is something to keep @param pid of this server */
  constructor(folder: string, pid = process.pid) {
    this.#folder = folder;
    this.#pid = pid;
  }

  get file(): string {
    return join(this.#folder, `${this.#pid}.jsonl`);
  }

  #next<T>(work: () => Promise<T>): Promise<T> {
    const done = this.#turn.then(work);
    this.#turn = done.catch(() => undefined);
    return done;
  }

  add(entry: Waiting): Promise<void> {
    return this.#next(async () => {
      await mkdir(this.#folder, { recursive: true });
      await appendFile(this.file, `${JSON.stringify(entry)}\n`, { mode: PRIVATE, flush: true });
    });
  }

  /** Everything in it was taken. */
  clear(): Promise<void> {
    return this.#next(() => rm(this.file, { force: true }));
  }

  /** What servers left that are not there any more, a file each. @returns what is in them, and how to let them go */
  async left(): Promise<readonly { readonly entries: readonly Waiting[]; readonly letGo: () => Promise<void> }[]> {
    const names = await readdir(this.#folder).catch(() => [] as string[]);
    const theirs = names.filter((name) => {
      const pid = Number(NAME.exec(name)?.[1] ?? Number.NaN);
      return Number.isInteger(pid) && (pid === this.#pid || !isAlive(pid));
    });
    return Promise.all(
      theirs.map(async (name) => {
        const path = join(this.#folder, name);
        const lines = (await readFile(path, 'utf8')).split('\n').filter(Boolean);
        return { entries: lines.flatMap((line) => read(line) ?? []), letGo: () => rm(path, { force: true }) };
      }),
    );
  }
}
