// What to say of a Loads off, wherever it was pressed.
import type { LoadsOffAnswer } from '@lastmark/contract/types';

const AT_THE_BENCH = 'Switch it off at the load itself, or pull the charger out of the mains.';
export const NO_WORD = `No word from the server: nobody knows whether the loads are off. ${AT_THE_BENCH}`;

/**
 * What to say of a Loads off: that it is so, or in plain words what nobody knows and what to do.
 * @param settled loads that were in doubt after it and have said since that they are off
 */
export function wordsOf(
  { items, written }: LoadsOffAnswer,
  settled: ReadonlySet<string>,
): { said: string; wrong: boolean } {
  const unknown = items.filter(({ instrumentId, sure, blind }) => !sure && (blind || !settled.has(instrumentId)));
  if (unknown.length > 0) {
    const each = unknown.map(({ name, sent, detail }) =>
      sent
        ? `Nobody knows whether "${name}" is off: ${detail}.`
        : `"${name}" could not be told: ${detail.replace(/\.$/, '')}.`,
    );
    return { said: `${each.join(' ')} ${AT_THE_BENCH}`, wrong: true };
  }
  const later = written ? '' : ' It could not be written down yet; that follows when the database answers.';
  return { said: `${items.length > 0 ? 'Every load is off.' : 'No load has an address.'}${later}`, wrong: false };
}
