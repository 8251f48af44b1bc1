// One field of a grid: typed, kept with Enter, dropped with Esc; it says what is wrong with it through its row.
import { parseQuantity, type QuantityId } from '@lastmark/core/quantity';
import { type KeyboardEvent, memo, useEffect, useRef, useState } from 'react';
import { ApiProblem } from '../api/client.ts';
import { withUnit } from './spread.ts';
import { readDraft, writeDraft } from './useDraft.ts';

export interface CellSpec {
  readonly id: string;
  /** Full name for screen readers: "115 V 60 Hz, 100 %, input watts". */
  readonly label: string;
  readonly quantity: QuantityId;
  /** What stands there now. */
  readonly typed: string;
  /** Store it; rejects with the reason when it is refused. @param really the person was asked and meant it */
  readonly commit: (typed: string, really: boolean) => Promise<void>;
}

const WIDE = { minWidth: 104 };

export type Report = (cellId: string, problem: string | null) => void;

/** Whether an arrow leaves the field: all of it is marked, or the caret stands at that end. */
function atEnd({ value, selectionStart, selectionEnd }: HTMLInputElement, step: number): boolean {
  if (selectionStart === 0 && selectionEnd === value.length) return true;
  return selectionStart === selectionEnd && selectionStart === (step < 0 ? 0 : value.length);
}

const inputsOf = (from: Element): HTMLInputElement[] => [
  ...(from.closest('[data-entry-area]') ?? document).querySelectorAll<HTMLInputElement>('input[data-entry]'),
];

function focusBy(from: HTMLInputElement, step: number): void {
  const all = inputsOf(from);
  const next = all[all.indexOf(from) + step];
  next?.focus();
  next?.select();
}

function focusInColumn(from: HTMLInputElement, step: number): void {
  const own = inputsOf(from).filter(({ dataset }) => dataset.column === from.dataset.column);
  const next = own[own.indexOf(from) + step];
  next?.focus();
  next?.select();
}

/** Puts a text into a cell and keeps it, as if it had been typed there. */
export type Put = (text: string) => void;

/** The cells of one grid by id, and what to do with a paste of several. */
export interface Spread {
  readonly puts: Map<string, Put>;
  /** @returns whether it was more than one cell */
  readonly paste: (cellId: string, text: string) => boolean;
}

interface CellProps {
  readonly cell: CellSpec;
  readonly column: number;
  readonly draftKey: string;
  readonly report: Report;
  /** Stores it in the place the cell has now. */
  readonly store: (column: number, typed: string, really: boolean) => Promise<void>;
  readonly spread: Spread;
  /** Unit taken where none is typed; empty for the usual one. */
  readonly unit: string;
}

/** How a cell looks depends on this alone; where it is stored is asked when it is. */
const sameCell = (a: CellProps, b: CellProps): boolean =>
  a.cell.id === b.cell.id &&
  a.cell.typed === b.cell.typed &&
  a.cell.label === b.cell.label &&
  a.cell.quantity === b.cell.quantity &&
  a.column === b.column &&
  a.draftKey === b.draftKey &&
  a.unit === b.unit;

export const Cell = memo(function Cell({ cell, column, draftKey, report, store, spread, unit }: CellProps) {
  const key = `${draftKey}.${cell.id}`;
  const [typing, setText] = useState(() => readDraft<string>(key));
  const [state, setState] = useState<'rest' | 'saving' | 'refused'>(typing === null ? 'rest' : 'refused');
  const sending = useRef<string | null>(null);
  /** What the server asked about: the same text again means "yes, really". */
  const asked = useRef<string | null>(null);
  /** What stood there when it was begun to be typed over; null while nothing is typed. */
  const stood = useRef<string | null>(null);
  const shown = typing ?? cell.typed;
  useEffect(() => {
    if (readDraft<string>(key) !== null) report(cell.id, 'Not saved yet: press Enter to try again, Esc to drop it.');
  }, [key, cell.id, report]);
  const drop = () => {
    stood.current = null;
    setText(null);
    setState('rest');
    writeDraft(key, null);
    report(cell.id, null);
  };
  const commit = async (meant = false, put: string | null = null): Promise<boolean> => {
    const text = put === null ? typing : withUnit(put, unit);
    if (text === null || (text === cell.typed && state !== 'refused')) {
      drop();
      return true;
    }
    if (text.trim() !== '') {
      const parsed = parseQuantity(text, cell.quantity);
      if (!parsed.ok) {
        setState('refused');
        report(cell.id, parsed.reason);
        return false;
      }
    } else if (cell.typed === '') {
      drop();
      return true;
    }
    if (stood.current !== null && stood.current !== cell.typed) {
      // Somebody else was here meanwhile: what they wrote is shown before it is corrected.
      setState('refused');
      const theirs = cell.typed === '' ? 'took away what stood here' : `wrote ${cell.typed} here`;
      stood.current = cell.typed;
      report(
        cell.id,
        `Somebody else ${theirs} meanwhile. Enter there once more writes yours over it, Esc leaves theirs.`,
      );
      return false;
    }
    if (sending.current === text) return true;
    sending.current = text;
    setState('saving');
    report(cell.id, null);
    void store(column, text, meant && asked.current === text)
      .then(drop)
      .catch((error: unknown) => {
        setState('refused');
        const asks = error instanceof ApiProblem && (error.problem.errors?.some(({ really }) => really) ?? false);
        asked.current = asks ? text : null;
        const why = error instanceof Error ? error.message : 'Not saved.';
        report(cell.id, asks ? `${why} Yes, really? Then press Enter there once more.` : why);
      })
      .finally(() => {
        sending.current = null;
      });
    return true;
  };
  const put: Put = (one) => {
    setText(one);
    writeDraft(key, one);
    void commit(false, one);
  };
  useEffect(() => {
    const { puts } = spread;
    puts.set(cell.id, put);
    return () => {
      puts.delete(cell.id);
    };
  });
  const keys = async (event: KeyboardEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    if (event.key === 'Enter') {
      event.preventDefault();
      if (await commit(true, typing)) focusBy(input, event.shiftKey ? -1 : 1);
    } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      focusInColumn(input, event.key === 'ArrowDown' ? 1 : -1);
    } else if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
      const step = event.key === 'ArrowRight' ? 1 : -1;
      if (!atEnd(input, step)) return;
      event.preventDefault();
      focusBy(input, step);
    } else if (event.key === 'Escape') {
      event.stopPropagation();
      drop();
    }
  };
  return (
    <input
      data-entry=""
      data-column={column}
      data-state={state}
      aria-label={cell.label}
      aria-invalid={state === 'refused'}
      inputMode="decimal"
      autoComplete="off"
      value={shown}
      onChange={(event) => {
        stood.current ??= cell.typed;
        setText(event.target.value);
        writeDraft(key, event.target.value);
        if (state === 'refused') setState('rest');
      }}
      onFocus={(event) => event.currentTarget.select()}
      onBlur={() => void commit(false, typing)}
      onPaste={(event) => {
        if (spread.paste(cell.id, event.clipboardData.getData('text'))) event.preventDefault();
      }}
      onKeyDown={(event) => void keys(event)}
      style={cell.quantity === 'energy' ? WIDE : undefined}
    />
  );
}, sameCell);
