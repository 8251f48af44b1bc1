// A sample, or a study of several, as one archive that another bench can read: what stands in it, and under which names.

/** What the archive calls itself, and which shape of it this is. */
export const PACKAGE_FORM = 'lastmark-package';
export const PACKAGE_VERSION = 1;

export const MANIFEST = 'manifest.json';

export interface PackedFile {
  readonly path: string;
  readonly bytes: number;
  /** SHA-256, hexadecimal. */
  readonly sha256: string;
  /** What it is: sample, table, table schema, trace, trace description, attachment, report. */
  readonly what: string;
}

export interface Manifest {
  readonly form: typeof PACKAGE_FORM;
  readonly version: number;
  /** UTC ISO 8601 */
  readonly made: string;
  readonly sample: { readonly id: string; readonly title: string; readonly file: string };
  /** Every other file of the archive. */
  readonly files: readonly PackedFile[];
}

/** What an archive of several samples calls itself: each a whole package in it, with what spans them beside. */
export const STUDY_FORM = 'lastmark-study';
export const STUDY_VERSION = 1;
/** Rows of what spans the samples of a study, or of trials of one sample alone. */
export const ROWS = 'rows.json';

export interface StudyManifest {
  readonly form: typeof STUDY_FORM;
  readonly version: number;
  /** UTC ISO 8601 */
  readonly made: string;
  readonly title: string;
  readonly samples: readonly { readonly id: string; readonly title: string; readonly file: string }[];
  readonly files: readonly PackedFile[];
}

/** A path an archive may hold: plain names below each other, nothing that leads out of it. */
export const isPlainPath = (path: string): boolean =>
  path.length <= 240 &&
  /^[A-Za-z0-9][A-Za-z0-9._-]*(?:\/[A-Za-z0-9][A-Za-z0-9._-]*){0,4}$/.test(path) &&
  !path.includes('..');

/** Largest archive that is read, everything in it unpacked, and how many files. */
export const PACKAGE_LIMITS = { packed: 512 * 1024 * 1024, unpacked: 1024 * 1024 * 1024, files: 20_000 } as const;
