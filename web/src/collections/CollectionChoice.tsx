// One collection of the shelf, or all of it; nothing where there is none.
import NativeSelect from '@mui/material/NativeSelect';
import { useCollections } from './queries.ts';

interface Props {
  /** Id; empty for the whole shelf. */
  readonly value: string;
  readonly onChange: (id: string) => void;
}

export function CollectionChoice({ value, onChange }: Props) {
  const collections = useCollections();
  if (collections.length === 0) return null;
  return (
    <NativeSelect
      value={value}
      onChange={(event) => onChange(event.target.value)}
      inputProps={{ 'aria-label': 'Collection' }}
      sx={{ minWidth: 160, maxWidth: 260 }}
    >
      <option value="">All collections</option>
      {collections.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </NativeSelect>
  );
}
