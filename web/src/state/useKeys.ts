// Keys that work anywhere on a page.
import { useEffect, useRef } from 'react';

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(input|textarea|select)$/i.test(target.tagName));

/** A control the Enter key belongs to. */
const ownsEnter = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('button, a, summary, [role="option"], [role="dialog"]') !== null;

function nameOf({ ctrlKey, metaKey, altKey, key }: KeyboardEvent): string {
  return `${ctrlKey || metaKey ? 'ctrl+' : ''}${altKey ? 'alt+' : ''}${key.toLowerCase()}`;
}

/** Bind keys such as `ctrl+k`, `alt+2` or `?`. Plain keys rest while something is being typed. */
export function useKeys(keys: Readonly<Record<string, () => void>>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const name = nameOf(event);
      const action = latest.current[name];
      if (!action || (!name.includes('+') && typing(event.target))) return;
      if (name === 'enter' && ownsEnter(event.target)) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
