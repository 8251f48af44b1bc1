// What was chosen of a recording: one text file, or plain binary samples with the JSON that describes them.

/** What a file button of recordings takes. */
export const RECORDING_ACCEPTS = '.csv,.tsv,.txt,.bin,.dat,.raw,.json';

export interface RecordingFiles {
  readonly file: File | null;
  /** How the binary samples of the file are written. */
  readonly description: File | null;
}

export const NO_FILES: RecordingFiles = { file: null, description: null };

const isJson = ({ name }: File): boolean => /\.json$/i.test(name);

/**
 * @param chosen files of one choice, in any order
 * @param before the file that was there: a description chosen alone is meant for it
 */
export function recordingFiles(chosen: readonly File[], before: File | null): RecordingFiles {
  const description = chosen.find(isJson) ?? null;
  const file = chosen.find((one) => !isJson(one)) ?? null;
  if (file) return { file, description };
  if (before && !isJson(before)) return { file: before, description };
  // Nothing to describe: it is read as what it is, and its refusal says what to choose.
  return { file: description, description: null };
}
