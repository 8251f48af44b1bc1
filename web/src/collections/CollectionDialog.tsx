// A collection: what it is called, until when it is closed, and who sees it all the same.
import type { Collection } from '@lastmark/contract/collections';
import type { Person } from '@lastmark/contract/people';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { api, versionTag } from '../api/client.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { momentText } from '../parts/moment.ts';
import { namesQuery, refreshCollections } from './queries.ts';

interface Form {
  name: string;
  /** By the clock of whoever types; empty for none. */
  until: string;
  people: string[];
}

const NOBODY: readonly Person[] = [];

/** @throws Error for a moment that is none */
function momentOf(until: string): string | null {
  if (until.trim() === '') return null;
  const at = new Date(until);
  if (Number.isNaN(at.getTime()))
    throw new Error('The end of the embargo is a day and a time, such as 2027-03-01 09:00.');
  return at.toISOString();
}

interface Props {
  readonly collection: Collection | null;
  readonly onClose: () => void;
}

export function CollectionDialog({ collection, onClose }: Props) {
  const names = useQuery(namesQuery).data?.items ?? NOBODY;
  const form = useTyped<Form>({
    name: collection?.name ?? '',
    until: collection?.embargo ? momentText(collection.embargo).replace(' ', 'T') : '',
    people: collection?.people ?? [],
  });
  return (
    <FormDialog
      title={collection ? `Change ${collection.name}` : 'Make a collection'}
      form={form}
      action={collection ? 'Keep' : 'Make it'}
      ready={form.values.name.trim() !== ''}
      onClose={onClose}
      onSave={async ({ name, until, people }) => {
        const body = { name: name.trim(), embargo: momentOf(until), people };
        await (collection
          ? api(`/collections/${collection.id}`, {
              method: 'PUT',
              body,
              ifMatch: versionTag(collection),
              real: true,
            })
          : api('/collections', { method: 'POST', body, real: true }));
        await refreshCollections();
      }}
    >
      <TextInput control={form.control} name="name" label="Name" max={80} required />
      <TextInput
        control={form.control}
        name="until"
        label="Embargo until"
        max={40}
        more={{
          type: 'datetime-local',
          // The browser's own calendar sign is drawn for the theme that is on.
          sx: (theme) => ({ '& input': { colorScheme: theme.palette.mode } }),
          slotProps: { inputLabel: { shrink: true } },
          helperText: 'Until then only those named below and admins see its samples. Empty: the whole lab sees them.',
        }}
      />
      <Autocomplete
        multiple
        disableCloseOnSelect
        options={names}
        value={names.filter(({ id }) => form.values.people.includes(id))}
        getOptionLabel={({ name }) => name}
        isOptionEqualToValue={(one, other) => one.id === other.id}
        getOptionKey={({ id }) => id}
        onChange={(_event, chosen) => form.set({ people: chosen.map(({ id }) => id) })}
        renderInput={(params) => (
          <TextField
            {...params}
            label="People who see it"
            helperText="Guests see samples they are named for, and no others."
          />
        )}
      />
    </FormDialog>
  );
}
