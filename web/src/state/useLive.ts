// The newest numbers of every connected instrument, drawn at most ten times a second.
import type { LiveEvent } from '@lastmark/contract/types';
import { useEffect, useState } from 'react';
import { listenLive, liveIsOpen, newestLive } from './liveSource.ts';

/** Numbers change on screen at most this often, ms. They stand in fixed places, so they can be read while they do. */
const DRAW_MILLISECONDS = 100;

export interface Live {
  readonly events: readonly LiveEvent[];
  /** Whether the stream is open. */
  readonly open: boolean;
}

const NOTHING: Live = { events: [], open: false };

export function useLive(wanted: boolean): Live {
  const [live, setLive] = useState<Live>(NOTHING);
  useEffect(() => {
    if (!wanted) return;
    let timer: ReturnType<typeof setTimeout> | null = null;
    let drawn = 0;
    const draw = () => {
      timer = null;
      drawn = performance.now();
      setLive({ events: newestLive(), open: liveIsOpen() });
    };
    const stop = listenLive(() => {
      timer ??= setTimeout(draw, Math.max(0, drawn + DRAW_MILLISECONDS - performance.now()));
    });
    // A stream that falls silent is told too.
    const silent = setInterval(draw, 1000);
    return () => {
      stop();
      clearInterval(silent);
      if (timer) clearTimeout(timer);
    };
  }, [wanted]);
  return wanted ? live : NOTHING;
}
