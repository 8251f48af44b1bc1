// A value that is dragged, for what takes long to draw: it follows as often as leaves the drag twice the time drawing takes.
import { useEffect, useRef, useState } from 'react';

/** Time left between two drawings, as a multiple of what one takes. */
const REST = 2;

/** @returns the value, or one it had a moment ago; the last one always comes */
export function usePaced<T>(value: T): T {
  const [shown, setShown] = useState(value);
  const free = useRef(0);
  useEffect(() => {
    if (Object.is(value, shown)) return;
    const timer = setTimeout(
      () => {
        const begun = performance.now();
        setShown(value);
        // Drawn, laid out and on its way to the screen.
        requestAnimationFrame(() =>
          setTimeout(() => {
            const now = performance.now();
            free.current = now + REST * (now - begun);
          }),
        );
        free.current = Number.POSITIVE_INFINITY;
      },
      Math.max(0, Math.min(free.current - performance.now(), 1000)),
    );
    return () => clearTimeout(timer);
  }, [value, shown]);
  return shown;
}
