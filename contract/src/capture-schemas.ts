// Schemas of captures.
import { CAPTURE_KINDS } from '@lastmark/core/capture';
import { ATTACHED } from '@lastmark/core/reading';
import { boolean, number, string } from 'yup';
import { id, mains, moment, oneOf, optionalText, record, si } from './parts.ts';

const head = record({
  id: id(),
  kind: oneOf(CAPTURE_KINDS),
  mains: mains(),
  setupId: string().strict().max(26).nullable().defined(),
  load: si(0, 1.5).required(),
  port: string().strict().max(24).nullable().defined(),
  attached: oneOf(ATTACHED),
  rigId: id(),
  takenAt: moment().required(),
  source: optionalText(260),
  note: optionalText(400),
  supersedes: id().nullable().defined(),
  withdrawn: boolean().strict().defined(),
});

/** A capture: from the file sent with it, from a scope, or neither to take one back. */
export const captureInput = record({
  capture: head,
  scopeId: id().nullable().defined(),
});

export const captureTraceQuery = record({ buckets: number().integer().min(10).max(5000) }).strict(false);
