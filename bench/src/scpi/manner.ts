// How an instrument is spoken to: what may be chosen, how urgent a line is, and how it may fail.
import type { Way } from '../ways/way.ts';

export interface ScpiOptions {
  readonly way: Way;
  /** How long a reply may take, ms. */
  readonly timeout?: number;
  /** First pause before connecting again, ms; it doubles up to `longestPause`. */
  readonly firstPause?: number;
  readonly longestPause?: number;
  /** How long a block may take in all, whatever keeps coming, ms. */
  readonly longestBlock?: number;
  /** What ends a line to it. */
  readonly end?: string;
  /** The question for its error queue; null for an instrument that has none. */
  readonly errors?: string | null;
  /** Pause after a command before the next, ms. */
  readonly pauseAfter?: number;
  /** Sent once after connecting. */
  readonly hello?: readonly string[];
  /** Told of every line that asks nothing, once it is on the wire, in the asynchronous context of whoever sent it. */
  readonly onCommand?: (line: string) => void;
}

export type LinkState = 'connecting' | 'up' | 'down' | 'closed';

/** Why a command failed: the connection, the time, or the instrument's own word. */
export class ScpiError extends Error {
  constructor(
    readonly kind: 'down' | 'timeout' | 'garbled' | 'instrument' | 'closed' | 'barred',
    message: string,
  ) {
    super(message);
  }
}

/** One line of traffic, for the console. */
export interface Traffic {
  readonly at: number;
  readonly direction: 'out' | 'in' | 'note';
  readonly text: string;
  /** Part of the steady asking for live numbers. */
  readonly steady: boolean;
}

/** Asked at the moment a command would go onto the wire: why it must not, or null. */
export type Gate = () => string | null;

export interface Manner {
  /** Ahead of whatever waits. */
  readonly urgent?: boolean;
  /** One of many that keep numbers live; few of them are kept as traffic. */
  readonly steady?: boolean;
  readonly gate?: Gate;
  /** How long its reply may take, ms; as long as any other where nothing is said. */
  readonly timeout?: number;
}
