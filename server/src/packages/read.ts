// Reading a package: nothing of it is believed before its paths, sizes and hashes are looked at.
import { createHash } from 'node:crypto';
import { MOST_IN_STUDY, type SampleDossier } from '@lastmark/contract';
import { strFromU8, unzipSync } from 'fflate';
import {
  isPlainPath,
  MANIFEST,
  type Manifest,
  PACKAGE_FORM,
  PACKAGE_LIMITS,
  PACKAGE_VERSION,
  STUDY_FORM,
  STUDY_VERSION,
  type StudyManifest,
} from './form.ts';

/** Why a package is not taken, in a sentence. */
export class PackageRefused extends Error {}

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

type Files = Readonly<Record<string, Uint8Array>>;

/** What was unpacked so far: an archive in an archive counts with it. */
interface Spent {
  files: number;
  bytes: number;
}

/** Unpack it, each file looked at by its head first. */
function unpacked(bytes: Uint8Array, spent: Spent): Files {
  if (bytes.length > PACKAGE_LIMITS.packed) throw new PackageRefused('It is larger than 512 MiB: no package is.');
  const names = new Set<string>();
  const look = ({ name, originalSize }: { readonly name: string; readonly originalSize: number }): boolean => {
    spent.files += 1;
    spent.bytes += originalSize;
    if (!isPlainPath(name)) throw new PackageRefused(`“${name.slice(0, 80)}” is no path of a package.`);
    if (names.has(name)) throw new PackageRefused(`“${name}” stands in it twice.`);
    names.add(name);
    if (spent.files > PACKAGE_LIMITS.files) throw new PackageRefused(`It has more than ${PACKAGE_LIMITS.files} files.`);
    if (spent.bytes > PACKAGE_LIMITS.unpacked) throw new PackageRefused('Unpacked it would be larger than 1 GiB.');
    return true;
  };
  try {
    return unzipSync(bytes, { filter: look });
  } catch (error) {
    if (error instanceof PackageRefused) throw error;
    throw new PackageRefused('It is no archive that can be read: it may be cut short.');
  }
}

function parsed(bytes: Uint8Array | undefined, path: string): unknown {
  if (!bytes) throw new PackageRefused(`${path} is missing.`);
  try {
    return JSON.parse(strFromU8(bytes));
  } catch {
    throw new PackageRefused(`${path} is no JSON.`);
  }
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const FORMS = { [PACKAGE_FORM]: PACKAGE_VERSION, [STUDY_FORM]: STUDY_VERSION } as const;
type Form = keyof typeof FORMS;

interface Head extends Readonly<Record<string, unknown>> {
  readonly form: Form;
  readonly files: readonly unknown[];
}

function headOf(files: Files): Head {
  const value = parsed(files[MANIFEST], MANIFEST);
  const form = isRecord(value) && Object.keys(FORMS).find((one) => one === value.form);
  if (!isRecord(value) || !form) throw new PackageRefused('It is no package of Lastmark.');
  if (typeof value.version !== 'number' || !Number.isInteger(value.version) || value.version < 1)
    throw new PackageRefused('Its manifest does not say which version it is.');
  const newest = FORMS[form as Form];
  if (value.version > newest)
    throw new PackageRefused(
      `It is of version ${value.version}, from a newer Lastmark; this one reads up to ${newest}.`,
    );
  if (!Array.isArray(value.files)) throw new PackageRefused('Its manifest is not whole.');
  return { ...value, form: form as Form, files: value.files };
}

/** Everything in it is listed, and is what its list says. */
function checkFiles(files: Files, listed: readonly unknown[]): void {
  const known = new Set<string>([MANIFEST]);
  for (const one of listed) {
    if (!isRecord(one) || typeof one.path !== 'string' || typeof one.sha256 !== 'string')
      throw new PackageRefused('Its manifest is not whole.');
    const content = files[one.path];
    if (!content) throw new PackageRefused(`${one.path} is listed and not there.`);
    if (sha256(content) !== one.sha256)
      throw new PackageRefused(`${one.path} is not what its manifest says: it was changed.`);
    known.add(one.path);
  }
  const stranger = Object.keys(files).find((path) => !known.has(path));
  if (stranger !== undefined) throw new PackageRefused(`${stranger} is not in its manifest.`);
}

/** Parts a dossier has; each a list but for three. */
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
] as const;

export interface ReadPackage {
  readonly manifest: Manifest;
  readonly dossier: SampleDossier;
  readonly files: Readonly<Record<string, Uint8Array>>;
}

interface Archive {
  readonly head: Head;
  readonly files: Files;
}

function archiveOf(bytes: Uint8Array, spent: Spent): Archive {
  const files = unpacked(bytes, spent);
  const head = headOf(files);
  checkFiles(files, head.files);
  return { head, files };
}

function sampleOf({ head, files }: Archive): ReadPackage {
  const { sample } = head;
  if (!isRecord(sample) || typeof sample.file !== 'string') throw new PackageRefused('Its manifest is not whole.');
  const value = parsed(files[sample.file], sample.file);
  const dossier = isRecord(value) ? value.dossier : null;
  if (!isRecord(dossier) || !isRecord(dossier.sample) || !isRecord(dossier.profile))
    throw new PackageRefused(`${sample.file} is no sample.`);
  const missing = LISTS.find((name) => !Array.isArray(dossier[name]));
  if (missing !== undefined) throw new PackageRefused(`${sample.file} has no ${missing}.`);
  // Every part of it that is used was looked at.
  return { manifest: head as unknown as Manifest, dossier: dossier as unknown as SampleDossier, files };
}

/** A study: packages of its samples, and what spans them. */
export interface ReadStudy {
  readonly title: string;
  readonly samples: readonly ReadPackage[];
  /** Where rows of what spans them stand; null for one sample alone. */
  readonly files: Files | null;
}

/** Each sample is a package of its own, by the same rules; a study holds no studies. */
function studyOf({ head, files }: Archive, spent: Spent): ReadStudy {
  const { samples, title } = head as unknown as Partial<StudyManifest>;
  if (!Array.isArray(samples) || samples.length === 0) throw new PackageRefused('There is no sample in it.');
  if (samples.length > MOST_IN_STUDY) throw new PackageRefused(`It has more than ${MOST_IN_STUDY} samples.`);
  const read = samples.map((one: unknown) => {
    const path = isRecord(one) && typeof one.file === 'string' ? one.file : '';
    const bytes = files[path];
    if (!bytes) throw new PackageRefused('Its manifest names a sample that is not there.');
    try {
      const inner = archiveOf(bytes, spent);
      if (inner.head.form !== PACKAGE_FORM) throw new PackageRefused('It is no package of a sample.');
      return sampleOf(inner);
    } catch (error) {
      if (error instanceof PackageRefused) throw new PackageRefused(`${path}: ${error.message}`);
      throw error;
    }
  });
  return { title: typeof title === 'string' ? title.slice(0, 200) : 'Study', samples: read, files };
}

/**
 * A package of a sample, whole and unchanged, or why not.
 * @throws PackageRefused
 */
export function readPackage(bytes: Uint8Array): ReadPackage {
  const archive = archiveOf(bytes, { files: 0, bytes: 0 });
  if (archive.head.form !== PACKAGE_FORM) throw new PackageRefused('It is a study of several samples.');
  return sampleOf(archive);
}

/**
 * A package of a sample or a study, whole and unchanged, or why not.
 * @throws PackageRefused
 */
export function readStudy(bytes: Uint8Array): ReadStudy {
  const spent = { files: 0, bytes: 0 };
  const archive = archiveOf(bytes, spent);
  if (archive.head.form === STUDY_FORM) return studyOf(archive, spent);
  const one = sampleOf(archive);
  return { title: one.manifest.sample.title, samples: [one], files: null };
}
