import { createHash } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { isPlainPath } from './form.ts';
import { PackageRefused, readPackage, readStudy } from './read.ts';

const LISTS = [
  'claims',
  'setups',
  'points',
  'stated',
  'readOuts',
  'captures',
  'runs',
  'cableRuns',
  'checks',
  'devices',
  'rigs',
  'instruments',
  'limitSets',
];
const DOSSIER = { sample: { id: 's' }, profile: {}, ...Object.fromEntries(LISTS.map((name) => [name, []])) };
const bytesOf = (value: unknown) => strToU8(typeof value === 'string' ? value : JSON.stringify(value));
const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

interface Made {
  readonly files?: Readonly<Record<string, unknown>>;
  readonly manifest?: object;
  /** Put into the archive and not into the manifest. */
  readonly unlisted?: Readonly<Record<string, unknown>>;
}

function pack({
  files = { 'sample.json': { dossier: DOSSIER } },
  manifest = {},
  unlisted = {},
}: Made = {}): Uint8Array {
  const packed = Object.entries(files).map(([path, value]) => [path, bytesOf(value)] as const);
  const listed = packed.map(([path, bytes]) => ({ path, bytes: bytes.length, sha256: hash(bytes), what: 'sample' }));
  const whole = {
    form: 'lastmark-package',
    version: 1,
    made: '2026-03-02T10:00:00.000Z',
    sample: { id: 's', title: 'S', file: 'sample.json' },
    files: listed,
    ...manifest,
  };
  return zipSync({
    'manifest.json': bytesOf(whole),
    ...Object.fromEntries(packed),
    ...Object.fromEntries(Object.entries(unlisted).map(([path, value]) => [path, bytesOf(value)])),
  });
}
const refusal = (bytes: Uint8Array): string => {
  try {
    readPackage(bytes);
    return 'taken';
  } catch (error) {
    expect(error).toBeInstanceOf(PackageRefused);
    return (error as Error).message;
  }
};

describe('a package', () => {
  it('is taken whole', () => expect(readPackage(pack()).dossier.sample.id).toBe('s'));
  it.each([
    ['what is no archive', strToU8('hello'), 'no archive that can be read'],
    ['an empty file', new Uint8Array(), 'no archive that can be read'],
    ['one cut short', pack().subarray(0, 60), 'no archive that can be read'],
    ['an archive of something else', zipSync({ 'a.txt': strToU8('a') }), 'manifest.json is missing'],
    ['another form', pack({ manifest: { form: 'other' } }), 'no package of Lastmark'],
    ['a newer version', pack({ manifest: { version: 2 } }), 'from a newer Lastmark'],
    ['no version', pack({ manifest: { version: '1' } }), 'which version'],
    ['a manifest without files', pack({ manifest: { files: 'all' } }), 'not whole'],
    [
      'a file that is not there',
      pack({ manifest: { files: [{ path: 'x.json', sha256: '0' }] } }),
      'x.json is listed and not there',
    ],
    [
      'a file that was changed',
      pack({ manifest: { files: [{ path: 'sample.json', bytes: 2, sha256: hash(strToU8('{}')), what: 'sample' }] } }),
      'it was changed',
    ],
    ['a file nobody listed', pack({ unlisted: { 'extra.json': {} } }), 'extra.json is not in its manifest'],
    ['no sample', pack({ files: { 'sample.json': { nothing: true } } }), 'sample.json is no sample'],
    [
      'a sample that lacks a part',
      pack({ files: { 'sample.json': { dossier: { ...DOSSIER, points: 7 } } } }),
      'has no points',
    ],
    ['a sample that is no JSON', pack({ files: { 'sample.json': '{' } }), 'sample.json is no JSON'],
  ])('%s is refused with the reason', (_what, bytes, reason) => expect(refusal(bytes)).toContain(reason));

  it.each([
    '../evil',
    '/etc/passwd',
    'a/../../b',
    'C:/x',
    'a\\b',
    'a//b',
    '.hidden',
    'a/b/c/d/e/f/g',
    `${'x'.repeat(300)}`,
  ])('a path like %j leads nowhere', (path) => {
    expect(isPlainPath(path)).toBe(false);
    expect(refusal(pack({ unlisted: { [path]: 'x' } }))).toContain('no path of a package');
  });
  it('a bomb is refused by its head, before anything is unpacked', () => {
    // An archive of one small file whose head says that it unpacks to 3 GiB.
    const bomb = pack().slice();
    const view = new DataView(bomb.buffer);
    for (let at = 0; at < bomb.length - 46; at += 1)
      if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 3 * 1024 ** 3, true);
    expect(refusal(bomb)).toContain('larger than 1 GiB');
  });
});

describe('a study', () => {
  const study = (inner: readonly Uint8Array[], manifest: object = {}): Uint8Array => {
    const files = inner.map((bytes, at) => [`samples/${at}.zip`, bytes] as const);
    const head = {
      form: 'lastmark-study',
      version: 1,
      made: '2026-03-02T10:00:00.000Z',
      title: 'Both',
      samples: files.map(([file], at) => ({ id: `s${at}`, title: `S${at}`, file })),
      files: files.map(([path, bytes]) => ({ path, bytes: bytes.length, sha256: hash(bytes), what: 'package' })),
      ...manifest,
    };
    return zipSync({ 'manifest.json': bytesOf(head), ...Object.fromEntries(files) });
  };
  const reason = (bytes: Uint8Array): string => {
    try {
      return `taken: ${readStudy(bytes).samples.length}`;
    } catch (error) {
      expect(error).toBeInstanceOf(PackageRefused);
      return (error as Error).message;
    }
  };

  it('is taken whole, and so is the package of one sample', () => {
    expect(readStudy(study([pack(), pack()]))).toMatchObject({ title: 'Both', samples: [{}, {}] });
    expect(readStudy(pack())).toMatchObject({ title: 'S', samples: [{}], files: null });
  });
  it('is no package of a sample', () => expect(refusal(study([pack()]))).toBe('It is a study of several samples.'));
  it.each([
    ['none in it', study([], { samples: [] }), 'There is no sample in it.'],
    ['a list that is none', study([pack()], { samples: 'all' }), 'There is no sample in it.'],
    [
      'one that is not there',
      study([pack()], { samples: [{ file: 'samples/9.zip' }] }),
      'names a sample that is not there',
    ],
    ['one that leads out', study([pack()], { samples: [{ file: '../x' }] }), 'names a sample that is not there'],
    ['a study in it', study([study([pack()])]), 'samples/0.zip: It is no package of a sample.'],
    [
      'one that was changed',
      study([pack({ manifest: { files: [] } })]),
      'samples/0.zip: sample.json is not in its manifest',
    ],
    ['a newer version', study([pack()], { version: 2 }), 'reads up to 1'],
    [
      'more than are read',
      study([pack()], { samples: Array(201).fill({ file: 'samples/0.zip' }) }),
      'more than 200 samples',
    ],
  ])('%s is refused with the reason', (_what, bytes, said) => expect(reason(bytes)).toContain(said));
  it('what its packages unpack to counts together', () => {
    // Each says 0.4 GiB of its files: one is allowed, three are not.
    const large = pack().slice();
    const view = new DataView(large.buffer);
    for (let at = 0; at < large.length - 46; at += 1)
      if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 0.2 * 1024 ** 3, true);
    expect(reason(study([large, large, large]))).toContain('larger than 1 GiB');
  });
});
