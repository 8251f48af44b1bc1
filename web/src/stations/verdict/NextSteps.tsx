// What to measure next: works of a method by what they would settle for their time; one press makes the sheet.
import type { StoredSheet } from '@lastmark/contract/plan';
import { type NextSteps as Next, nextSteps, type Work, wholeSheet } from '@lastmark/core/next';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../../api/client.ts';
import { instrumentsQuery, queryClient, rigsQuery } from '../../api/queries.ts';
import { asMethod, methodsOfKind, methodsQuery } from '../../methods/queries.ts';
import { Choice } from '../../parts/fields.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { toJudge, useSample } from '../../state/sample.tsx';

const MOST_STUCK = 12;

const timeWords = (seconds: number): string =>
  seconds < 90
    ? `${Math.round(seconds)} s`
    : seconds < 5400
      ? `${Math.round(seconds / 60)} min`
      : `${(seconds / 3600).toFixed(1)} h`;

/** Promises a work is likely to decide, in words. */
function settlesWords({ settles, expected }: Work): string {
  const names = settles.map(({ says, chance }) => (chance < 0.8 ? `${says} (${Math.round(chance * 100)} %)` : says));
  const shown = names.slice(0, 3).join(' · ');
  return `${shown}${names.length > 3 ? ` · and ${names.length - 3} more` : ''}${settles.length > 1 ? `: about ${expected.toFixed(1)} decided` : ''}`;
}

function Settles({ work }: { readonly work: Work }) {
  const remedies = [...new Set(work.settles.flatMap(({ remedy }) => remedy?.says ?? []))];
  return (
    <>
      {settlesWords(work)}
      {remedies.slice(0, 2).map((says) => (
        <Typography key={says} variant="body2" color="text.secondary">
          {says}
        </Typography>
      ))}
    </>
  );
}

/** Methods and rigs that go together, and what they would settle. */
function useNext() {
  const { dossier, verdict } = useSample();
  const { data: rigs } = useQuery(rigsQuery);
  const { data: instruments } = useQuery(instrumentsQuery);
  const [methodId, setMethod] = useState('');
  const [rigId, setRig] = useState('');
  const { data: kept } = useQuery(methodsQuery);
  const { kind } = dossier.sample.model;
  const methods = useMemo(() => {
    const able = (rigs?.items ?? []).some(({ drives }) => drives?.load);
    return methodsOfKind(kept?.items ?? [], kind)
      .map(asMethod)
      .filter(({ by }) => by === 'keypad' || able);
  }, [kept, kind, rigs]);
  const method = methods.find(({ id }) => id === methodId) ?? methods[0];
  const fitting = useMemo(
    () => (rigs?.items ?? []).filter(({ drives }) => method?.by === 'keypad' || drives?.load),
    [rigs, method],
  );
  const rig = fitting.find(({ id }) => id === rigId) ?? fitting[0];
  const next = useMemo((): Next | null => {
    if (!method || !rig || !instruments) return null;
    const judged = toJudge(dossier);
    const { rule, allowance, tolerance, continuous } = judged.profile;
    return nextSteps({
      steps: wholeSheet(method, judged, verdict),
      claims: judged.claims,
      results: verdict.claims,
      devices: judged.devices,
      rig,
      rigs: fitting,
      instruments: instruments.items,
      rules: { rule, allowance, tolerance, continuous },
    });
  }, [dossier, verdict, method, rig, fitting, instruments]);
  return {
    methods,
    method,
    setMethod,
    fitting,
    rig,
    setRig,
    next,
    ready: rigs !== undefined && instruments !== undefined && kept !== undefined,
  };
}

export function NextSteps() {
  const { dossier } = useSample();
  const navigate = useNavigate();
  const { methods, method, setMethod, fitting, rig, setRig, next, ready } = useNext();
  const make = useMutation({
    mutationFn: (works: readonly Work[]) =>
      api<StoredSheet>(`/samples/${dossier.sample.id}/run-sheets`, {
        method: 'POST',
        body: {
          methodId: method?.id,
          rigId: rig?.id,
          claimIds: works.flatMap(({ settles }) => settles.map(({ claimId }) => claimId)),
        },
      }),
    onSuccess: async ({ id }) => {
      await queryClient.invalidateQueries({ queryKey: ['run-sheets', 'list'] });
      void navigate(`/run-sheets/${id}`);
    },
  });
  if (dossier.claims.length === 0 || !ready) return null;
  const works = next?.works ?? [];
  const until = (work: Work) => works.slice(0, works.indexOf(work) + 1);
  const after = (work: Work) => until(work).reduce((sum, { seconds }) => sum + seconds, 0);
  return (
    <Box component="section" aria-labelledby="next" sx={{ mb: 2.5 }}>
      <Typography variant="h2" id="next" sx={{ mb: 1 }}>
        What to measure next
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(220px, 320px))', gap: 1.5, mb: 1.5 }}>
        <Choice
          label="Method"
          value={method?.id ?? ''}
          options={methods.map(({ id, title }) => ({ value: id, label: title }))}
          onChange={setMethod}
        />
        <Choice
          label="Rig"
          value={rig?.id ?? ''}
          options={fitting.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={setRig}
        />
      </Box>
      {!rig && <Typography color="text.secondary">No rig can measure it. Put one together at Bench.</Typography>}
      {next?.open === 0 && <Typography>Every promise is settled.</Typography>}
      {make.error && (
        <Alert severity="error" sx={{ mb: 1 }}>
          {make.error.message}
        </Alert>
      )}
      {works.length > 0 && (
        <QuietTable<Work>
          label="What to measure next"
          rows={works}
          rowKey={({ stepIds }) => stepIds.join()}
          columns={[
            { head: 'Measure', cell: ({ title }) => title },
            { head: 'Settles', cell: (work) => <Settles work={work} /> },
            {
              head: 'Takes',
              cell: ({ seconds, attended }) =>
                `${timeWords(seconds)}${attended > 0 && attended < seconds ? `, ${timeWords(attended)} with somebody there` : attended > 0 ? ', somebody there' : ''}`,
            },
            { head: 'All so far', cell: (work) => timeWords(after(work)) },
            {
              head: '',
              cell: (work) => (
                <Button size="small" disabled={make.isPending} onClick={() => make.mutate(until(work))}>
                  {works[0] === work ? 'Make the sheet' : 'Sheet down to here'}
                </Button>
              ),
            },
          ]}
        />
      )}
      {next && next.stuck.length > 0 && (
        <Box component="details" sx={{ mt: 1 }} open={works.length === 0}>
          <Box component="summary" sx={{ cursor: 'pointer', minHeight: 24, fontWeight: 600 }}>
            {next.stuck.length === 1 ? 'One promise' : `${next.stuck.length} promises`} this method and rig decide
            nothing of
          </Box>
          <Box component="ul" aria-label="Not decided by more time" sx={{ m: 0, pl: 2.5, fontSize: 14 }}>
            {next.stuck.slice(0, MOST_STUCK).map(({ claimId, says, why }) => (
              <li key={claimId}>
                <strong>{says}</strong>: {why}
              </li>
            ))}
            {next.stuck.length > MOST_STUCK && <li>and {next.stuck.length - MOST_STUCK} more</li>}
          </Box>
        </Box>
      )}
    </Box>
  );
}
