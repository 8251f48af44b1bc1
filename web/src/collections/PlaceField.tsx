// Which collection a sample is in: said beside it, chosen where it is taken in, changed where it is kept.
import type { InCollection } from '@lastmark/contract/collections';
import type { Sample } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import { useMutation } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { refreshSample } from '../api/queries.ts';
import { useMe } from '../api/who.ts';
import { Choice } from '../parts/fields.tsx';
import { useNotify } from '../state/notices.tsx';
import { refreshCollections, seenWords, useCollections } from './queries.ts';

const OWN = '';

interface FieldProps {
  readonly place: string | null;
  readonly onPlace: (place: string | null) => void;
}

/** Nothing where there are no collections. */
export function PlaceField({ place, onPlace }: FieldProps) {
  const me = useMe();
  const all = useCollections();
  if (all.length === 0) return null;
  const options = [
    // What guests put elsewhere they would see no more.
    ...(me?.guest ? [] : [{ value: OWN, label: 'The lab’s own: the whole lab sees it' }]),
    ...all.map((one) => ({ value: one.id, label: `${one.name}: ${seenWords(one)}` })),
  ];
  const value = options.some((one) => one.value === (place ?? OWN)) ? (place ?? OWN) : '';
  return (
    <Box sx={{ maxWidth: 480, mb: 2 }}>
      <Choice
        label="Collection"
        value={value}
        options={options}
        onChange={(chosen) => onPlace(chosen === OWN ? null : chosen)}
      />
    </Box>
  );
}

/** The same for a sample that is there: it is moved at once. */
export function SamplePlace({ sample }: { readonly sample: Sample }) {
  const notify = useNotify();
  const move = useMutation({
    mutationFn: (collectionId: string | null) =>
      api<InCollection>(`/samples/${sample.id}/collection`, { method: 'PUT', body: { collectionId } }),
    onSuccess: async () => {
      await Promise.all([refreshSample(sample.id), refreshCollections()]);
      notify('Moved. Whoever sees the collection sees it now.');
    },
    onError: (error) => notify(error.message),
  });
  return <PlaceField place={sample.collectionId} onPlace={(place) => move.mutate(place)} />;
}

/** Where a sample is, in a line; nothing for the lab's own. */
export function PlaceMark({ collectionId }: Pick<Sample, 'collectionId'>) {
  const found = useCollections().find(({ id }) => id === collectionId);
  if (!found) return null;
  return (
    <Box sx={{ fontSize: 13, mt: 0.5, overflowWrap: 'anywhere', fontWeight: found.closed ? 600 : 400 }}>
      {found.closed ? '◆ ' : ''}
      {found.name}
      {found.closed ? `, ${seenWords(found)}` : ''}
    </Box>
  );
}
