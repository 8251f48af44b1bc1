import { describe, expect, it } from 'vitest';
import { plainDeed } from '../log/write.ts';
import { authorNow, deedNow, inDeed, inNameOf, MACHINE, wasMade, writeDownWith } from './who.ts';

const ADA = { id: 'ada', name: 'Ada', role: 'engineer', through: 'session', keyId: null } as const;
const later = () => new Promise((resolve) => setTimeout(resolve, 1));

describe('who does what', () => {
  it('is known wherever the work goes on, and nowhere else', async () => {
    const seen: (string | null)[] = [];
    await inDeed(
      plainDeed(ADA, 'addRun'),
      async () => undefined,
      async () => {
        await later();
        seen.push(authorNow());
        await Promise.all([later().then(() => seen.push(authorNow())), later()]);
      },
    );
    expect(seen).toEqual(['ada', 'ada']);
    expect(authorNow()).toBeNull();
    expect(deedNow()).toBeUndefined();
  });

  it('is written down once a database, after its commit', async () => {
    const [one, other] = [{}, {}];
    const wrote: object[] = [];
    const { written } = await inDeed(
      plainDeed(MACHINE, 'addRun'),
      async (to: object) => void wrote.push(to),
      async () => {
        const first = await writeDownWith(one, one);
        // Not committed: it is written again with whatever commits.
        expect(await writeDownWith(one, one)).not.toBeNull();
        first?.();
        expect(await writeDownWith(one, one)).toBeNull();
        expect(await writeDownWith(other, other)).not.toBeNull();
      },
    );
    expect(wrote).toEqual([one, one, other]);
    expect([written.has(one), written.has(other)]).toEqual([true, false]);
  });

  it('knows what was made on the way, but for its own entry', async () => {
    const deed = plainDeed(ADA, 'addRun');
    const { made } = await inDeed(
      deed,
      async () => undefined,
      async () => {
        for (const id of [deed.id, 'a', 'b']) wasMade(id);
      },
    );
    expect(made).toEqual(['a', 'b']);
    wasMade('by nobody');
  });

  it('goes on in the name of who began it, without an entry for each step', async () => {
    const author = await inDeed(
      plainDeed(ADA, 'startRun'),
      async () => undefined,
      async () =>
        inNameOf('brook', async () => {
          await later();
          expect(deedNow()).toBeUndefined();
          return authorNow();
        }),
    );
    expect(author.result).toBe('brook');
    expect(inNameOf(null, authorNow)).toBeNull();
  });
});
