// Methods: the schools that ship and those of this bench, each with its versions; two of them held against each other.
import type { StoredMethod } from '@lastmark/contract/plan';
import { methodDifferences, methodFile, methodLines, readMethodFile } from '@lastmark/core/plan';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { FileButton } from '../parts/FileButton.tsx';
import { Choice } from '../parts/fields.tsx';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { saveFile } from '../parts/saveFile.ts';
import { useNotify } from '../state/notices.tsx';
import { MethodDialog } from './MethodDialog.tsx';
import { methodsQuery, methodVersionsQuery, versionWords } from './queries.ts';

const refresh = () => queryClient.invalidateQueries({ queryKey: ['methods'] });
const fileName = ({ method }: StoredMethod): string =>
  `${method.title.replace(/[^A-Za-z0-9]+/g, '-').toLowerCase()}.method.json`;

/** A method in words, and what each of its versions changed. */
function Versions({ of }: { readonly of: StoredMethod }) {
  const query = useQuery(methodVersionsQuery(of.id));
  return (
    <QueryGate query={query} what="its versions">
      {({ items }) => (
        <Box component="ol" reversed sx={{ m: 0, pl: 3 }} aria-label={`Versions of ${of.method.title}`}>
          {items.map((one, at) => {
            const before = items[at + 1];
            const changes = before ? methodDifferences(before.method, one.method) : [];
            return (
              <li key={one.version} value={one.version}>
                {versionWords(one)}
                {one.note && `: ${one.note}`}
                {changes.map(({ what, a, b }) => (
                  <Box key={what} sx={{ fontSize: 14, color: 'text.secondary' }}>
                    {what}: {a} → {b}
                  </Box>
                ))}
              </li>
            );
          })}
        </Box>
      )}
    </QueryGate>
  );
}

interface Line {
  readonly what: string;
  readonly a: string;
  readonly b: string;
  readonly differs: boolean;
}

function SideBySide({ all }: { readonly all: readonly StoredMethod[] }) {
  const [ids, setIds] = useState<readonly [string, string]>([all[0]?.id ?? '', all[2]?.id ?? all[1]?.id ?? '']);
  const [a, b] = ids.map((id) => all.find((one) => one.id === id));
  if (!a || !b) return null;
  const options = all.map(({ id, method }) => ({ value: id, label: method.title }));
  const differ = new Set(methodDifferences(a.method, b.method).map(({ what }) => what));
  const names = [...new Set([...methodLines(a.method), ...methodLines(b.method)].map(({ what }) => what))];
  const of = (one: StoredMethod, name: string) =>
    methodLines(one.method).find(({ what }) => what === name)?.says ?? '–';
  return (
    <Box component="section" aria-labelledby="side-by-side" sx={{ mt: 3 }}>
      <Typography variant="h2" id="side-by-side" sx={{ mb: 1 }}>
        Side by side
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(220px, 320px))', gap: 1.5, mb: 1.5 }}>
        <Choice label="One" value={a.id} options={options} onChange={(id) => setIds([id, ids[1]])} />
        <Choice label="Other" value={b.id} options={options} onChange={(id) => setIds([ids[0], id])} />
      </Box>
      <QuietTable<Line>
        label="Side by side"
        rows={names.map((what) => ({ what, a: of(a, what), b: of(b, what), differs: differ.has(what) }))}
        rowKey={({ what }) => what}
        columns={[
          { head: '', cell: ({ what }) => what },
          { head: a.method.title, cell: ({ a: says, differs }) => (differs ? <strong>{says}</strong> : says) },
          { head: b.method.title, cell: ({ b: says, differs }) => (differs ? <strong>{says}</strong> : says) },
        ]}
      />
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        {differ.size === 0 ? 'They do the same.' : `They differ in ${differ.size} of ${names.length}: in bold.`}
      </Typography>
    </Box>
  );
}

function Methods({ items }: { readonly items: readonly StoredMethod[] }) {
  const notify = useNotify();
  const [open, setOpen] = useState<{ readonly from: StoredMethod; readonly change: boolean } | null>(null);
  const [looked, setLooked] = useState<string | null>(null);
  const retire = useMutation({
    mutationFn: (one: StoredMethod) => api(`/methods/${one.id}`, { method: 'DELETE', ifMatch: versionTag(one) }),
    onSuccess: async (_done, one) => {
      await refresh();
      notify(`${one.method.title} is retired. Its versions stay; a new one brings it back.`);
    },
    onError: (error) => notify(error.message),
  });
  const shown = [...items].sort((a, b) => Number(a.retired) - Number(b.retired));
  return (
    <>
      <QuietTable<StoredMethod>
        label="Methods"
        rows={shown}
        rowKey={({ id }) => id}
        below={(one) => (looked === one.id ? <Versions of={one} /> : null)}
        columns={[
          {
            head: 'Method',
            cell: (one) => (
              <>
                {one.method.title}
                <Box sx={{ fontWeight: 400, fontSize: 13, color: 'text.secondary' }}>
                  {versionWords(one)}
                  {one.retired && ', retired'}
                </Box>
              </>
            ),
          },
          { head: 'What sets it apart', cell: ({ method }) => method.says },
          { head: 'For', cell: ({ method }) => method.kinds.join(', ') },
          {
            head: '',
            cell: (one) => (
              <Box sx={{ whiteSpace: 'nowrap' }}>
                {!one.builtIn && (
                  <>
                    <Button
                      size="small"
                      onClick={() => setOpen({ from: one, change: true })}
                      aria-label={`Change ${one.method.title}`}
                    >
                      Change
                    </Button>
                    <Button
                      size="small"
                      aria-expanded={looked === one.id}
                      onClick={() => setLooked(looked === one.id ? null : one.id)}
                      aria-label={`Versions of ${one.method.title}`}
                    >
                      Versions
                    </Button>
                  </>
                )}
                <Button
                  size="small"
                  onClick={() => setOpen({ from: one, change: false })}
                  aria-label={`Copy ${one.method.title}`}
                >
                  Copy
                </Button>
                <Button
                  size="small"
                  onClick={() =>
                    saveFile(fileName(one), new Blob([methodFile(one.method)], { type: 'application/json' }))
                  }
                  aria-label={`Export ${one.method.title}`}
                >
                  Export
                </Button>
                {!one.builtIn && !one.retired && (
                  <Button
                    size="small"
                    disabled={retire.isPending}
                    onClick={() => retire.mutate(one)}
                    aria-label={`Retire ${one.method.title}`}
                  >
                    Retire
                  </Button>
                )}
              </Box>
            ),
          },
        ]}
      />
      <SideBySide all={items.filter(({ retired }) => !retired)} />
      {open && <MethodDialog key={`${open.from.id} ${open.change}`} {...open} onClose={() => setOpen(null)} />}
    </>
  );
}

export function MethodsPage() {
  const query = useQuery(methodsQuery);
  const take = useMutation({
    mutationFn: async (file: File) => {
      const read = readMethodFile(await file.text());
      if ('reason' in read) throw new Error(`${file.name}: ${read.reason}`);
      return api<StoredMethod>('/methods', {
        method: 'POST',
        body: { method: read.method, note: `taken from ${file.name}`.slice(0, 400) },
      });
    },
    onSuccess: refresh,
  });
  return (
    <Page
      title="Methods"
      actions={
        <FileButton
          label="Method as a file"
          accept=".json,application/json"
          onFiles={([file]) => file && take.mutate(file)}
          button={{ variant: 'outlined', disabled: take.isPending }}
        >
          Take in a method
        </FileButton>
      }
    >
      <Typography color="text.secondary" sx={{ mb: 1.5, maxWidth: 820 }}>
        A run sheet is made by a method, and names its version. Those that ship stay as they are: copy one, and change
        the copy.
      </Typography>
      {take.error && (
        <Alert severity="error" sx={{ mb: 1.5 }}>
          Nothing was taken in. {take.error.message}
        </Alert>
      )}
      {take.data && (
        <Alert severity="success" icon={false} sx={{ mb: 1.5 }}>
          {take.data.method.title} was taken in.
        </Alert>
      )}
      <QueryGate query={query} what="the methods">
        {({ items }) => <Methods items={items} />}
      </QueryGate>
    </Page>
  );
}
