// A field to choose a sample by words, however many there are.
import type { Page, SampleRow } from '@lastmark/contract/types';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { api } from '../api/client.ts';
import { sampleName } from './sampleName.ts';

/** A sample as it is chosen. */
export interface Chosen {
  readonly id: string;
  readonly name: string;
  readonly kind: SampleRow['kind'];
}

const MOST_FOUND = 20;

interface Props {
  readonly label?: string;
  readonly chosen: Chosen | null;
  readonly onChoose: (one: Chosen | null) => void;
}

/** What is found by words; the server looks through all of them. @param known what stands in the field already */
function useFound(known: string | undefined) {
  const [typed, setTyped] = useState('');
  const query = useDeferredValue(typed);
  const { data } = useQuery({
    queryKey: ['samples', 'to choose', query],
    queryFn: ({ signal }) =>
      api<Page<SampleRow>>(`/samples?size=${MOST_FOUND}&q=${encodeURIComponent(known === query ? '' : query)}`, {
        signal,
      }),
  });
  const options = (data?.items ?? []).map((row): Chosen => ({ id: row.id, name: sampleName(row), kind: row.kind }));
  return {
    options,
    size: 'small',
    filterOptions: (all: Chosen[]) => all,
    getOptionLabel: ({ name }: Chosen) => name,
    isOptionEqualToValue: (a: Chosen, b: Chosen) => a.id === b.id,
    onInputChange: (_event: unknown, text: string) => setTyped(text),
  } as const;
}

/** Finds a sample by words. */
export function SampleField({ label = 'Sample', chosen, onChoose }: Props) {
  const found = useFound(chosen?.name);
  return (
    <Autocomplete
      {...found}
      value={chosen}
      onChange={(_event, one) => onChoose(one)}
      renderInput={(parts) => <TextField {...parts} label={label} placeholder="Model or serial" />}
    />
  );
}

interface SeveralProps {
  readonly label: string;
  readonly chosen: readonly Chosen[];
  /** A sample that cannot be chosen. */
  readonly except?: string;
  readonly onChoose: (all: readonly Chosen[]) => void;
}

/** Finds several samples by words, one after the other. */
export function SamplesField({ label, chosen, except, onChoose }: SeveralProps) {
  const { options, ...found } = useFound(undefined);
  return (
    <Autocomplete
      {...found}
      multiple
      filterSelectedOptions
      options={options.filter(({ id }) => id !== except)}
      // The very same list while nothing is chosen: another would take away what is being typed.
      value={chosen as Chosen[]}
      onChange={(_event, all) => onChoose(all)}
      renderInput={(parts) => (
        <TextField {...parts} label={label} placeholder={chosen.length === 0 ? 'Model or serial' : ''} />
      )}
    />
  );
}
