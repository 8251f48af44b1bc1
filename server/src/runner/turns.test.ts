import { describe, expect, it } from 'vitest';
import { heldWords, Turn, whyHeld } from './turns.ts';

const DOUBT = 'Nobody knows whether "Slate load" is off: it did not answer in time.';
const SAFE = `${DOUBT} "Slate source" was switched off.`;
const HOLD = whyHeld(new Turn({ kind: 'hold' })) ?? '';

describe('what a run that holds says of itself', () => {
  const says = (why: string, unknown: string | null) => heldWords(why, unknown, 'Slate load');

  it('is why it holds', () => {
    expect(says(HOLD, null).now).toBe('On hold: loads are off.');
    expect(says('Loads were switched off.', null).now).toBe('Loads were switched off.');
  });

  it('and what nobody knows, said once', () => {
    expect(says('Loads were switched off.', DOUBT).now).toBe(`Loads were switched off. ${DOUBT}`);
    expect(says(DOUBT, SAFE).now).toBe(SAFE);
  });

  it('never says that loads are off which nobody knows', () => {
    expect(says(HOLD, DOUBT).now).toBe(`On hold. ${DOUBT}`);
  });

  it('once the load has said so, says that they are off', () => {
    expect(says('Loads were switched off.', DOUBT).offSince).toBe('Loads were switched off. Loads are off now.');
    expect(says(DOUBT, SAFE).offSince).toBe('"Slate load" did not say in time that it was off. Loads are off now.');
    expect(says(HOLD, DOUBT).offSince).toBe('On hold. Loads are off now.');
  });
});
