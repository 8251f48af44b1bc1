// Taking in a package of another Lastmark: what was new, what was known, and what differs; nothing here is overwritten.
import type { TakenIn, TakenPackage } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { useMutation } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api } from '../../api/client.ts';
import { refreshAll } from '../../api/queries.ts';
import { FileButton } from '../../parts/FileButton.tsx';

const MOST_SHOWN = 20;

const WORDS: Readonly<Record<string, string>> = {
  instruments: 'instruments',
  rigs: 'rigs',
  devices: 'devices',
  claims: 'claims',
  readings: 'readings',
  captures: 'recordings',
  runs: 'runs',
  cable_runs: 'runs of a cable',
  safety_checks: 'safety checks',
  attachments: 'files',
  reports: 'reports',
};

/** What was new, in words; what nobody asks for is left out. */
const addedWords = (added: TakenIn['added']): string =>
  Object.entries(WORDS)
    .flatMap(([table, words]) => (added[table] ? [`${added[table]} ${words}`] : []))
    .join(', ');

function Outcome({ taken: { sampleId, title, added, differences, sameVerdict } }: { readonly taken: TakenIn }) {
  const words = addedWords(added);
  const nothing = Object.keys(added).length === 0;
  return (
    <Alert severity={differences.length > 0 || !sameVerdict ? 'warning' : 'success'} icon={false} sx={{ mb: 2 }}>
      <Link to={`/samples/${sampleId}/verdict`}>{title}</Link>
      {nothing ? ' was here already: nothing is new.' : ` was taken in${words ? `: ${words}` : ''}.`}
      {!sameVerdict && ' Judged by the rules of this bench it comes to another verdict than its package says.'}
      {differences.length > 0 && (
        <>
          {' '}
          {differences.length === 1 ? 'One thing' : `${differences.length} things`} here differ from the package and
          were left as they are:
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {differences.slice(0, MOST_SHOWN).map(({ table, id, fields }) => (
              <li key={`${table} ${id}`}>
                {WORDS[table] ?? table.replaceAll('_', ' ')} {id.slice(-6)}: {fields.join(', ')}
              </li>
            ))}
          </Box>
        </>
      )}
    </Alert>
  );
}

const several = (count: number, one: string, more: string): string => (count === 1 ? one : `${count} ${more}`);

function Came({ taken: { title, samples, trials, comparisons, differences } }: { readonly taken: TakenPackage }) {
  const across = [
    ...(trials > 0 ? [several(trials, 'one trial', 'trials')] : []),
    ...(comparisons > 0 ? [several(comparisons, 'one comparison', 'comparisons')] : []),
  ];
  return (
    <>
      {samples.map((one) => (
        <Outcome key={one.sampleId} taken={one} />
      ))}
      {(across.length > 0 || differences.length > 0) && (
        <Alert severity={differences.length > 0 ? 'warning' : 'success'} icon={false} sx={{ mb: 2 }}>
          {across.length > 0 && `${title}: ${across.join(' and ')} came along. `}
          {differences.length > 0 &&
            `${several(differences.length, 'One thing that spans', 'things that span')} samples differs from the package and was left as it is.`}
        </Alert>
      )}
    </>
  );
}

export function PackageIn() {
  const take = useMutation({
    mutationFn: (file: File) => api<TakenPackage>('/packages', { method: 'POST', body: { name: file.name }, file }),
    onSuccess: refreshAll,
  });
  return (
    <Box sx={{ mb: 2 }}>
      <FileButton
        label="Package of another Lastmark"
        accept=".zip,application/zip"
        onFiles={([file]) => file && take.mutate(file)}
        button={{ variant: 'outlined', disabled: take.isPending, sx: { mb: 1 } }}
      >
        {take.isPending ? 'Taking it in …' : 'Take in a package'}
      </FileButton>
      {take.error && (
        <Alert severity="error" sx={{ mb: 1 }}>
          Nothing was taken in. {take.error.message}
        </Alert>
      )}
      {take.data && <Came taken={take.data} />}
    </Box>
  );
}
