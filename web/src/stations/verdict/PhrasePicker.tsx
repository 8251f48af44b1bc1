// Words used before, to be taken again.
import type { Phrase } from '@lastmark/contract/types';
import type { Language } from '@lastmark/core/conclusion';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../api/client.ts';

interface Props {
  readonly language: Language;
  /** The drafted sentence that is worded; null for own words. */
  readonly sentence: string | null;
  readonly onTake: (text: string) => void;
}

/** Nothing where nobody wrote such words yet. */
export function PhrasePicker({ language, sentence, onTake }: Props) {
  const { data } = useQuery({
    queryKey: ['phrases', language],
    queryFn: ({ signal }) => api<{ items: Phrase[] }>(`/phrases?language=${language}`, { signal }),
  });
  const phrases = (data?.items ?? []).filter((one) => one.sentence === sentence).map(({ text }) => text);
  if (phrases.length === 0) return null;
  return (
    <Autocomplete
      size="small"
      options={phrases}
      value={null}
      blurOnSelect
      onChange={(_event, text) => text !== null && onTake(text)}
      renderInput={(parts) => <TextField {...parts} label="Used before" />}
    />
  );
}
