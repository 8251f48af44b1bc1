import { describe, expect, it } from 'vitest';
import { hashOf, isPassword, weakness } from './passwords.ts';

describe('passwords', () => {
  it('are kept as Argon2id with the cost that is stated, and never twice alike', async () => {
    const [one, other] = await Promise.all(['hut on the ridge', 'hut on the ridge'].map(hashOf));
    expect(one).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(one).not.toBe(other);
    expect(await isPassword('hut on the ridge', one ?? '')).toBe(true);
    expect(await isPassword('hut on the Ridge', one ?? '')).toBe(false);
    expect(await isPassword('hut on the ridge ', one ?? '')).toBe(false);
  });

  it('are the same however a keyboard composes their letters', async () => {
    expect(await isPassword('Hu\u0308tte am Grat', await hashOf('H\u00fctte am Grat'))).toBe(true);
  });

  it('of somebody who has none are never right', async () => {
    expect(await isPassword('nobody has this password', null)).toBe(false);
  });

  it('agree with a hash another library made', async () => {
    // Made by libargon2's reference program: argon2 somesalt -id -t 2 -k 1024 -p 1, of "password".
    expect(
      await isPassword(
        'password',
        '$argon2id$v=19$m=65536,t=2,p=1$c29tZXNhbHQ$CTFhFdXPJO1aFaMaO6Mm5c8y7cJHAph8ArZWb2GRPPc',
      ),
    ).toBe(true);
  });

  it.each([
    ['qwerty123456', /tried first/],
    ['QWERTY123456', /tried first/],
    ['aaaaaaaabbbb', /a few characters/],
    ['ada.marrow@fernwall', /your name/],
    ['lastmark lastmark', /your name/],
  ])('that would be guessed are refused: %s', (password, why) => {
    expect(weakness(password, ['ada.marrow@fernwall', 'Ada Marrow'])).toMatch(why);
  });

  it.each(['hut on the ridge', 'v3ry-own-words', 'パスワードは長いほうがいい'])(
    'that are good are taken: %s',
    (password) => {
      expect(weakness(password, ['ada', 'Ada Marrow'])).toBeNull();
    },
  );

  it('wait for their turn, and are refused when too many wait', async () => {
    const kept = await hashOf('hut on the ridge');
    const all = await Promise.allSettled(Array.from({ length: 60 }, () => isPassword('guess', kept)));
    const refused = all.filter(({ status }) => status === 'rejected');
    expect(refused.length).toBe(60 - 42);
    expect(all.filter((one) => one.status === 'fulfilled' && one.value)).toEqual([]);
    // Whoever comes afterwards is looked at.
    expect(await isPassword('hut on the ridge', kept)).toBe(true);
  });
});
