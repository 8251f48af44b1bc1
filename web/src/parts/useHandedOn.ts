// What is typed and kept by Enter leaves its field at once, so the next can be typed: it waits its turn behind what is
// on its way, survives a reload until the server has it, and comes back to the field if it is refused.
import { useCallback, useRef, useState } from 'react';
import { readDraft, writeDraft } from './useDraft.ts';

export interface HandedOn<T> {
  readonly value: T;
  readonly set: (value: T) => void;
  /** Keeps `gone` in its turn; `left` stays in the field. */
  readonly hand: (gone: T, left: T, keep: () => Promise<unknown>) => void;
}

/**
 * @param key names the copy in this browser
 * @param empty the field with nothing in it
 * @param together what stands in the field when what was refused comes back before what was typed since
 */
export function useHandedOn<T>(key: string, empty: T, together: (refused: T, since: T) => T): HandedOn<T> {
  const [value, setValue] = useState<T>(() => readDraft<T>(key) ?? empty);
  const now = useRef(value);
  const away = useRef<readonly T[]>([]);
  const turn = useRef<Promise<void>>(Promise.resolve());
  const show = useCallback(
    (next: T) => {
      now.current = next;
      setValue(next);
      const whole = away.current.reduceRight((since, one) => together(one, since), next);
      writeDraft(key, JSON.stringify(whole) === JSON.stringify(empty) ? null : whole);
    },
    [key, empty, together],
  );
  const hand = useCallback(
    (gone: T, left: T, keep: () => Promise<unknown>) => {
      away.current = [...away.current, gone];
      show(left);
      const back = (refused: boolean) => {
        away.current = away.current.filter((one) => one !== gone);
        show(refused ? together(gone, now.current) : now.current);
      };
      turn.current = turn.current.then(() =>
        keep().then(
          () => back(false),
          () => back(true),
        ),
      );
    },
    [show, together],
  );
  return { value, set: show, hand };
}

/** Lines of text: what was refused stands above what was typed since. */
export const linesTogether = (refused: string, since: string): string =>
  since === '' ? refused : `${refused}\n${since}`;
