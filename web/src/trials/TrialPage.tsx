// One trial: what is to be run next, the pairs as lines, and what it says.
import type { StoredTrial } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import {
  analyseBlocks,
  type BlockTrial,
  standingRuns,
  type TrialRun,
  trialOrder,
  trialWords,
} from '@lastmark/core/trial';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { lazy, useMemo } from 'react';
import { useNavigate, useParams } from 'react-router';
import { ulid } from 'ulid';
import { api, versionTag } from '../api/client.ts';
import { queryClient, trialQuery } from '../api/queries.ts';
import { Ask } from '../parts/Ask.tsx';
import { FindingList } from '../parts/FindingList.tsx';
import { figureHeight } from '../parts/heights.ts';
import { Later } from '../parts/Later.tsx';
import { PAGE_SIDE, PageHead } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { usePageTitle } from '../parts/usePageTitle.ts';
import { Key } from './Key.tsx';
import { MatrixResultView } from './MatrixResultView.tsx';
import { NextRun, useAddTrialRun } from './NextRun.tsx';
import { LETTERS, measureWords, namesOf, slotWords } from './trialForm.ts';
import { lettered } from './trialSays.ts';

const PairChart = lazy(async () => ({ default: (await import('./PairChart.tsx')).PairChart }));

const CHART = 320;

function Says({ stored }: { readonly stored: StoredTrial }) {
  const trial = useMemo(() => lettered(stored), [stored]);
  return trial.kind === 'matrix' ? (
    <MatrixResultView trial={trial} runs={stored.runs} />
  ) : (
    <Blocks stored={stored} trial={trial} />
  );
}

function Blocks({ stored, trial }: { readonly stored: StoredTrial; readonly trial: BlockTrial }) {
  const { names, result } = useMemo(() => {
    const said = namesOf(stored.trial, stored.letters);
    return { names: said, result: analyseBlocks(trial, stored.runs, said) };
  }, [stored, trial]);
  if (result.comparisons.length === 0) return null;
  return (
    <Box component="section" aria-label="What it says" sx={{ mb: 2 }}>
      {result.comparisons.map(({ sentence, from, to, called }) => (
        <Typography key={`${from} ${to}`} sx={{ fontSize: 20, fontWeight: called ? 600 : 400, mb: 0.5 }}>
          {sentence}
        </Typography>
      ))}
      {!result.finished && (
        <Typography color="text.secondary">
          {result.complete} of {result.planned} whole: looked at before its end, a trial is called too easily.
        </Typography>
      )}
      <FindingList findings={result.findings} />
      <Later what="the chart" height={figureHeight(CHART)}>
        <PairChart trial={trial} runs={stored.runs} names={names} result={result} height={CHART} />
      </Later>
    </Box>
  );
}

function Runs({ stored }: { readonly stored: StoredTrial }) {
  const { trial, letters } = stored;
  const add = useAddTrialRun(stored.id);
  const runs = standingRuns(stored.runs);
  if (runs.length === 0) return null;
  const unlike = ({ held }: TrialRun) =>
    held.filter((one) => trial.held.find(({ name }) => name === one.name)?.value !== one.value);
  return (
    <Box component="section" aria-label="Runs">
      <Typography variant="h2" sx={{ mb: 1 }}>
        Runs, in the order taken
      </Typography>
      <QuietTable<TrialRun>
        label="Runs"
        height={420}
        rows={runs}
        rowKey={({ id }) => id}
        columns={[
          { head: 'Taken', cell: ({ takenAt }) => takenAt.slice(0, 16).replace('T', ' ') },
          { head: trial.kind === 'blocks' ? 'Pair' : 'Repeat', number: true, cell: ({ block }) => String(block + 1) },
          { head: 'Which', cell: ({ cell }) => slotWords(trial, cell, letters) },
          {
            head: measureWords(trial.measure),
            number: true,
            cell: ({ value }) => formatPlain(value, trial.measure.quantity).replace(/ .*$/, ''),
          },
          {
            head: 'Note',
            cell: (run) =>
              [run.note, ...unlike(run).map(({ name, value }) => `${name}: ${value}`)].filter(Boolean).join(' · '),
            empty: '',
          },
          {
            head: '',
            cell: (run) => (
              <Button
                size="small"
                disabled={add.isPending}
                aria-label={`Take back ${slotWords(trial, run.cell, letters)}, ${run.block + 1}`}
                onClick={() => add.mutate({ ...run, id: ulid(), supersedes: run.id, withdrawn: true })}
              >
                Take back
              </Button>
            ),
          },
        ]}
      />
      {add.error && <Alert severity="error">{add.error.message}</Alert>}
    </Box>
  );
}

function Loaded({ stored }: { readonly stored: StoredTrial }) {
  const navigate = useNavigate();
  const { trial } = stored;
  usePageTitle(`${trial.question} · Trial`);
  const blind = trial.kind === 'blocks' && trial.blind;
  const finished = standingRuns(stored.runs).length >= trialOrder(trial).length;
  const reveal = useMutation({
    mutationFn: () => api<StoredTrial>(`/trials/${stored.id}/reveal`, { method: 'POST' }),
    onSuccess: (next) => queryClient.setQueryData(trialQuery(stored.id).queryKey, next),
  });
  const remove = useMutation({
    mutationFn: () => api<void>(`/trials/${stored.id}`, { method: 'DELETE', ifMatch: versionTag(stored) }),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: ['trials', 'list'] });
      void navigate('/trials');
    },
  });
  return (
    <Box sx={{ px: PAGE_SIDE, pt: 2.5, pb: 6, maxWidth: 1100 }}>
      <PageHead title={trial.question}>
        {blind && stored.letters === null && <Key trialId={stored.id} arms={trial.arms} />}
        {blind && stored.letters === null && finished && (
          <Button variant="contained" disabled={reveal.isPending} onClick={() => reveal.mutate()}>
            Open the letters
          </Button>
        )}
        {blind && stored.letters === null && !finished && (
          <Ask
            button="Open the letters"
            says="Before its end? What is run afterwards is not blind any more: the trial ends here."
            yes="Open them"
            no="Go on blind"
            onYes={() => reveal.mutate()}
          />
        )}
        {stored.runs.length === 0 && (
          <Ask
            button="Remove"
            color="error"
            says="The plan goes, with the order that was drawn. This cannot be undone."
            yes="Remove it"
            no="Keep it"
            onYes={() => remove.mutate()}
          />
        )}
      </PageHead>
      <Typography color="text.secondary" sx={{ mb: 1.5 }}>
        {trialWords(trial)}; {measureWords(trial.measure)}; held:{' '}
        {trial.held.map(({ name, value }) => `${name} ${value}`).join(', ') || 'nothing written down'}.
        {blind &&
          stored.letters !== null &&
          trial.kind === 'blocks' &&
          ` Run blind: ${stored.letters.map((at, letter) => `${LETTERS[letter]} was ${trial.arms[at]?.name}`).join(', ')}.`}
        {stored.keyOpenedAt && ` The key was opened ${stored.keyOpenedAt.slice(0, 16).replace('T', ' ')} UTC.`}
      </Typography>
      {[reveal.error, remove.error].map(
        (error) =>
          error && (
            <Alert key={error.message} severity="error" sx={{ mb: 1 }}>
              {error.message}
            </Alert>
          ),
      )}
      <NextRun stored={stored} />
      <Says stored={stored} />
      <Runs stored={stored} />
    </Box>
  );
}

export function TrialPage() {
  const { trialId = '' } = useParams();
  const query = useQuery(trialQuery(trialId));
  return (
    <QueryGate query={query} what="the trial">
      {(stored) => <Loaded key={stored.id} stored={stored} />}
    </QueryGate>
  );
}
