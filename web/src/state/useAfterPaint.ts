// What may follow: drawn once what came at once stands on screen.
import { startTransition, useEffect, useState } from 'react';

/**
 * A value as it was when the screen was last painted. What takes long to draw is drawn with it, so that it never
 * stands between a key and what the key shows. React's own deferral begins before the paint.
 */
export function useAfterPaint<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const follow = () => {
      timer = setTimeout(() => startTransition(() => setSettled(() => value)));
    };
    // A page out of sight is not painted.
    const frame = document.hidden ? null : requestAnimationFrame(follow);
    if (frame === null) follow();
    return () => {
      if (frame !== null) cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [value]);
  return settled;
}
