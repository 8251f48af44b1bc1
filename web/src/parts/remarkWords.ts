// Remarks put in order: questions with their answers, and who looked a second time.
import type { Remark } from '@lastmark/contract/together';

/** A remark with what answers it. */
export interface Thread {
  readonly remark: Remark;
  readonly answers: readonly Remark[];
}

/** Questions that are open first, then the newest first; answers stand below their question. */
export function threadsOf(remarks: readonly Remark[]): readonly Thread[] {
  const threads = remarks
    .filter(({ kind }) => kind === 'note' || kind === 'question')
    .map((remark) => ({ remark, answers: remarks.filter(({ answers }) => answers === remark.id) }));
  const rank = ({ remark, answers }: Thread): number => (remark.kind === 'question' && answers.length === 0 ? 0 : 1);
  return threads.sort((a, b) => rank(a) - rank(b) || (a.remark.id < b.remark.id ? 1 : -1));
}

/** Whether a question waits for an answer. */
export const isOpenQuestion = ({ remark, answers }: Thread): boolean =>
  remark.kind === 'question' && answers.length === 0;

/** Names of those who looked at a thing a second time, each once. */
export const witnessesOf = (remarks: readonly Remark[], aboutId: string): readonly Remark[] =>
  remarks.filter(
    (one, at) =>
      one.kind === 'witness' &&
      one.aboutId === aboutId &&
      remarks.findIndex(
        ({ kind, aboutId: id, author }) => kind === 'witness' && id === aboutId && author === one.author,
      ) === at,
  );
