// What operations ask and answer beyond the stored things, and how large a body may be.
import type { FilePlan } from '@lastmark/core/meter-file';
import type { Reading } from '@lastmark/core/reading';
import type { SampleKind } from '@lastmark/core/verdict';
import type { ShelfOrder } from './types.ts';

export const MIB = 1024 * 1024;

/** Largest attachment, bytes. */
export const ATTACHMENT_LIMIT = 20 * MIB;
/** Largest meter file, bytes. */
export const IMPORT_LIMIT = 64 * MIB;
/** Largest file of a capture, bytes: 64 million samples in single precision. */
export const CAPTURE_LIMIT = 256 * MIB + MIB;

/** Largest package, bytes. */
export const PACKAGE_LIMIT = 512 * MIB;

export interface Health {
  status: string;
  database: string;
  version: string;
}

export interface Items<T> {
  items: T[];
}

export interface PageQuery {
  readonly page?: number;
  readonly size?: number;
}

export interface ShelfQuery extends PageQuery {
  /** Id of the one they are in. */
  readonly collection?: string;
  readonly q?: string;
  readonly kind?: SampleKind;
  /** One of their labels. */
  readonly label?: string;
  /** Those that were put by, and no others. */
  readonly archived?: boolean;
  readonly sort?: ShelfOrder;
  /** Largest first. */
  readonly down?: boolean;
}

export type ReadingRow = Reading & { readonly pointId: string };

/** The columns of a meter file, as they were understood last. */
export interface ColumnMap {
  readonly headerKey: string;
  readonly plan: FilePlan;
}
