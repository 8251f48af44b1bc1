// One stream of live numbers for the whole page, opened while anyone wants it. The browser comes back by itself and
// names the last event it saw.
import type { LiveEvent } from '@lastmark/contract/types';
import { apiUrl } from '../api/world.ts';

type Listener = (event: LiveEvent) => void;

const listeners = new Set<Listener>();
const newest = new Map<string, LiveEvent>();
let source: EventSource | null = null;
let isOpen = false;
let again: ReturnType<typeof setTimeout> | undefined;
/** Pause after the server refused to be listened to, ms. */
const AGAIN_MILLISECONDS = 5000;

function open(): void {
  source = new EventSource(apiUrl('/live'));
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
    for (const listener of listeners) listener(event);
  };
}

/** Be told every event. @returns how to stop; the stream closes with the last listener */
export function listenLive(listener: Listener): () => void {
  listeners.add(listener);
  if (!source) open();
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    clearTimeout(again);
    source?.close();
    source = null;
    isOpen = false;
    newest.clear();
  };
}

export const liveIsOpen = (): boolean => isOpen;
/** The newest event of each instrument. */
export const newestLive = (): readonly LiveEvent[] => [...newest.values()];
