// The shelf: every sample with its key figures, found by words and kind.
import type { SampleRow } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import FormControl from '@mui/material/FormControl';
import InputLabel from '@mui/material/InputLabel';
import OutlinedInput from '@mui/material/OutlinedInput';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { lazy, Suspense, useDeferredValue, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { shelfQuery } from '../api/queries.ts';
import { CollectionChoice } from '../collections/CollectionChoice.tsx';
import { PAGE_SIDE, PageHead } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { usePageTitle } from '../parts/usePageTitle.ts';
import { useNarrow } from '../state/useNarrow.ts';
import { ByOthers } from '../together/ByOthers.tsx';
import { DemoNote } from './DemoNote.tsx';
import { Searches } from './Searches.tsx';
import { SelectedBar } from './SelectedBar.tsx';
import { ShelfTable } from './ShelfTable.tsx';

const EmptyShelf = lazy(async () => ({ default: (await import('./EmptyShelf.tsx')).EmptyShelf }));

const KINDS = [
  ['', 'All'],
  ['wall', 'Wall'],
  ['desktop', 'Desktop'],
  ['car', 'Car'],
  ['cable', 'Cable'],
] as const;

/** What is searched for, without how it is sorted; empty for all. */
function searchOf(params: URLSearchParams): string {
  const kept = new URLSearchParams();
  for (const name of ['q', 'kind', 'label', 'collection', 'archived']) {
    const value = params.get(name);
    if (value) kept.set(name, value);
  }
  return kept.toString();
}

const counted = (total: number): string => (total === 1 ? '1 sample' : `${total} samples`);

/** A search as it is called. What a collection is called not everybody may know. */
const searchTitle = (params: URLSearchParams): string =>
  [
    params.get('q'),
    params.get('kind'),
    params.get('label'),
    params.get('collection') ? 'one collection' : '',
    params.get('archived') === 'true' ? 'archived' : '',
  ]
    .filter(Boolean)
    .join(', ');

export function ShelfPage() {
  usePageTitle('Shelf');
  const narrow = useNarrow();
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '';
  const kind = params.get('kind') ?? '';
  const sort = params.get('sort') ?? '';
  const down = params.get('down') === 'true';
  const label = params.get('label') ?? '';
  const collection = params.get('collection') ?? '';
  const archived = params.get('archived') === 'true';
  const [selected, setSelected] = useState<ReadonlyMap<string, SampleRow> | null>(null);
  const query = useInfiniteQuery({
    ...shelfQuery({ q: useDeferredValue(q).trim(), kind, label, collection, archived, sort, down }),
    placeholderData: keepPreviousData,
  });
  const change = (part: Record<string, string>) => {
    const next = new URLSearchParams({
      q,
      kind,
      label,
      collection,
      archived: archived ? 'true' : '',
      sort,
      down: down ? 'true' : '',
      ...part,
    });
    for (const [name, value] of [...next]) if (value === '') next.delete(name);
    setParams(next, { replace: true });
  };
  const current = searchOf(params);
  // As they are filed now.
  const now = new Map((query.data?.pages ?? []).flatMap(({ items }) => items.map((row) => [row.id, row] as const)));
  const select = (row: SampleRow) => {
    const next = new Map(selected);
    if (!next.delete(row.id)) next.set(row.id, row);
    setSelected(next);
  };
  return (
    <Box
      sx={{
        px: PAGE_SIDE,
        pt: 2.5,
        pb: 2,
        height: narrow ? '80vh' : '100vh',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <PageHead title="Shelf">
        <Button component={Link} to="/compare">
          Compare
        </Button>
        <Button aria-pressed={archived} onClick={() => change({ archived: archived ? '' : 'true' })}>
          {archived ? 'Archived: back to the shelf' : 'Archived'}
        </Button>
        {selected === null && <Button onClick={() => setSelected(new Map())}>Select several</Button>}
        <Button variant="contained" component={Link} to="/samples/new">
          Take in a sample
        </Button>
      </PageHead>
      <Stack direction="row" useFlexGap sx={{ mb: 0.5, gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <FormControl size="small" sx={{ flex: '0 1 360px', minWidth: 220 }}>
          <InputLabel htmlFor="find">Find by maker, model, serial or tag</InputLabel>
          <OutlinedInput
            id="find"
            label="Find by maker, model, serial or tag"
            type="search"
            value={q}
            onChange={(event) => change({ q: event.target.value })}
          />
        </FormControl>
        <Box
          role="group"
          aria-label="Kind"
          sx={{ display: 'flex', border: 1, borderColor: 'divider', borderRadius: 1, overflow: 'hidden' }}
        >
          {KINDS.map(([id, title]) => (
            <Button
              key={title}
              aria-pressed={kind === id}
              onClick={() => change({ kind: id })}
              sx={{
                borderRadius: 0,
                px: 2,
                color: 'text.primary',
                bgcolor: 'background.paper',
                '&[aria-pressed=true]': { bgcolor: 'primary.main', color: 'primary.contrastText' },
              }}
            >
              {title}
            </Button>
          ))}
        </Box>
        <Typography color="text.secondary" role="status">
          {query.data ? counted(query.data.pages[0]?.total ?? 0) : ''}
        </Typography>
        <CollectionChoice value={collection} onChange={(next) => change({ collection: next })} />
        {label !== '' && <Chip label={`labelled ${label}`} onDelete={() => change({ label: '' })} />}
      </Stack>
      {/* Room of its own from the first moment: what is fetched for it moves nothing. */}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1.5, minHeight: 36, mb: 1 }}>
        <DemoNote />
        <Searches
          current={current}
          title={searchTitle(params)}
          onOpen={(query) => setParams(new URLSearchParams(query))}
        />
        <ByOthers list="shelf" query={query} />
      </Box>
      {selected !== null && (
        <SelectedBar
          selected={[...selected.keys()].map((id) => now.get(id) ?? (selected.get(id) as SampleRow))}
          archived={archived}
          onDone={() => setSelected(null)}
        />
      )}
      <QueryGate query={query} what="the shelf">
        {({ pages }) => {
          const rows: SampleRow[] = pages.flatMap(({ items }) => items);
          if (rows.length === 0)
            return (
              <Suspense fallback={null}>
                <EmptyShelf narrowed={{ q, kind, label, collection, archived }} onClear={() => setParams({})} />
              </Suspense>
            );
          return (
            <ShelfTable
              rows={rows}
              total={pages[0]?.total ?? rows.length}
              order={{ sort, down }}
              selected={selected}
              onSelect={select}
              onLabel={(next) => change({ label: next })}
              onOrder={(next) => change({ sort: next.sort, down: next.down ? 'true' : '' })}
              onEnd={() => query.hasNextPage && !query.isFetchingNextPage && void query.fetchNextPage()}
            />
          );
        }}
      </QueryGate>
    </Box>
  );
}
