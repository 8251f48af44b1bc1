// What the PD analyser of a rig is asked: what a port says, and what answers in the cable.
import { SettingProblem } from './driver-problems.ts';
import { can, type Driven } from './sinks.ts';

interface Parts {
  /** Null for a rig without one. */
  readonly analyser: Driven | null;
  readonly channelOf: (port: string) => number;
  readonly ask: (one: Driven, action: string, values?: Record<string, number>) => Promise<unknown>;
}

export class Analyser {
  readonly #parts: Parts;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** Of the instrument; null for a rig without one. */
  get id(): string | null {
    return this.#parts.analyser?.instrument.id ?? null;
  }

  async #words(one: Driven, action: string, port?: string): Promise<readonly string[]> {
    const { ask, channelOf } = this.#parts;
    return (await ask(one, action, port === undefined ? {} : { channel: channelOf(port) })) as readonly string[];
  }

  /** The offers of a port as they stand now. @throws SettingProblem for a rig without analyser */
  async words(port: string): Promise<readonly string[]> {
    const { analyser } = this.#parts;
    if (!analyser) throw new SettingProblem('The rig has no PD analyser. Choose one at Bench.');
    return this.#words(analyser, 'offers', port);
  }

  /** What a port states of its power; null where the analyser cannot ask, or nothing answers. */
  async info(port: string): Promise<string | null> {
    const { analyser } = this.#parts;
    return can(analyser, 'info') ? ((await this.#words(analyser, 'info', port))[0] ?? null) : null;
  }

  /** The cable's reply; empty where nothing answers, or nobody can ask. */
  async cableWords(): Promise<readonly string[]> {
    const { analyser } = this.#parts;
    return can(analyser, 'cable') ? this.#words(analyser, 'cable') : [];
  }
}
