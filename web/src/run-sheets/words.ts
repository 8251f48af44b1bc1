// How sheets and runs are told.
import type { RunState } from '@lastmark/contract/plan';

/** A length of time at a glance: `45 s`, `12 min`, `3 h 20 min`. */
export function howLong(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  if (whole < 60) return `${whole} s`;
  const minutes = Math.round(whole / 60);
  if (minutes < 60) return `${minutes} min`;
  const hours = Math.floor(minutes / 60);
  return minutes % 60 === 0 ? `${hours} h` : `${hours} h ${minutes % 60} min`;
}

/** A countdown: `4:05`, `1:20:00`. */
export function countdown(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  const two = (value: number) => String(value).padStart(2, '0');
  const hours = Math.floor(whole / 3600);
  const minutes = Math.floor((whole % 3600) / 60);
  return hours > 0 ? `${hours}:${two(minutes)}:${two(whole % 60)}` : `${minutes}:${two(whole % 60)}`;
}

/** A state as a shape and a word; the word alone is enough. */
export const RUN_WORDS: Readonly<Record<RunState, string>> = {
  running: '▶ running',
  waiting: '◆ waits for you',
  held: '■ on hold',
  interrupted: '▼ interrupted',
  stopped: '✕ stopped',
  done: '● done',
};

export const isOver = (state: RunState): boolean => state === 'done' || state === 'stopped';
