// A reading between its row and the core.
import type { Reading } from '@lastmark/core/reading';
import type { readings } from '../db/schema.ts';

/** A reading row as the core knows it. */
export const toReading = (row: typeof readings.$inferSelect): Reading => ({
  id: row.id,
  quantity: row.quantity,
  place: row.place,
  port: row.port,
  value: row.value,
  u: row.u,
  count: row.count,
  spread: row.spread,
  typed: row.typed,
  instrumentId: row.instrumentId,
  takenAt: row.takenAt.toISOString(),
  source: row.source,
  supersedes: row.supersedes,
  overdue: row.overdue,
  because: row.because,
  ...(row.author === null ? null : { author: row.author }),
});
