// What a run does by itself, told in the log with what it changes: in the name of whoever began it.

import type { StepOutcome } from '@lastmark/contract';
import type { SheetStep } from '@lastmark/core/plan';
import type { Queries } from '../db/database.ts';
import { keptOf, plainDeed, writeEntry } from '../log/write.ts';
import { doingNow, SERVER } from '../who/who.ts';

type Told = 'finishStep' | 'holdRun' | 'endRun' | 'interruptRun';

/** @param db inside the transaction that does it @param made ids of what it made */
export async function tellOfRun(
  db: Queries,
  operation: Told,
  runId: string,
  sent: Readonly<Record<string, unknown>>,
  made: readonly string[] = [],
): Promise<void> {
  const { who, sampleId = null } = doingNow() ?? { who: SERVER };
  await writeEntry(db, plainDeed(who, operation, { subject: runId, sampleId, things: [runId], ...keptOf(sent) }), made);
}

/** A step is over. */
export const tellOfStep = (
  db: Queries,
  runId: string,
  step: SheetStep,
  { state, says, madeIds }: Omit<StepOutcome, 'at'>,
) => tellOfRun(db, 'finishStep', runId, { step: step.title, outcome: state, note: says }, madeIds);
