// New ids: ULIDs, sortable by the moment they were made.
import { monotonicFactory } from 'ulid';
import { wasMade } from '../who/who.ts';

let next = monotonicFactory();

/** A fresh id. */
export function newId(): string {
  const id = next();
  wasMade(id);
  return id;
}

/**
 * Make ids reproducible while `work` runs, for the demo: the same seed and start give the same ids.
 * Only for use before the server listens, since it holds for the whole process.
 */
export async function withSeededIds<T>(random: () => number, start: Date, work: () => Promise<T>): Promise<T> {
  const ordinary = next;
  const seeded = monotonicFactory(random);
  let moment = start.getTime();
  next = () => {
    moment += 1;
    return seeded(moment);
  };
  try {
    return await work();
  } finally {
    next = ordinary;
  }
}
