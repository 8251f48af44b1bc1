// One stream of live numbers for the whole page, opened while anyone wants it. The browser comes back by itself and
// names the last event it saw.
import type { LiveEvent } from '@lastmark/contract/types';
import { apiUrl } from '../api/world.ts';

type Listener = (event: LiveEvent) => void;

/** Who listens, and which instruments they look at closely: those are told as often as they are asked, wherever they stand. */
const listeners = new Map<Listener, readonly string[]>();
/** What the stream was opened for. */
let closely = '';
const newest = new Map<string, LiveEvent>();
let source: EventSource | null = null;
let isOpen = false;
let again: ReturnType<typeof setTimeout> | undefined;
/** Pause after the server refused to be listened to, ms. */
const AGAIN_MILLISECONDS = 5000;

/** As many as one may ask for. */
const MOST_CLOSELY = 64;
const wantedClosely = (): string =>
  [...new Set([...listeners.values()].flat().filter(Boolean))].sort().slice(0, MOST_CLOSELY).join(',');

function open(): void {
  closely = wantedClosely();
  source = new EventSource(apiUrl(closely === '' ? '/live' : `/live?fast=${closely}`));
  source.onopen = () => {
    isOpen = true;
  };
  source.onerror = () => {
    isOpen = false;
    // Refused, not cut off: by itself it does not come back. Whoever signed in meanwhile is let in.
    if (source?.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN_MILLISECONDS);
  };
  source.onmessage = ({ data }) => {
    const event = JSON.parse(data as string) as LiveEvent;
    newest.set(event.instrumentId, event);
    for (const listener of listeners.keys()) listener(event);
  };
}

function close(): void {
  clearTimeout(again);
  source?.close();
  source = null;
  isOpen = false;
}

/**
 * Be told every event.
 * @param instruments to be looked at closely; ids
 * @returns how to stop; the stream closes with the last listener
 */
export function listenLive(listener: Listener, instruments: readonly string[] = []): () => void {
  listeners.set(listener, instruments);
  // Whoever stops looking closely needs no other stream.
  if (source && instruments.some((id) => !closely.includes(id))) close();
  if (!source) open();
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    close();
    newest.clear();
  };
}

export const liveIsOpen = (): boolean => isOpen;
/** The newest event of each instrument. */
export const newestLive = (): readonly LiveEvent[] => [...newest.values()];
