// Words people wrote in conclusions before, offered again: their own sentences, and wordings of drafted ones.

import type { Phrase } from '@lastmark/contract';
import type { ConclusionLine, Language } from '@lastmark/core/conclusion';
import { and, desc, eq, ne } from 'drizzle-orm';
import type { Queries } from '../db/database.ts';
import { conclusions, samples } from '../db/schema.ts';
import { seen } from '../seen/seen.ts';

/** Conclusions that are looked through, the newest first, and phrases that are offered. */
const MOST_CONCLUSIONS = 500;
const MOST_PHRASES = 100;

/** What one line is worded as in a language; null where nobody worded it. */
const wordingOf = (line: ConclusionLine, language: Language): Omit<Phrase, 'uses'> | null => {
  const text = line.text[language]?.trim();
  return text ? { sentence: line.kind === 'own' ? null : line.sentence, text } : null;
};

/** The phrases of a language, those used most first, and among those the newest. */
export async function listPhrases(db: Queries, language: Language): Promise<Phrase[]> {
  const rows = await db
    .select({ lines: conclusions.lines })
    .from(conclusions)
    .innerJoin(samples, eq(samples.id, conclusions.sampleId))
    .where(and(ne(samples.demo, 'away'), seen()))
    .orderBy(desc(conclusions.updatedAt))
    .limit(MOST_CONCLUSIONS);
  const found = new Map<string, Phrase>();
  for (const line of rows.flatMap(({ lines }) => lines)) {
    const own = wordingOf(line, language);
    if (!own) continue;
    const key = `${own.sentence ?? ''} ${own.text}`;
    const known = found.get(key);
    if (known) known.uses += 1;
    else found.set(key, { ...own, uses: 1 });
  }
  return [...found.values()].sort((a, b) => b.uses - a.uses).slice(0, MOST_PHRASES);
}
