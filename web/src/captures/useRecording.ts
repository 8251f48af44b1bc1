// A file read away from the screen before it is kept: its figures, its picture, and its samples to send.
import { useQuery } from '@tanstack/react-query';
import { proxy, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { CapturePreview, CaptureWork, PreviewHead } from '../workers/capture.worker.ts';
import { NO_FILES, type RecordingFiles, recordingFiles } from './recordingFiles.ts';

/** A larger file is sent as its samples alone, which are read already. */
const SENT_WHOLE = 4 * 1024 * 1024;

function useWork() {
  const [{ worker, work }] = useState(() => {
    const started = new Worker(new URL('../workers/capture.worker.ts', import.meta.url), { type: 'module' });
    return { worker: started, work: wrap<CaptureWork>(started) };
  });
  // Closing stops the reading wherever it is, and leaves nothing behind.
  useEffect(() => () => worker.terminate(), [worker]);
  return work;
}

/** @param head what figures depend on; null until it is chosen */
export function useRecording(head: PreviewHead | null) {
  const work = useWork();
  const [{ file, description }, setFiles] = useState<RecordingFiles>(NO_FILES);
  const [read, setRead] = useState(0);
  const [only, setOnly] = useState<readonly string[] | null>(null);
  const preview = useQuery({
    queryKey: [
      'capture-preview',
      head,
      only,
      ...[file, description].map((one) => one && [one.name, one.size, one.lastModified]),
    ],
    enabled: file !== null && head !== null,
    gcTime: 0,
    retry: false,
    queryFn: async (): Promise<CapturePreview> =>
      file && head
        ? work.preview(head, { file, description, only }, proxy(setRead))
        : { ok: false, reason: 'Choose a supply first.', all: [] },
  });
  return {
    file,
    /** Bytes read so far. */
    read,
    reading: preview.isFetching,
    seen: preview.data,
    /** Columns that count; null for all. */
    only,
    setOnly,
    take: (files: readonly File[]) => {
      const taken = recordingFiles(files, file);
      if (!taken.file) return;
      setRead(0);
      setOnly(null);
      setFiles(taken);
    },
    /** What is sent: the file as it is, or its samples. */
    sent: async (): Promise<Blob | null> => {
      if (!file || (file.size <= SENT_WHOLE && !description && !only)) return file;
      const samples = await work.packed();
      return samples ? new Blob([samples as Uint8Array<ArrayBuffer>]) : file;
    },
  };
}

export type Recording = ReturnType<typeof useRecording>;
