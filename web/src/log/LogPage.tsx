// Who did what when: by sample, person and words, the newest first, with what it changed and a way back where there is one.
import type { LogPage as Entries, LogRow } from '@lastmark/contract/log';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { infiniteQueryOptions, useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { loggedText, momentText } from '../parts/moment.ts';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { useNotify } from '../state/notices.tsx';
import { ByOthers } from '../together/ByOthers.tsx';
import { ChainDialog } from './ChainDialog.tsx';

const PAGE = 50;

interface Filter {
  readonly sample: string;
  readonly person: string;
  readonly thing: string;
  readonly q: string;
}

const logQuery = (filter: Filter) =>
  infiniteQueryOptions({
    queryKey: ['log', filter],
    initialPageParam: '',
    queryFn: ({ pageParam, signal }) => {
      const query = new URLSearchParams({ size: String(PAGE) });
      for (const [name, value] of Object.entries({ ...filter, before: pageParam })) if (value) query.set(name, value);
      return api<Entries>(`/log?${query}`, { signal });
    },
    getNextPageParam: ({ next }) => next ?? undefined,
  });

function Change({ was, is, field }: LogRow['changes'][number]) {
  return (
    <Box component="li">
      {field}: {was !== null && <Box component="del">{loggedText(was)}</Box>}
      {was !== null && is !== null && ' → '}
      {is !== null ? <Box component="ins">{loggedText(is)}</Box> : ' (taken away)'}
    </Box>
  );
}

function Entry({ entry, onUndo }: { readonly entry: LogRow; readonly onUndo: (() => void) | null }) {
  const { at, who, personId, what, sample, sampleId, changes, moreChanges, unknownBefore, undoes, through } = entry;
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '160px 168px minmax(0, 1fr) auto' },
        columnGap: 2,
        rowGap: 0.25,
        px: 1.5,
        py: 1,
        borderTop: 1,
        borderColor: 'divider',
        '&:first-of-type': { borderTop: 0 },
      }}
    >
      <Box component="time" dateTime={at} sx={{ color: 'text.secondary', fontVariantNumeric: 'tabular-nums' }}>
        {momentText(at)}
      </Box>
      <Box>
        {personId ? (
          <Box component={Link} to={`/log?person=${personId}`} sx={{ color: 'text.primary' }}>
            {who}
          </Box>
        ) : (
          who
        )}
        {through === 'token' && <Box sx={{ fontSize: 13, color: 'text.secondary' }}>by a script</Box>}
        {through === 'server' && personId && <Box sx={{ fontSize: 13, color: 'text.secondary' }}>in their run</Box>}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ fontWeight: 600 }}>
          {undoes && '↶ Put back: '}
          {what}
        </Box>
        {sample && sampleId && (
          <Box component={Link} to={`/samples/${sampleId}`} sx={{ color: 'text.primary', fontSize: 14 }}>
            {sample}
          </Box>
        )}
        {(changes.length > 0 || unknownBefore) && (
          <Box
            component="ul"
            sx={{
              m: 0,
              pl: 2,
              fontSize: 14,
              overflowWrap: 'anywhere',
              '& del': { color: 'text.secondary' },
              '& ins': { textDecoration: 'none', fontWeight: 600 },
            }}
          >
            {changes.map((change, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: an entry never changes, and says some things twice.
              <Change key={at} {...change} />
            ))}
            {moreChanges > 0 && <li>and {moreChanges} more</li>}
            {unknownBefore && <li>What it was before is in no entry.</li>}
          </Box>
        )}
      </Box>
      <Box>
        {onUndo && (
          <Button size="small" onClick={onUndo} aria-label={`Undo: ${what}, ${momentText(at)}`}>
            Undo
          </Button>
        )}
      </Box>
    </Box>
  );
}

export function LogPage() {
  const [params, setParams] = useSearchParams();
  const notify = useNotify();
  const [typed, setTyped] = useState(params.get('q') ?? '');
  const q = useDeferredValue(typed.trim());
  const of = (name: string) => params.get(name) ?? '';
  const filter: Filter = { sample: of('sample'), person: of('person'), thing: of('thing'), q };
  const log = useInfiniteQuery(logQuery(filter));
  const [checking, setChecking] = useState(false);
  const undo = useMutation({
    mutationFn: ({ id }: LogRow) => api<LogRow>(`/log/${id}/undo`, { method: 'POST' }),
    onSuccess: () => {
      notify('Put back as it was.');
      return queryClient.invalidateQueries();
    },
    onError: (error) => notify(error.message),
  });
  const entries = log.data?.pages.flatMap(({ items }) => items) ?? [];
  const [first] = entries;
  const narrowed = filter.sample || filter.person || filter.thing;
  return (
    <Page title="Log" actions={<Button onClick={() => setChecking(true)}>Check the chain</Button>}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', mb: 2 }}>
        <TextField
          label="Words, a name, a value"
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
          sx={{ width: 320 }}
          slotProps={{ htmlInput: { maxLength: 80 } }}
        />
        {narrowed && (
          <>
            <Box>
              {filter.person && `What ${first?.who ?? 'this person'} did`}
              {filter.sample && `What happened to ${first?.sample ?? 'this sample'}`}
              {filter.thing && 'What happened to one thing'}
            </Box>
            <Button onClick={() => setParams({})}>Show everything</Button>
          </>
        )}
        <ByOthers list="log" sampleId={filter.sample} query={log} />
      </Box>
      {checking && <ChainDialog onClose={() => setChecking(false)} />}
      <QueryGate query={log} what="the log">
        {() =>
          entries.length === 0 ? (
            <Typography>{q || narrowed ? 'Nothing like this was done.' : 'Nothing was done yet.'}</Typography>
          ) : (
            <Box
              component="ol"
              aria-label="Log"
              sx={{
                listStyle: 'none',
                m: 0,
                p: 0,
                border: 1,
                borderColor: 'divider',
                borderRadius: 1,
                bgcolor: 'background.paper',
              }}
            >
              {entries.map((entry) => (
                <Entry
                  key={entry.id}
                  entry={entry}
                  onUndo={entry.canUndo && !undo.isPending ? () => undo.mutate(entry) : null}
                />
              ))}
            </Box>
          )
        }
      </QueryGate>
      {log.hasNextPage && (
        <Button sx={{ mt: 1.5 }} disabled={log.isFetchingNextPage} onClick={() => void log.fetchNextPage()}>
          {log.isFetchingNextPage ? 'Being fetched …' : 'Show earlier ones'}
        </Button>
      )}
    </Page>
  );
}
