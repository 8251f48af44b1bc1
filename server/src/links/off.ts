// Switching a load off, and believing it only when the load says so.
import type { ScpiClient } from '@lastmark/bench/scpi';
import { commandFor, type InstrumentProfile, readAnswer, toldNumber } from '@lastmark/core/instrument';
import { pause, within } from '../wait/wait.ts';

/** Less than this is what a meter shows of no current, A. */
const NO_AMPS = 0.05;
/** Pause before an off that was not seen is sent again, ms. */
const AGAIN_MILLISECONDS = 150;

/** What became of switching a load off. */
export interface OffWord {
  /** The command went onto the wire. */
  readonly sent: boolean;
  /** The load itself said that it is off, or that no current flows. */
  readonly sure: boolean;
  /** It was sent to a load that cannot be asked. */
  readonly blind: boolean;
  /** Why not, in a sentence part; `off` when it is. */
  readonly detail: string;
}

/** What to do at the bench when nobody knows. */
export const AT_THE_BENCH = 'Switch it off at the load itself, or pull the charger out of the mains.';

/** The sentence for a load nobody is sure of. */
export const nobodyKnows = (name: string, detail: string): string =>
  `Nobody knows whether "${name}" is off: ${detail}. ${AT_THE_BENCH}`;

/**
 * Ask a load whether it is off.
 * @returns true or false as it says; null for a profile that knows no way of asking
 * @throws ScpiError when it does not answer
 */
export async function isOff(client: ScpiClient, profile: InstrumentProfile): Promise<boolean | null> {
  const ask = (action: string) => client.query(commandFor(profile, action), { urgent: true, steady: true });
  if ('isOn' in profile.commands) return readAnswer(profile, 'isOn', await ask('isOn')) === 0;
  if ('all' in profile.commands) {
    const values = readAnswer(profile, 'all', await ask('all')) as readonly number[];
    const amps = Array.from({ length: Math.floor((values.length - 1) / 2) }, (_, index) =>
      toldNumber('DC load', values, 'current', index + 1),
    );
    return amps.length === 0 || amps.includes(null) ? null : amps.every((one) => Math.abs(one ?? 1) < NO_AMPS);
  }
  if ('current' in profile.commands)
    return Math.abs(readAnswer(profile, 'current', await ask('current')) as number) < NO_AMPS;
  return null;
}

/**
 * Switch every channel of a load off, again and again until it says so or the time is over. The first command goes onto
 * the wire before anything else is done.
 * @param patience how long it may take, ms
 */
export async function switchOff(client: ScpiClient, profile: InstrumentProfile, patience: number): Promise<OffWord> {
  const until = performance.now() + patience;
  let sent = false;
  let detail = 'it is not connected';
  for (;;) {
    try {
      // Whatever pause the connection is in: this does not wait for it.
      client.open();
      await client.write(commandFor(profile, 'off'), { urgent: true });
      sent = true;
      detail = 'it did not answer in time';
      const left = Math.max(1, until - performance.now());
      const word = await within(
        left,
        isOff(client, profile).then((off) => ({ off })),
      );
      if (word?.off === true) return { sent, sure: true, blind: false, detail: 'off' };
      if (word?.off === false) detail = 'it says that it still draws';
      if (word?.off === null)
        return { sent, sure: false, blind: true, detail: 'its profile has no way of asking whether it is on' };
    } catch (error) {
      detail = error instanceof Error ? error.message.replace(/\.$/, '') : 'failed';
    }
    if (performance.now() + AGAIN_MILLISECONDS >= until) return { sent, sure: false, blind: false, detail };
    await pause(AGAIN_MILLISECONDS);
  }
}
