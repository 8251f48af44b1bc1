import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { scratch } from './lib/scratch.mjs';
import { isSealed, MAGIC, passPhrase, SealProblem, seal, unseal } from './lib/sealed.mjs';

const folder = scratch('sealed');
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const PHRASE = 'a lamp in every hut';

async function bytesOf(pieces) {
  const all = [];
  for await (const piece of pieces) all.push(piece);
  return Buffer.concat(all);
}
async function sealedFile(name, plain) {
  const path = join(folder, name);
  writeFileSync(path, await bytesOf(seal([plain], PHRASE)));
  return path;
}
const opened = (path, phrase = PHRASE) => bytesOf(unseal(path, phrase));

describe('a sealed file', () => {
  it.each([0, 1, 1024 * 1024, 1024 * 1024 + 1, 3_500_000])('gives back what was put in: %i bytes', async (length) => {
    const plain = Buffer.alloc(length, 'lastmark ');
    const path = await sealedFile(`whole-${length}`, plain);
    expect(await isSealed(path)).toBe(true);
    expect((await opened(path)).equals(plain)).toBe(true);
    // Nothing of it can be read, and twice the same is never the same.
    expect(readFileSync(path).includes('lastmark ')).toBe(false);
    expect(readFileSync(path).equals(readFileSync(await sealedFile('again', plain)))).toBe(false);
  });

  it('is opened by its own phrase only', async () => {
    const path = await sealedFile('phrase', Buffer.from('a reading'));
    await expect(opened(path, 'another phrase of words')).rejects.toThrow('the pass phrase is another');
    expect((await opened(path, 'a lamp in every hut')).toString()).toBe('a reading');
  });

  it('shows every byte that was changed, taken away, added, or moved', async () => {
    const whole = readFileSync(await sealedFile('damage', Buffer.alloc(2_200_000, 7)));
    const head = MAGIC.length + 16;
    const piece = 5 + 1024 * 1024 + 16;
    const damaged = {
      salt: Buffer.from(whole),
      first: Buffer.from(whole),
      later: Buffer.from(whole),
      length: Buffer.from(whole),
      cut: whole.subarray(0, whole.length - 1),
      'cut between pieces': whole.subarray(0, head + 2 * piece),
      added: Buffer.concat([whole, Buffer.from('x')]),
      swapped: Buffer.concat([
        whole.subarray(0, head),
        whole.subarray(head + piece, head + 2 * piece),
        whole.subarray(head, head + piece),
        whole.subarray(head + 2 * piece),
      ]),
      'called the last': Buffer.from(whole.subarray(0, head + piece)),
    };
    damaged.salt[MAGIC.length] ^= 1;
    damaged.first[head + 100] ^= 1;
    damaged.later[head + piece + 100] ^= 1;
    damaged.length[head] = 0xff;
    damaged['called the last'][head + 4] = 1;
    for (const [name, bytes] of Object.entries(damaged)) {
      const path = join(folder, 'bad');
      writeFileSync(path, bytes);
      await expect(opened(path), name).rejects.toThrow(SealProblem);
    }
  });

  it('asks for a phrase that is worth the name', () => {
    const path = join(folder, 'phrase.txt');
    writeFileSync(path, 'short\n');
    expect(() => passPhrase(path)).toThrow('shorter than 12 characters');
    writeFileSync(path, `  ${PHRASE}\n`);
    expect(passPhrase(path)).toBe(PHRASE);
    expect(() => passPhrase(join(folder, 'nowhere'))).toThrow('cannot be read from');
  });
});
