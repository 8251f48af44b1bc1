// The collections there are: what is in them, who sees it, until when.
import type { Collection } from '@lastmark/contract/collections';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, versionTag } from '../api/client.ts';
import { Ask } from '../parts/Ask.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { useNotify } from '../state/notices.tsx';
import { CollectionDialog } from './CollectionDialog.tsx';
import { collectionsQuery, namesQuery, refreshCollections, seenWords } from './queries.ts';

export function Collections() {
  const found = useQuery(collectionsQuery);
  const names = useQuery(namesQuery).data?.items ?? [];
  const notify = useNotify();
  const [open, setOpen] = useState<Collection | 'new' | null>(null);
  const remove = useMutation({
    mutationFn: (one: Collection) =>
      api(`/collections/${one.id}`, { method: 'DELETE', ifMatch: versionTag(one), real: true }),
    onSuccess: refreshCollections,
    onError: (error) => notify(error.message),
  });
  const nameOf = (id: string) => names.find((one) => one.id === id)?.name;
  return (
    <Box component="section" aria-labelledby="collections" sx={{ mt: 4 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'baseline', mb: 1 }}>
        <Typography variant="h2" id="collections" sx={{ flex: 1 }}>
          Collections
        </Typography>
        <Button onClick={() => setOpen('new')}>Make a collection</Button>
      </Box>
      <QueryGate query={found} what="the collections">
        {({ items }) =>
          items.length === 0 ? (
            <Typography color="text.secondary">
              None yet: the whole lab sees every sample. Make one for guests, or for what is under an embargo.
            </Typography>
          ) : (
            <QuietTable<Collection>
              label="Collections"
              rows={items}
              rowKey={({ id }) => id}
              columns={[
                { head: 'Name', cell: ({ name }) => name },
                {
                  head: 'Samples',
                  cell: ({ id, name, samples }) =>
                    samples > 0 ? (
                      <Box
                        component={Link}
                        to={`/?collection=${id}`}
                        aria-label={`${samples} in ${name}, on the shelf`}
                        sx={{ color: 'text.primary' }}
                      >
                        {samples}
                      </Box>
                    ) : (
                      samples
                    ),
                },
                {
                  head: 'Seen by',
                  cell: (one) => (one.closed ? <Box sx={{ fontWeight: 600 }}>◆ {seenWords(one)}</Box> : seenWords(one)),
                },
                {
                  head: 'Named',
                  cell: ({ people }) => people.flatMap((id) => nameOf(id) ?? []).join(', '),
                  empty: 'nobody',
                },
                {
                  head: 'Do',
                  cell: (one) => (
                    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
                      <Button size="small" onClick={() => setOpen(one)} aria-label={`Change ${one.name}`}>
                        Change
                      </Button>
                      {one.samples === 0 && (
                        <Ask
                          button="Remove"
                          says={`${one.name} goes. Nothing is in it.`}
                          yes="Remove it"
                          no="Leave it"
                          onYes={() => remove.mutate(one)}
                        />
                      )}
                    </Box>
                  ),
                },
              ]}
            />
          )
        }
      </QueryGate>
      {open !== null && <CollectionDialog collection={open === 'new' ? null : open} onClose={() => setOpen(null)} />}
    </Box>
  );
}
