// Taking back what is only ever added, and putting it back: the raw one stays, whatever comes after it.
import { type RunChange, runChanges } from '@lastmark/core/run';
import { type UseMutationResult, useMutation } from '@tanstack/react-query';
import { ulid } from 'ulid';
import { useNotify } from '../state/notices.tsx';

interface Kept {
  readonly id: string;
  readonly takenAt: string;
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

export interface KeptChanges<T extends Kept> {
  readonly withdraw: UseMutationResult<unknown, Error, T>;
  /** What was corrected or taken back, and may be put back. */
  readonly changes: readonly RunChange<T>[];
  readonly restore: UseMutationResult<unknown, Error, RunChange<T>>;
}

/**
 * @param all everything kept of the kind, corrected ones included
 * @param send adds one
 * @param settle asks anew for what shows it
 */
export function useKept<T extends Kept>(
  all: readonly T[],
  send: (one: T) => Promise<unknown>,
  settle: () => Promise<unknown>,
): KeptChanges<T> {
  const notify = useNotify();
  const onError = (error: Error) => notify(error.message);
  const withdraw = useMutation({
    mutationFn: (one: T) => send({ ...one, id: ulid(), supersedes: one.id, withdrawn: true }),
    onSuccess: (_answer, one) =>
      notify('Taken back.', () => {
        void send({ ...one, id: ulid(), supersedes: null }).then(settle, onError);
      }),
    onError,
    onSettled: settle,
  });
  const restore = useMutation({
    mutationFn: ({ was, now }: RunChange<T>) => send({ ...was, id: ulid(), supersedes: now.withdrawn ? null : now.id }),
    onError,
    onSettled: settle,
  });
  return { withdraw, changes: runChanges(all).filter(({ standing }) => standing), restore };
}
