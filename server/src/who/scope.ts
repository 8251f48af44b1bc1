// Which samples whoever asks may see, known wherever samples are read: from the door of a request to the thread of a job.
import { AsyncLocalStorage } from 'node:async_hooks';

/** What of the shelf somebody sees. */
export interface Scope {
  /** Whether they see what is in none of the collections named. */
  readonly rest: boolean;
  /** Collections that are the other way round. */
  readonly but: readonly string[];
}

const store = new AsyncLocalStorage<Scope | null>();

/** Do something with the shelf as somebody sees it; null sees all of it. */
export const withScope = <T>(scope: Scope | null, work: () => T): T => store.run(scope, work);

/** What is seen here; null for everything: the server itself sees to all samples. */
export const scopeNow = (): Scope | null => store.getStore() ?? null;
