// Devices: whole charges first, then what each device took at each port, and what an empty cell would settle.
import type { Compared, SessionResult } from '@lastmark/core/charge';
import { fixed } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useCapture } from '../../captures/useCapture.ts';
import { Caution } from '../../parts/Caution.tsx';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { Choice } from '../../parts/fields.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';
import { Board } from './Board.tsx';
import { ChargeDialog } from './ChargeDialog.tsx';
import { ForetoldTable } from './ForetoldTable.tsx';
import { Grid } from './Grid.tsx';

const ChargeChart = lazy(async () => ({ default: (await import('./ChargeChart.tsx')).ChargeChart }));

const CompareChart = lazy(async () => ({ default: (await import('./CompareChart.tsx')).CompareChart }));

const CHART_HEIGHT = 300;
const COMPARE_HEIGHT = 280;
const MINUTE = 60;
const minutes = (seconds: number | null): string | null => (seconds === null ? null : fixed(seconds / MINUTE, 0));

function Sessions({
  sessions,
  onShow,
}: {
  readonly sessions: readonly SessionResult[];
  readonly onShow: (captureId: string) => void;
}) {
  const { dossier } = useSample();
  const { takeBack } = useCapture();
  const notify = useNotify();
  const back = ({ captureId }: SessionResult) => {
    const capture = dossier.captures.find(({ id }) => id === captureId);
    if (capture) takeBack.mutate(capture, { onError: (error) => notify(error.message) });
  };
  const not = 'not reached';
  return (
    <QuietTable<SessionResult>
      label="Charges"
      rows={sessions}
      rowKey={({ captureId }) => captureId}
      columns={[
        {
          head: 'Charge',
          cell: ({ captureId, title }) => (
            <Button
              size="small"
              onClick={() => onShow(captureId)}
              sx={{ p: 0, textAlign: 'left', justifyContent: 'start' }}
            >
              {title}
            </Button>
          ),
        },
        { head: '50 %, min', number: true, cell: ({ session }) => minutes(session.times[50]), empty: not },
        { head: '80 %, min', number: true, cell: ({ session }) => minutes(session.times[80]), empty: not },
        { head: '100 %, min', number: true, cell: ({ session }) => minutes(session.times[100]), empty: not },
        {
          head: 'Energy, Wh',
          number: true,
          cell: ({ session }) => (session.energy === null ? null : fixed(session.energy, 1)),
          empty: 'not logged',
        },
        {
          head: 'After full, W',
          number: true,
          cell: ({ session }) => (session.afterFull === null ? null : fixed(session.afterFull, 2)),
          empty: 'log on after it',
        },
        {
          head: '',
          cell: (one) => (
            <Button size="small" color="error" disabled={takeBack.isPending} onClick={() => back(one)}>
              Take back
            </Button>
          ),
        },
      ]}
    />
  );
}

/** Two places of one device at a time: what came of it, and the picture over the levels they share. */
function Comparisons({
  compared,
  sessions,
}: {
  readonly compared: readonly Compared[];
  readonly sessions: readonly SessionResult[];
}) {
  const [chosen, choose] = useState(0);
  const shown = compared[chosen] ?? compared[0];
  if (!shown) return null;
  return (
    <Box component="section" aria-labelledby="compared" sx={{ mt: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1 }}>
        <Typography variant="h2" id="compared" sx={{ flex: 1 }}>
          Side by side
        </Typography>
        {compared.length > 1 && (
          <Choice
            label="Charges"
            value={String(compared.indexOf(shown))}
            options={compared.map(({ sentence }, at) => ({ value: String(at), label: sentence.split(':')[0] ?? '' }))}
            onChange={(at) => choose(Number(at))}
            more={{ sx: { width: 320 } }}
          />
        )}
      </Box>
      <Later what="the chart" height={figureHeight(COMPARE_HEIGHT)}>
        <CompareChart compared={shown} sessions={sessions} height={COMPARE_HEIGHT} />
      </Later>
    </Box>
  );
}

export function DevicesPage() {
  const { dossier, verdict } = useSample();
  const { sessions, compared, repeats, slips } = verdict.results.devices;
  const [params, setParams] = useSearchParams();
  const [taking, setTaking] = useState(false);
  const shown = sessions.find(({ captureId }) => captureId === params.get('charge')) ?? sessions[0];
  const show = (charge: string) => setParams({ charge }, { replace: true });
  const ready = dossier.devices.length > 0 && dossier.rigs.length > 0;
  const { maker, model } = dossier.sample.model;
  return (
    <>
      <PageHead title="Devices">
        {sessions.length > 1 && shown && (
          <Choice
            label="Charge"
            value={shown.captureId}
            options={sessions.map(({ captureId, title }) => ({ value: captureId, label: title }))}
            onChange={show}
            more={{ sx: { width: 320 } }}
          />
        )}
        <Button component={Link} to={`/samples/${dossier.sample.id}/proof?part=devices`}>
          Enter a device run
        </Button>
        <Button variant="contained" onClick={() => setTaking(true)} disabled={!ready}>
          Take in a charge
        </Button>
      </PageHead>
      {!ready && (
        <Alert severity="info" sx={{ mb: 2 }}>
          A charge needs a device and a rig. <Link to="/bench">Add them at Bench</Link>.
        </Alert>
      )}
      {shown ? (
        <>
          <Typography sx={{ fontSize: 22, fontWeight: 600 }}>
            {shown.headline}
            <Box component="span" sx={{ fontSize: 15, fontWeight: 400, color: 'text.secondary', ml: 1.5 }}>
              {shown.title}
            </Box>
          </Typography>
          <Later what="the charge" height={figureHeight(CHART_HEIGHT)}>
            <ChargeChart
              key={shown.captureId}
              shown={shown}
              caption={`${maker} ${model}: ${shown.title}`}
              height={CHART_HEIGHT}
            />
          </Later>
          {shown.session.findings.map((finding) => (
            <Typography key={finding} variant="body2" color="warning.main" sx={{ mt: 0.5 }}>
              {finding}
            </Typography>
          ))}
          <Box sx={{ mt: 1.5 }}>
            <Sessions sessions={sessions} onShow={show} />
          </Box>
          {repeats.map((sentence) => (
            <Typography key={sentence} sx={{ mt: 1 }}>
              {sentence}
            </Typography>
          ))}
          <Comparisons compared={compared} sessions={sessions} />
        </>
      ) : (
        <EmptyFigure says="Power and level of a whole charge, its stages named, when it reached 50, 80 and 100 %, and what it draws after full.">
          <Button variant="outlined" onClick={() => setTaking(true)} disabled={!ready}>
            Take in a charge
          </Button>
        </EmptyFigure>
      )}
      {dossier.devices.length > 0 && (
        <Box sx={{ mt: 2 }}>
          <Typography variant="h2" sx={{ mb: 1 }}>
            What each took, settled
          </Typography>
          <Grid />
          {slips.map((slip) => (
            <Typography key={slip} variant="body2" color="warning.main" sx={{ mt: 1 }}>
              {slip}
            </Typography>
          ))}
          <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
            A device takes what it wants: what it took is a lower bound and never refutes a promise.
          </Typography>
          <Board />
        </Box>
      )}
      {/* Last: it comes when the other chargers are known, and nothing above it moves. */}
      <ForetoldTable />
      <Caution
        line="Never charge a battery unattended: fire-safe surface, smoke alarm, a cut-off, and someone near."
        more="Stop at heat, swelling, smell or noise; let it cool outdoors or on stone. A battery that was dropped or swollen is not charged."
      />
      {taking && <ChargeDialog onClose={() => setTaking(false)} />}
    </>
  );
}
