// One run sheet: its steps in order, edited in place and kept at once, and the start of a run.
import type { SheetInput, StoredSheet } from '@lastmark/contract/plan';
import type { SampleDossier } from '@lastmark/contract/types';
import { USUAL_BENDS } from '@lastmark/core/bends';
import { loadedPlaces, orderFindings, type SheetStep, sheetSeconds, stepSeconds } from '@lastmark/core/plan';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, versionTag } from '../api/client.ts';
import {
  dossierQuery,
  instrumentProfilesQuery,
  instrumentsQuery,
  leasesQuery,
  queryClient,
  rigsQuery,
  sheetQuery,
} from '../api/queries.ts';
import { asMethod, methodVersionsQuery, versionWords } from '../methods/queries.ts';
import { Ask } from '../parts/Ask.tsx';
import { Choice } from '../parts/fields.tsx';
import { PAGE_SIDE } from '../parts/Page.tsx';
import { Loading, QueryGate } from '../parts/QueryGate.tsx';
import { usePageTitle } from '../parts/usePageTitle.ts';
import { useNotify } from '../state/notices.tsx';
import { AddStepDialog } from './AddStepDialog.tsx';
import { ByItself } from './ByItself.tsx';
import { HandWork } from './HandWork.tsx';
import { LimitFields } from './LimitFields.tsx';
import { SheetGaps } from './SheetGaps.tsx';
import { SkipDialog } from './SkipDialog.tsx';
import { StartForm } from './StartForm.tsx';
import { StepList } from './StepList.tsx';
import { howLong } from './words.ts';

/** Saves every change at once; each can be undone. */
function useSheet(sheet: StoredSheet) {
  const notify = useNotify();
  const { queryKey } = sheetQuery(sheet.id);
  const save = useMutation({
    mutationFn: ({ input }: { readonly input: SheetInput; readonly said?: string; readonly before?: SheetInput }) =>
      api<StoredSheet>(`/run-sheets/${sheet.id}`, {
        method: 'PUT',
        body: input,
        ifMatch: versionTag(queryClient.getQueryData<StoredSheet>(queryKey) ?? sheet),
      }),
    onSuccess: (saved, { said, before }) => {
      queryClient.setQueryData(queryKey, saved);
      void queryClient.invalidateQueries({ queryKey: ['run-sheets', 'list'] });
      if (said) notify(said, before && (() => save.mutate({ input: before })));
    },
    onError: () => queryClient.invalidateQueries({ queryKey }),
  });
  const { title, rigId, steps, conditions } = sheet;
  const before: SheetInput = { title, rigId, steps, conditions };
  return {
    error: save.error,
    pending: save.isPending,
    change: (part: Partial<SheetInput>, said: string) => save.mutate({ input: { ...before, ...part }, said, before }),
  };
}

interface SheetProps {
  readonly sheet: StoredSheet;
  readonly dossier: SampleDossier;
}

function Sheet({ sheet, dossier }: SheetProps) {
  const navigate = useNavigate();
  const { data: rigs } = useQuery(rigsQuery);
  const { change, error } = useSheet(sheet);
  const [open, setOpen] = useState<'add' | SheetStep | null>(null);
  const { steps } = sheet;
  const { data: versions } = useQuery(methodVersionsQuery(sheet.methodId));
  const made = versions?.items.find(({ version }) => version === sheet.methodVersion) ?? versions?.items[0];
  const method = made && asMethod(made);
  const remove = useMutation({
    mutationFn: () => api(`/run-sheets/${sheet.id}`, { method: 'DELETE', ifMatch: versionTag(sheet) }),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: ['run-sheets', 'list'] });
      void navigate('/run-sheets');
    },
  });
  const findings = orderFindings(steps);
  const rig = rigs?.items.find(({ id }) => id === sheet.rigId);
  const watched = steps.filter(({ attended, skip }) => attended && skip === null);
  const { model, unit, tag } = dossier.sample;
  const replace = (changed: SheetStep) => steps.map((step) => (step.id === changed.id ? changed : step));
  return (
    <Box sx={{ px: PAGE_SIDE, pt: 2.5, pb: 6, maxWidth: 1400 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1, mb: 0.5 }}>
        <Typography variant="h1" sx={{ flex: 1, overflowWrap: 'anywhere' }}>
          {model.maker} {model.model}, {unit.serial || tag}: {sheet.title}
        </Typography>
        <Button component={Link} to={`/samples/${sheet.sampleId}/verdict`}>
          The sample
        </Button>
        <Ask
          button="Remove the sheet"
          says={`${steps.length === 1 ? 'Its one step goes' : `Its ${steps.length} steps go`} with it. This cannot be undone.`}
          yes="Remove it"
          no="Keep it"
          color="error"
          onYes={() => remove.mutate()}
        />
      </Stack>
      <Typography color="text.secondary" sx={{ mb: 1.5 }}>
        {made ? `${made.method.title}, ${versionWords(made)}. ${made.method.says}` : ' '}
      </Typography>
      <Stack direction="row" sx={{ gap: 3, mb: 1.5, alignItems: 'center', fontVariantNumeric: 'tabular-nums' }}>
        <Box>
          <strong>{steps.filter(({ skip }) => skip === null).length}</strong> steps
        </Box>
        <Box>
          about <strong>{howLong(sheetSeconds(steps))}</strong>
        </Box>
        <Box>
          someone there for <strong>{howLong(watched.reduce((sum, step) => sum + stepSeconds(step), 0))}</strong>
        </Box>
        <Box sx={{ width: 240 }}>
          <Choice
            label="Rig"
            value={rigs ? sheet.rigId : ''}
            options={(rigs?.items ?? []).map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(rigId) => change({ rigId }, 'Another rig.')}
          />
        </Box>
      </Stack>
      {(error ?? remove.error) && (
        <Alert severity="error" sx={{ mb: 1.5 }}>
          {(error ?? remove.error)?.message}
        </Alert>
      )}
      <StartForm
        sampleId={dossier.sample.id}
        rigId={sheet.rigId}
        path={`/run-sheets/${sheet.id}/runs`}
        action="Start the run"
      />
      <LimitFields sample={dossier.sample} />
      <ByItself
        steps={steps}
        conditions={sheet.conditions}
        onChange={(conditions) => change({ conditions }, 'The conditions are kept.')}
      />
      {rig && <HandWork steps={steps} rig={rig} />}
      {model.kind !== 'cable' && <SheetGaps steps={steps} dossier={dossier} />}
      {findings.map((finding) => (
        <Alert key={finding} severity="warning" sx={{ mb: 1 }}>
          {finding}
        </Alert>
      ))}
      <Stack direction="row" sx={{ alignItems: 'center', mb: 1, mt: 2 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Steps
        </Typography>
        <Button variant="outlined" onClick={() => setOpen('add')}>
          Add a step
        </Button>
      </Stack>
      <StepList
        steps={steps}
        onMove={(moved) => change({ steps: moved }, 'Moved.')}
        onSkip={(step) =>
          step.skip === null ? setOpen(step) : change({ steps: replace({ ...step, skip: null }) }, 'It is done again.')
        }
      />
      {open === 'add' && method && (
        <AddStepDialog
          sheet={sheet}
          method={method}
          ports={loadedPlaces(model)}
          bending={dossier.profile.bends ?? USUAL_BENDS}
          onAdd={(step) => {
            setOpen(null);
            change({ steps: [...steps, step] }, 'Added at the end; move it where it belongs.');
          }}
          onClose={() => setOpen(null)}
        />
      )}
      {open !== null && open !== 'add' && (
        <SkipDialog
          title={open.title}
          onSkip={(reason) => {
            setOpen(null);
            change({ steps: replace({ ...open, skip: reason }) }, 'Left out.');
          }}
          onClose={() => setOpen(null)}
        />
      )}
    </Box>
  );
}

/** A sheet with everything it shows: at once, so that nothing moves what stands there already. */
function Whole({ sheet }: { readonly sheet: StoredSheet }) {
  usePageTitle(`${sheet.title} · Run sheet`);
  const dossier = useQuery(dossierQuery(sheet.sampleId));
  const rigs = useQuery(rigsQuery);
  const instruments = useQuery(instrumentsQuery);
  const profiles = useQuery(instrumentProfilesQuery);
  const leases = useQuery(leasesQuery);
  const versions = useQuery(methodVersionsQuery(sheet.methodId));
  // What of these cannot be had is left out: the sheet is there without.
  if ([rigs, instruments, profiles, leases, versions].some(({ isPending }) => isPending))
    return <Loading what="the run sheet" />;
  return (
    <QueryGate query={dossier} what="the run sheet">
      {(found) => <Sheet sheet={sheet} dossier={found} />}
    </QueryGate>
  );
}

export function SheetPage() {
  const { sheetId = '' } = useParams();
  const sheet = useQuery(sheetQuery(sheetId));
  return (
    <QueryGate query={sheet} what="the run sheet">
      {(found) => <Whole key={found.id} sheet={found} />}
    </QueryGate>
  );
}
