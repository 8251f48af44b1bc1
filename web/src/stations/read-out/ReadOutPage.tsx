// Read-out: what each port says it offers, drawn, checked and compared.
import type { StoredReadOut } from '@lastmark/contract/types';
import { bestReadOut, conditionsLine, currentReadOuts } from '@lastmark/core/read-out';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { lazy, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { ulid } from 'ulid';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { Choice } from '../../parts/fields.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';
import { Compare, readOutName } from './Compare.tsx';
import { EntryDialog } from './EntryDialog.tsx';
import { Findings } from './Findings.tsx';
import { OfferTable } from './OfferTable.tsx';
import { SignalTable } from './SignalTable.tsx';
import { Stated, StatedLine } from './Stated.tsx';

const LevelMap = lazy(async () => ({ default: (await import('./LevelMap.tsx')).LevelMap }));
const ALL = 'all';

function NothingYet({ onAdd }: { readonly onAdd: () => void }) {
  const { sample } = useSample().dossier;
  const hasPorts = sample.model.ports.length > 0;
  return (
    <Box sx={{ p: 4, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Typography variant="h2">Nothing read out yet</Typography>
      <Typography sx={{ my: 1.5 }} color="text.secondary">
        {hasPorts
          ? 'Attach an analyser to a port and paste what it shows: words, whole messages, a list, or type levels one by one.'
          : 'Enter the ports at Intake first.'}
      </Typography>
      {hasPorts ? (
        <Button variant="contained" onClick={onAdd}>
          Enter a read-out
        </Button>
      ) : (
        <Button variant="contained" component={Link} to={`/samples/${sample.id}/intake`}>
          Go to Intake
        </Button>
      )}
    </Box>
  );
}

/** Take back a read-out; the raw one stays, and undoing brings it back. */
function useWithdraw(sampleId: string) {
  const notify = useNotify();
  const send = (body: StoredReadOut) => api(`/samples/${sampleId}/read-outs`, { method: 'POST', body });
  return useMutation({
    mutationFn: async (readOut: StoredReadOut) => {
      const body = { ...readOut, id: ulid(), supersedes: readOut.id, withdrawn: true };
      await send(body);
      return readOut;
    },
    onSuccess: (readOut) =>
      notify('Taken back.', () => {
        void send({ ...readOut, id: ulid(), supersedes: null }).then(() => refreshSample(sampleId));
      }),
    onError: (error) => notify(error.message),
    onSettled: () => refreshSample(sampleId),
  });
}

export function ReadOutPage() {
  const { dossier, verdict } = useSample();
  const { sample, instruments } = dossier;
  const [params, setParams] = useSearchParams();
  const [entry, setEntry] = useState<StoredReadOut | 'new' | null>(null);
  const withdraw = useWithdraw(sample.id);
  const standing = currentReadOuts(dossier.readOuts);
  const labels = sample.model.ports.map(({ label }) => label);
  const [firstRead] = labels.filter((label) => standing.some(({ port }) => port === label));
  const port = params.get('port') ?? firstRead ?? labels[0] ?? '';
  const own = standing.filter((one) => one.port === port);
  const chosen = own.find(({ id }) => id === params.get('read-out')) ?? bestReadOut(own, port);
  const shown = port === ALL ? labels.flatMap((label) => bestReadOut(standing, label) ?? []) : chosen ? [chosen] : [];
  const ids = shown.map(({ id }) => id);
  const findings = verdict.results['read-out'].findings.filter(({ readOutIds, port: of }) =>
    port === ALL ? true : of === port && readOutIds.some((id) => ids.includes(id)),
  );
  const analyser = instruments.find(({ id }) => id === chosen?.instrumentId);
  const caption = `${sample.model.maker} ${sample.model.model}, unit ${sample.tag}: what ${port === ALL ? 'each port offers' : `${port} offers${chosen ? `, ${conditionsLine(chosen)}` : ''}`}`;
  return (
    <Box sx={{ maxWidth: 1180 }}>
      <PageHead title="Read-out">
        {port !== ALL && chosen && (
          <>
            <Button onClick={() => setEntry(chosen)}>Correct it</Button>
            <Button onClick={() => withdraw.mutate(chosen)} disabled={withdraw.isPending}>
              Take it back
            </Button>
          </>
        )}
        <Button variant="contained" onClick={() => setEntry('new')} disabled={labels.length === 0}>
          Enter a read-out
        </Button>
      </PageHead>
      {labels.length > 0 && (
        <Tabs
          value={port}
          onChange={(_event, to: string) => setParams({ port: to }, { replace: true })}
          aria-label="Ports"
          sx={{ mb: 1.5, borderBottom: 1, borderColor: 'divider' }}
        >
          {labels.map((label) => (
            <Tab key={label} value={label} label={standing.some((one) => one.port === label) ? label : `${label} –`} />
          ))}
          {labels.length > 1 && <Tab value={ALL} label="All ports" />}
        </Tabs>
      )}
      {shown.length === 0 ? (
        <NothingYet onAdd={() => setEntry('new')} />
      ) : (
        <>
          {port !== ALL && chosen && (
            <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 0.5, mb: 1.5 }}>
              {own.length > 1 ? (
                <Choice
                  label="Read-out"
                  value={chosen.id}
                  options={own.map((one) => ({ value: one.id, label: readOutName(one) }))}
                  onChange={(id) => setParams({ port, 'read-out': id }, { replace: true })}
                />
              ) : (
                <Typography>{readOutName(chosen)}</Typography>
              )}
              <Typography variant="body2" color="text.secondary">
                By {analyser?.name ?? 'an analyser'}
                {analyser?.firmware && `, firmware ${analyser.firmware}`}. Advertised is not proven: that is for Proof.
                {chosen.note && ` ${chosen.note}`}
              </Typography>
              <StatedLine {...chosen} />
            </Box>
          )}
          <Later what="the map" height={figureHeight(330)}>
            <LevelMap readOuts={shown.filter(({ words }) => words.length > 0)} caption={caption} />
          </Later>
          <Box sx={{ mt: 2 }}>
            <Typography variant="h2" sx={{ mb: 0.5 }}>
              Findings
            </Typography>
            <Findings
              findings={findings}
              withPort={port === ALL}
              none="Nothing to report: order, levels and currents are as the power rules want them."
            />
          </Box>
          <OfferTable readOuts={shown} />
          {port !== ALL && chosen && <Stated {...chosen} />}
          <SignalTable readOuts={standing} />
          <Compare readOuts={port === ALL ? standing : own} />
        </>
      )}
      {withdraw.error && <Alert severity="error">{withdraw.error.message}</Alert>}
      {entry && (
        <EntryDialog
          port={port === ALL ? (labels[0] ?? '') : port}
          correct={entry === 'new' ? null : entry}
          onClose={() => setEntry(null)}
        />
      )}
    </Box>
  );
}
