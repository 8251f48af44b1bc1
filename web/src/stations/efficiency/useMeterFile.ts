// A dropped meter file: recognised and read in a worker, its columns as remembered or guessed, kept when agreed.
import type { ImportOutcome, StoredSetup } from '@lastmark/contract/types';
import { LOAD_POINTS } from '@lastmark/core/efficiency';
import {
  type FileContext,
  type FilePlan,
  type FileReading,
  headerKey,
  planProblems,
  recall,
} from '@lastmark/core/meter-file';
import { type Mains, mainsLabel } from '@lastmark/core/reading';
import { useMutation, useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { api } from '../../api/client.ts';
import { columnMapsQuery, queryClient, refreshSample } from '../../api/queries.ts';
import { fileText } from '../../parts/fileText.ts';
import { useSample, useSupplies } from '../../state/sample.tsx';
import type { MeterFileWork } from '../../workers/meterFile.worker.ts';

/** Largest file taken; the server's limit leaves room for its envelope. */
const LARGEST = 48 * 1024 * 1024;

function useWorker() {
  const [{ worker, work }] = useState(() => {
    const started = new Worker(new URL('../../workers/meterFile.worker.ts', import.meta.url), { type: 'module' });
    return { worker: started, work: wrap<MeterFileWork>(started) };
  });
  useEffect(() => () => worker.terminate(), [worker]);
  return work;
}

export interface Sniffed {
  readonly text: string;
  readonly plan: FilePlan;
  readonly remembered: boolean;
}

/** The clock on the wall here when the file was written, minutes ahead of universal time. */
export const offsetOf = ({ lastModified }: Pick<File, 'lastModified'>): number =>
  -new Date(lastModified).getTimezoneOffset();

export function useMeterFile(file: File, setup: StoredSetup) {
  const { dossier } = useSample();
  const supplies = useSupplies();
  const work = useWorker();
  const maps = useQuery(columnMapsQuery);
  const ports = setup.outputs.map(({ port }) => port);
  const [plan, setPlan] = useState<FilePlan | null>(null);
  const [wholeFileMains, setWholeFileMains] = useState<Mains | null>(null);

  const sniffed = useQuery({
    queryKey: ['meter-file', file.name, file.lastModified, file.size, setup.id],
    enabled: maps.isFetched,
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
    queryFn: async (): Promise<Sniffed> => {
      if (file.size > LARGEST) throw new Error(`${file.name} is larger than 48 MB. Split it.`);
      const text = await fileText(file);
      const found = await work.sniff(text, ports);
      if ('reason' in found) throw new Error(found.reason);
      const key = headerKey(found.columns);
      const known = maps.data?.items.find((one) => one.headerKey === key)?.plan;
      return { text, plan: known ? recall(found, known, text, ports) : found, remembered: known !== undefined };
    },
  });
  const current = plan ?? sniffed.data?.plan ?? null;
  const context = useMemo<FileContext>(
    () => ({ outputs: setup.outputs, mains: supplies, wholeFileMains, loads: LOAD_POINTS }),
    [setup.outputs, supplies, wholeFileMains],
  );
  const problems = current ? planProblems(current, context) : [];
  const text = sniffed.data?.text;
  const reading = useQuery({
    queryKey: [
      'meter-file-read',
      file.name,
      file.lastModified,
      file.size,
      setup.id,
      current,
      wholeFileMains && mainsLabel(wholeFileMains),
    ],
    enabled: text !== undefined && current !== null && problems.length === 0,
    gcTime: 0,
    retry: false,
    queryFn: (): Promise<FileReading> => work.read(text ?? '', current as FilePlan, context),
  });
  const keep = useMutation({
    mutationFn: ({ keepGood, again }: { readonly keepGood: boolean; readonly again: boolean }) =>
      api<ImportOutcome>(`/samples/${dossier.sample.id}/imports`, {
        method: 'POST',
        body: {
          fileName: file.name,
          plan: current,
          setupId: setup.id,
          wholeFileMains,
          keepGood,
          again,
          takenAt: new Date(file.lastModified).toISOString(),
          offsetMinutes: offsetOf(file),
        },
        file: text ?? '',
      }),
    onSuccess: async () => {
      await refreshSample(dossier.sample.id);
      await queryClient.invalidateQueries({ queryKey: ['column-maps'] });
      await queryClient.invalidateQueries({ queryKey: ['attachments', dossier.sample.id] });
    },
  });
  return { sniffed, plan: current, setPlan, wholeFileMains, setWholeFileMains, problems, reading, keep };
}
