// What holds the plugs and asks for levels: a PD sink of its own, the sinks of the load, or a person.
import type { StoredInstrument } from '@lastmark/contract';
import type { InstrumentProfile } from '@lastmark/core/instrument';
import { type LevelRequest, NEAR_END } from '@lastmark/core/plan';
import { formatPlain } from '@lastmark/core/quantity';
import { type Output, SUPPLY_WORDS } from '@lastmark/core/reading';

export interface Driven {
  readonly instrument: StoredInstrument;
  readonly profile: InstrumentProfile;
}

/** Whether an instrument knows how. */
export const can = (one: Driven | null, action: string): one is Driven =>
  one !== null && action in one.profile.commands;

interface Parts {
  /** The sink, else the load; null for a rig with neither. */
  readonly sink: Driven | null;
  readonly channelOf: (port: string) => number;
  readonly command: (one: Driven, action: string, values?: Record<string, number>) => Promise<void>;
  /** Ask a person and wait until it is done. */
  readonly person: (says: string) => Promise<void>;
}

const and = (ports: readonly string[]): string => ports.join(' and ');

export class Sinks {
  readonly #parts: Parts;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** Whether a person moves the plugs. */
  get byHand(): boolean {
    return !can(this.#parts.sink, 'connect') || !can(this.#parts.sink, 'disconnect');
  }

  /** Whether a person sets the levels. */
  get levelsByHand(): boolean {
    return !can(this.#parts.sink, 'request');
  }

  /** Pull some plugs and put others in, without load on any. */
  async move(out: readonly string[], into: readonly string[]): Promise<void> {
    const { sink, person } = this.#parts;
    if (out.length + into.length === 0) return;
    if (this.byHand || !sink) {
      const says = into.includes(NEAR_END)
        ? ['Put the sample between charger and load.']
        : [
            ...(out.length > 0 ? [`Pull the plug from ${and(out)}.`] : []),
            ...(into.length > 0 ? [`Plug the load into ${and(into)}.`] : []),
          ];
      return person(`${says.join(' ')} Then go on.`);
    }
    for (const port of [...out, ...into]) {
      await this.select(port);
      await this.#parts.command(sink, into.includes(port) ? 'connect' : 'disconnect');
    }
  }

  /** Choose a port's channel, where there is more than one. */
  async select(port: string): Promise<void> {
    const { sink, command, channelOf } = this.#parts;
    if (can(sink, 'channel')) await command(sink, 'channel', { channel: channelOf(port) });
  }

  /** Ask a port for a level. @param wanted where it stands in the offers; null where only a person can tell */
  async request({ port, volts, supply }: Output, wanted: LevelRequest | null): Promise<void> {
    const { sink, command, person } = this.#parts;
    const known = wanted && (wanted.volts === null ? can(sink, 'request') : can(sink, 'requestVolts'));
    if (!known || !sink) {
      const level = `${supply ? `${SUPPLY_WORDS[supply]} ` : ''}${formatPlain(volts, 'voltage')}`;
      return person(`Set the trigger at ${port} to ${level}, then go on.`);
    }
    await this.select(port);
    const { position } = wanted;
    if (wanted.volts === null) await command(sink, 'request', { position });
    else await command(sink, 'requestVolts', { position, volts: wanted.volts });
  }
}
