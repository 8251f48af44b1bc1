import { expect, it } from 'vitest';
import { nothingSays } from './nothing.ts';

const ALL = { q: '', kind: '', label: '', collection: '', archived: false };

it.each([
  [{ q: 'hut' }, 'Nothing on the shelf matches', 'Try fewer words, or another kind.'],
  [{ kind: 'car' }, 'Nothing on the shelf matches', 'Try fewer words, or another kind.'],
  [{ q: 'hut', collection: 'c' }, 'Nothing on the shelf matches', 'Try fewer words, or the whole shelf.'],
  [{ label: 'loan', archived: true }, 'Nothing on the shelf matches', 'Try fewer words, or the whole shelf.'],
  [{ collection: 'c' }, 'Nothing in this collection yet', 'A sample is put into a collection at its Intake.'],
  [{ archived: true }, 'Nothing is archived', expect.stringContaining('nothing of them is lost')],
  [{ collection: 'c', archived: true }, 'Nothing of this collection is archived', expect.any(String)],
])('narrowed to %j a shelf without samples says "%s"', (part, title, says) => {
  expect(nothingSays({ ...ALL, ...part })).toEqual({ title, says });
});

it('a shelf that nothing narrows is empty', () => {
  expect(nothingSays(ALL)).toBeNull();
});
