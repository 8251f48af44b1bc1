// What may be said of collections, benches and where people are from.
import { describe, expect, it } from 'vitest';
import { COLLECTION_ROUTES } from './collection-routes.ts';
import { invitationInput, personInput } from './people-schemas.ts';
import { BENCH_NAME, instrumentInput, sampleInput } from './schemas.ts';
import { validate } from './validate.ts';

const ID = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
const body = COLLECTION_ROUTES.createCollection.body;
const complaints = (schema: Parameters<typeof validate>[0], value: unknown): string[] => {
  const checked = validate(schema, value);
  return checked.ok ? [] : checked.errors.map(({ message }) => message);
};

describe('a collection', () => {
  const good = { name: 'Spring round', embargo: null, people: [] };

  it('has a name, an end of its embargo or none, and people', () => {
    if (!body) throw new Error('There is no schema.');
    for (const part of [{}, { embargo: '2027-03-01T09:00Z' }, { embargo: '2027-03-01T09:00:30.5Z' }, { people: [ID] }])
      expect(complaints(body, { ...good, ...part }), JSON.stringify(part)).toEqual([]);
    for (const embargo of ['2027-03-01', '2027-02-30T25:00Z', '2027-03-01T09:00', '2027-03-01T09:00+01:00', '', 5])
      expect(complaints(body, { ...good, embargo }), String(embargo)).toHaveLength(1);
    for (const part of [
      { name: '' },
      { name: 'x'.repeat(81) },
      { people: ['somebody'] },
      { people: null },
      { more: 1 },
    ])
      expect(complaints(body, { ...good, ...part }), JSON.stringify(part)).not.toEqual([]);
  });

  it('is kept by admins, read by everybody who is in, and filled by engineers', () => {
    const { listCollections, createCollection, updateCollection, deleteCollection, putInCollection } =
      COLLECTION_ROUTES;
    expect([createCollection.needs, updateCollection.needs, deleteCollection.needs]).toEqual(Array(3).fill('admin'));
    expect([listCollections.method, putInCollection.method]).toEqual(['get', 'put']);
    expect([updateCollection.ifMatch, deleteCollection.ifMatch]).toEqual([true, true]);
  });
});

describe('a bench', () => {
  it.each([
    ['north', true],
    ['Hut 3, attic', false],
    ['Hut 3 attic', true],
    ['', true],
    ['a/b', false],
    ['-x', false],
    ['Hütte_1.2', true],
    ['x\n', false],
  ])('is called %j: %s', (name, may) => {
    expect(BENCH_NAME.test(name)).toBe(may);
    const instrument = {
      name: 'Meter',
      bench: name,
      class: 'bench multimeter',
      firmware: '',
      calibrationDue: null,
      address: null,
      profileId: null,
      sees: null,
      specs: {},
    };
    expect(complaints(instrumentInput, instrument).length === 0).toBe(may);
    const { bench: _bench, ...unsaid } = instrument;
    expect(complaints(instrumentInput, unsaid)).toEqual([]);
  });
});

describe('where somebody is from', () => {
  it('may be left out, and is yes or no', () => {
    const person = { name: 'Gus', role: 'reader', disabled: false };
    for (const guest of [undefined, true, false]) {
      expect(complaints(personInput, { ...person, ...(guest === undefined ? {} : { guest }) })).toEqual([]);
      expect(
        complaints(invitationInput, { role: 'reader', note: '', ...(guest === undefined ? {} : { guest }) }),
      ).toEqual([]);
    }
    for (const guest of ['yes', 1, null]) expect(complaints(personInput, { ...person, guest })).not.toEqual([]);
  });
});

describe('a sample', () => {
  it('is taken in where it is said, by an id', () => {
    for (const collectionId of ['somewhere', '', 7])
      expect(complaints(sampleInput, { collectionId }).some((one) => one.includes('Collection'))).toBe(true);
    for (const collectionId of [null, ID, undefined])
      expect(complaints(sampleInput, { collectionId }).some((one) => one.includes('Collection'))).toBe(false);
  });
});
