// Every report that was issued; and what is known of a printed code.
import type { CodeAnswer } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { apiUrl } from '../api/world.ts';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { codeQuery, reportsQuery } from './queries.ts';
import { ReportTable } from './ReportTable.tsx';

const LOUD: Readonly<Record<CodeAnswer['state'], 'success' | 'info' | 'warning' | 'error'>> = {
  untouched: 'success',
  amended: 'warning',
  unknown: 'info',
  damaged: 'error',
};

/** What a code comes to, in a sentence. */
function answerWords({ state, report, newest, code }: CodeAnswer): string {
  if (state === 'unknown' || !report) return `${code} is unknown here: nobody issued it from this Lastmark.`;
  const issued = `${report.title}, issued ${report.issuedAt.slice(0, 10)} by ${report.person}`;
  if (state === 'damaged') return `${issued}: its record is not what was issued. Do not rely on it; look into backups.`;
  if (state === 'amended' && newest)
    return `${issued}, and amended since: ${newest.code} of ${newest.issuedAt.slice(0, 10)}${newest.fate ? `, ${newest.fate}` : ''}. ${newest.reason}`;
  return `${issued}: untouched.`;
}

/** What is kept for the answer while it is looked up, px. */
const ANSWER_HEIGHT = 48;

function Answer({ code }: { readonly code: string }) {
  const query = useQuery(codeQuery(code));
  return (
    <QueryGate query={query} what="the code" height={ANSWER_HEIGHT}>
      {(answer) => <Answered answer={answer} />}
    </QueryGate>
  );
}

function Answered({ answer }: { readonly answer: CodeAnswer }) {
  const { report, newest, state } = answer;
  const shown = newest ?? report;
  return (
    <Alert severity={LOUD[state]} icon={false} role="status">
      {answerWords(answer)}{' '}
      {shown && state !== 'damaged' && (
        <>
          <a href={apiUrl(`/reports/${shown.id}/report.pdf`)} target="_blank" rel="noreferrer">
            Open {newest ? 'the newest' : 'it'}
          </a>{' '}
          or <Link to={`/samples/${shown.sampleId}/verdict`}>go to the sample</Link>.
        </>
      )}
    </Alert>
  );
}

export function ReportsPage() {
  const [params, setParams] = useSearchParams();
  const asked = params.get('code') ?? '';
  const [typed, setTyped] = useState(asked);
  const query = useQuery(reportsQuery(null));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed.trim() !== '') setParams({ code: typed.trim() }, { replace: true });
  };
  return (
    <Page title="Reports">
      <Box component="form" onSubmit={submit} noValidate sx={{ display: 'flex', gap: 1, maxWidth: 560, mb: 1.5 }}>
        <TextField
          label="Code on a print"
          placeholder="as 7K2M-PQ4X-8N3V-5TH0"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 40, autoComplete: 'off', spellCheck: false } }}
        />
        <Button type="submit" variant="outlined" disabled={typed.trim() === ''} sx={{ whiteSpace: 'nowrap' }}>
          Check it
        </Button>
      </Box>
      {asked !== '' && (
        <Box sx={{ mb: 2, maxWidth: 900 }}>
          <Answer code={asked} />
        </Box>
      )}
      <QueryGate query={query} what="the reports">
        {({ items }) =>
          items.length === 0 ? (
            <Typography color="text.secondary">
              No report was issued yet. Open a sample’s Verdict and issue its report there.
            </Typography>
          ) : (
            <ReportTable items={items} ofAll />
          )
        }
      </QueryGate>
    </Page>
  );
}
