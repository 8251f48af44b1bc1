// A field to choose a sample by words, however many there are.
import type { Page, SampleRow } from '@lastmark/contract/types';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { api } from '../api/client.ts';

/** A sample as it is chosen. */
export interface Chosen {
  readonly id: string;
  readonly name: string;
  readonly kind: SampleRow['kind'];
}

const MOST_FOUND = 20;
/** A sample as it is called in a list. */
export const sampleName = ({ maker, model, serial, tag }: Pick<SampleRow, 'maker' | 'model' | 'serial' | 'tag'>) =>
  `${maker} ${model}, ${serial || tag}`;

interface Props {
  readonly label?: string;
  readonly chosen: Chosen | null;
  readonly onChoose: (one: Chosen | null) => void;
}

/** Finds a sample by words; the server looks through all of them. */
export function SampleField({ label = 'Sample', chosen, onChoose }: Props) {
  const [typed, setTyped] = useState('');
  const query = useDeferredValue(typed);
  const { data } = useQuery({
    queryKey: ['samples', 'to choose', query],
    queryFn: ({ signal }) =>
      api<Page<SampleRow>>(`/samples?size=${MOST_FOUND}&q=${encodeURIComponent(chosen?.name === query ? '' : query)}`, {
        signal,
      }),
  });
  const options = (data?.items ?? []).map((row): Chosen => ({ id: row.id, name: sampleName(row), kind: row.kind }));
  return (
    <Autocomplete
      size="small"
      options={options}
      value={chosen}
      filterOptions={(all) => all}
      getOptionLabel={({ name }) => name}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      onInputChange={(_event, text) => setTyped(text)}
      onChange={(_event, one) => onChoose(one)}
      renderInput={(parts) => <TextField {...parts} label={label} placeholder="Model or serial" />}
    />
  );
}
