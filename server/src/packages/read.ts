// Reading a package: nothing of it is believed before its paths, sizes and hashes are looked at.
import { createHash } from 'node:crypto';
import type { SampleDossier } from '@lastmark/contract';
import { strFromU8, unzipSync } from 'fflate';
import { isPlainPath, MANIFEST, type Manifest, PACKAGE_FORM, PACKAGE_LIMITS, PACKAGE_VERSION } from './form.ts';

/** Why a package is not taken, in a sentence. */
export class PackageRefused extends Error {}

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Unpack it, each file looked at by its head first. */
function unpacked(bytes: Uint8Array): Readonly<Record<string, Uint8Array>> {
  if (bytes.length > PACKAGE_LIMITS.packed) throw new PackageRefused('It is larger than 512 MiB: no package is.');
  let files = 0;
  let total = 0;
  const names = new Set<string>();
  const look = ({ name, originalSize }: { readonly name: string; readonly originalSize: number }): boolean => {
    files += 1;
    total += originalSize;
    if (!isPlainPath(name)) throw new PackageRefused(`“${name.slice(0, 80)}” is no path of a package.`);
    if (names.has(name)) throw new PackageRefused(`“${name}” stands in it twice.`);
    names.add(name);
    if (files > PACKAGE_LIMITS.files) throw new PackageRefused(`It has more than ${PACKAGE_LIMITS.files} files.`);
    if (total > PACKAGE_LIMITS.unpacked) throw new PackageRefused('Unpacked it would be larger than 1 GiB.');
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

function manifestOf(files: Readonly<Record<string, Uint8Array>>): Manifest {
  const value = parsed(files[MANIFEST], MANIFEST);
  if (!isRecord(value) || value.form !== PACKAGE_FORM) throw new PackageRefused('It is no package of Lastmark.');
  if (typeof value.version !== 'number' || !Number.isInteger(value.version) || value.version < 1)
    throw new PackageRefused('Its manifest does not say which version it is.');
  if (value.version > PACKAGE_VERSION)
    throw new PackageRefused(
      `It is of version ${value.version}, from a newer Lastmark; this one reads up to ${PACKAGE_VERSION}.`,
    );
  const { sample, files: listed } = value;
  if (!isRecord(sample) || typeof sample.file !== 'string' || !Array.isArray(listed))
    throw new PackageRefused('Its manifest is not whole.');
  // Every part of it that is used was looked at.
  return value as unknown as Manifest;
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

/**
 * A package, whole and unchanged, or why not.
 * @throws PackageRefused
 */
export function readPackage(bytes: Uint8Array): ReadPackage {
  const files = unpacked(bytes);
  const manifest = manifestOf(files);
  const listed = new Set<string>([MANIFEST]);
  for (const one of manifest.files as readonly unknown[]) {
    if (!isRecord(one) || typeof one.path !== 'string' || typeof one.sha256 !== 'string')
      throw new PackageRefused('Its manifest is not whole.');
    const content = files[one.path];
    if (!content) throw new PackageRefused(`${one.path} is listed and not there.`);
    if (sha256(content) !== one.sha256)
      throw new PackageRefused(`${one.path} is not what its manifest says: it was changed.`);
    listed.add(one.path);
  }
  const stranger = Object.keys(files).find((path) => !listed.has(path));
  if (stranger !== undefined) throw new PackageRefused(`${stranger} is not in its manifest.`);
  const value = parsed(files[manifest.sample.file], manifest.sample.file);
  const dossier = isRecord(value) ? value.dossier : null;
  if (!isRecord(dossier) || !isRecord(dossier.sample) || !isRecord(dossier.profile))
    throw new PackageRefused(`${manifest.sample.file} is no sample.`);
  const missing = LISTS.find((name) => !Array.isArray(dossier[name]));
  if (missing !== undefined) throw new PackageRefused(`${manifest.sample.file} has no ${missing}.`);
  return { manifest, dossier: dossier as unknown as SampleDossier, files };
}
