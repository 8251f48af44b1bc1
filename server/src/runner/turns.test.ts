import { describe, expect, it } from 'vitest';
import { heldSays, offSinceSays, Turn, whyHeld } from './turns.ts';

const DOUBT = 'Nobody knows whether "Slate load" is off: it did not answer in time.';
const SAFE = `${DOUBT} "Slate source" was switched off.`;
const HOLD = whyHeld(new Turn({ kind: 'hold' })) ?? '';

describe('what a run that holds says of itself', () => {
  it('is why it holds', () => {
    expect(heldSays(HOLD, null)).toBe('On hold: loads are off.');
    expect(heldSays('Loads were switched off.', null)).toBe('Loads were switched off.');
  });

  it('and what nobody knows, said once', () => {
    expect(heldSays('Loads were switched off.', DOUBT)).toBe(`Loads were switched off. ${DOUBT}`);
    expect(heldSays(DOUBT, SAFE)).toBe(SAFE);
  });

  it('never says that loads are off which nobody knows', () => {
    expect(heldSays(HOLD, DOUBT)).toBe(`On hold. ${DOUBT}`);
  });

  it('once the load has said so, says that they are off', () => {
    expect(offSinceSays('Loads were switched off.', DOUBT, 'Slate load')).toBe(
      'Loads were switched off. Loads are off now.',
    );
    expect(offSinceSays(DOUBT, SAFE, 'Slate load')).toBe(
      '"Slate load" did not say in time that it was off. Loads are off now.',
    );
    expect(offSinceSays(HOLD, DOUBT, 'Slate load')).toBe('On hold. Loads are off now.');
  });
});
