// Keeps what is being typed in this browser until the server has it.
import { useCallback, useState } from 'react';
import { PRACTISING } from '../api/world.ts';

const PREFIX = PRACTISING ? 'lastmark.practice.' : 'lastmark.draft.';

export function readDraft<T>(key: string): T | null {
  try {
    const text = localStorage.getItem(PREFIX + key);
    return text === null ? null : (JSON.parse(text) as T);
  } catch {
    return null;
  }
}

export function writeDraft(key: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(PREFIX + key);
    else localStorage.setItem(PREFIX + key, JSON.stringify(value));
  } catch {
    // A full or forbidden store loses the copy, not the field itself.
  }
}

/** State that survives a reload or a failed page. `clear` forgets the copy once the server has it. */
export function useDraft<T>(
  key: string,
  initial: T,
): { value: T; set: (value: T) => void; clear: () => void; restored: boolean } {
  const [found] = useState(() => readDraft<T>(key));
  const [value, setValue] = useState<T>(found ?? initial);
  const set = useCallback(
    (next: T) => {
      setValue(next);
      writeDraft(key, next);
    },
    [key],
  );
  const clear = useCallback(() => writeDraft(key, null), [key]);
  return { value, set, clear, restored: found !== null };
}
