// What was delivered when something was asked: the common form of all evidence about power.
import type { EvidenceKind, Mains, Output, OutputResult } from '../reading/index.ts';
import type { Measured } from '../uncertainty/index.ts';
import type { Bound } from './test.ts';

/** What was delivered when something was asked: the common form of all evidence about power. */
export interface Delivered {
  /** Points behind it; for a run its own id. */
  readonly sourceIds: readonly string[];
  /** What was set; for a device what it took. */
  readonly asked: readonly Output[];
  /** 0 without load, 1 at the currents asked for. */
  readonly load: number;
  readonly evidence: EvidenceKind;
  readonly mains: Mains | null;
  readonly takenAt: string;
  /** At the receptacle, in the order asked; empty when only a power is known: the socket's or a device's. */
  readonly outputs: readonly OutputResult[];
  /** Sum of the outputs, W; null when only the socket was read. */
  readonly watts: Measured | null;
  /** What the socket says about the output, W, where nothing nearer was read. */
  readonly wall: Bound | null;
  /** Under which conditions, ready to show. */
  readonly conditions: string;
  /** How many stress runs the sample had behind it: readings from before and after one are never pooled. */
  readonly epoch: number;
  readonly runs: number;
  /** What to know before relying on it. */
  readonly notes: readonly string[];
  /** Every port was asked for all it offered in that state: what came is all there was. */
  readonly everything?: boolean;
  /** Ports without a meter, together by difference from the socket. */
  readonly rest?: { readonly ports: readonly string[]; readonly bound: Bound } | null;
}
