// The newest numbers of every connected instrument. The browser comes back by itself and names the last event it saw.
import type { LiveEvent } from '@lastmark/contract/types';
import { useEffect, useRef, useState } from 'react';

/** How often the numbers on screen change, ms: calm enough to be read from a metre away. */
const DRAW_MILLISECONDS = 400;

export interface Live {
  readonly events: readonly LiveEvent[];
  /** Whether the stream is open. */
  readonly open: boolean;
}

export function useLive(wanted: boolean): Live {
  const [live, setLive] = useState<Live>({ events: [], open: false });
  const newest = useRef(new Map<string, LiveEvent>());
  useEffect(() => {
    if (!wanted) return;
    const source = new EventSource('/api/live');
    let isOpen = false;
    source.onopen = () => {
      isOpen = true;
    };
    source.onerror = () => {
      isOpen = false;
    };
    source.onmessage = ({ data }) => {
      const event = JSON.parse(data as string) as LiveEvent;
      newest.current.set(event.instrumentId, event);
    };
    const draw = setInterval(() => setLive({ events: [...newest.current.values()], open: isOpen }), DRAW_MILLISECONDS);
    return () => {
      clearInterval(draw);
      source.close();
    };
  }, [wanted]);
  return live;
}
