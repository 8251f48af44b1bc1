import { profileProblems } from '@lastmark/core/instrument';
import { describe, expect, it } from 'vitest';
import { profileFile, profileForm, profileFrom, profileIn, profileInput, tried, understood } from './profileForm.ts';

const STORED = {
  id: 'p1',
  title: 'Mill analyser',
  class: 'power analyser',
  builtIn: false,
  version: 3,
  commands: [
    { action: 'all', command: 'HOLD\nREAD', reply: 'U={volts}; P={watts}' },
    { action: 'watts', command: 'P?' },
  ],
  examples: [{ action: 'all', reply: 'P=49.6W;U=230.1V', reads: 'volts 230.1, watts 49.6' }],
  channels: ['TOP', 'BOTTOM'],
  wire: { end: 'CR', errors: null, patience: 3, pause: 0.05, hello: ['REMOTE'] },
} as const;
const copy = () => JSON.parse(JSON.stringify(STORED)) as Parameters<typeof profileForm>[0];

describe('the form of a profile', () => {
  it('gives back what it was filled with', () => {
    const { id: _, builtIn: __, version: ___, ...input } = copy();
    expect(profileInput('power analyser', profileForm(copy()))).toEqual(input);
    expect(profileProblems(profileFrom(input))).toEqual([]);
  });

  it('leaves the usual wire, empty actions and examples that are not understood out', () => {
    const usual = profileForm({ ...copy(), wire: undefined, channels: undefined });
    const made = profileInput('power analyser', {
      ...usual,
      commands: { ...usual.commands, watts: ' ' },
      examples: { all: 'U=230 A' },
    });
    expect(made).toEqual({ title: 'Mill analyser', class: 'power analyser', commands: [STORED.commands[0]] });
  });

  it('names a copy of what ships as one', () =>
    expect(profileForm({ ...copy(), builtIn: true }).title).toBe('Mill analyser, copy'));
});

describe('a reply that is tried', () => {
  it('says what was understood and what was not', () => {
    expect(tried('{volts},{amps}', '20.02 V')).toEqual({
      reads: 'volts 20.02',
      problems: ['{amps}: the reply has no part 2.'],
    });
    expect(tried('{furlongs}', '1')?.problems[0]).toContain('not known');
    expect(tried('', '1')).toBeNull();
  });

  it('at the console is read by the instrument’s own profile, by the line that asked', () => {
    expect(understood(copy(), ' READ', 'P=1.5W;U=229V')?.reads).toBe('volts 229, watts 1.5');
    expect(understood(copy(), 'P?', '49.6')).toBeNull();
    expect(understood(undefined, 'READ', '1')).toBeNull();
  });
});

describe('a profile as a file', () => {
  it('comes back as it went out, without what only this bench knows', async () => {
    const { id: _, builtIn: __, version: ___, ...input } = copy();
    expect(profileIn(await profileFile(copy()).text())).toEqual(input);
  });
  it.each([
    ['no JSON', 'not JSON'],
    ['{"form":"something else"}', 'no instrument profile'],
    ['null', 'no instrument profile'],
    ['{"form":"instrument profile 1","profile":null}', 'no instrument profile'],
  ])('that is %s is refused with a sentence', (text, says) => expect(() => profileIn(text)).toThrow(says));
});
