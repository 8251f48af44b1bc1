// Two reports of the Fernwall shelf, one of them amended after its unit failed.

import { updateConclusion } from '../conclusions/store.ts';
import type { Database } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { issueReport } from '../reports/issue.ts';
import { sampleOf } from './shelf.ts';

const KEEPER = 'Keeper of the workshop';

export async function seedReports(db: Database): Promise<void> {
  const ember = await sampleOf(db, 'TE-45-0117');
  const trio = await sampleOf(db, 'PT-75-3310');
  if (ember)
    await issueReport(
      db,
      ember,
      { kind: 'first', id: newId(), language: 'en', person: KEEPER },
      new Date('2026-03-09T09:00:00.000Z'),
    );
  if (!trio) return;
  const words = {
    en: 'For the huts: one laptop at a time, and not on a bunk.',
    de: 'Für die Hütten: ein Laptop auf einmal, und nicht auf der Koje.',
  };
  await updateConclusion(db, trio, { lines: [{ kind: 'own', id: newId(), text: words }] }, '"v0"');
  const id = newId();
  await issueReport(
    db,
    trio,
    { kind: 'first', id, language: 'de', person: KEEPER },
    new Date('2026-03-10T14:30:00.000Z'),
  );
  await issueReport(
    db,
    trio,
    {
      kind: 'follow-up',
      id: newId(),
      language: 'de',
      person: KEEPER,
      amends: id,
      fate: 'died',
      reason: 'After six months in the upper hut C1 gave nothing any more; the other ports still charge.',
    },
    new Date('2026-09-14T08:15:00.000Z'),
  );
}
