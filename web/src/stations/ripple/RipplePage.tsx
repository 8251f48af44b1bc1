// Ripple: the trace and its spectrum first, then every level, load and mains in a table.
import { fixed } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { hertzWords, LINE_WORDS, type RippleCell, type RippleWanted, secondsWords } from '@lastmark/core/ripple';
import { expandedUncertainty, isStated } from '@lastmark/core/uncertainty';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { type Shown, TraceView } from '../../captures/TraceView.tsx';
import { useCapture } from '../../captures/useCapture.ts';
import { Caution } from '../../parts/Caution.tsx';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { StateMark } from '../../parts/StateMark.tsx';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';
import { Beside, recordedOf } from './Beside.tsx';
import { RippleDialog } from './RippleDialog.tsx';

const MILLI = 1000;
const millivolts = (volts: number | null): string | null =>
  volts === null ? null : fixed(volts * MILLI, volts < 0.01 ? 2 : 1);
const MOST_MISSING = 6;
const NOWRAP = { whiteSpace: 'nowrap' } as const;

/** Which record stands under the eyes. */
const titleOf = ({ conditions }: RippleCell): string => conditions;

function Cells({
  cells,
  onShow,
}: {
  readonly cells: readonly RippleCell[];
  readonly onShow: (cell: RippleCell) => void;
}) {
  const { dossier } = useSample();
  const { takeBack } = useCapture();
  const notify = useNotify();
  const back = ({ captureId }: RippleCell) => {
    const capture = dossier.captures.find(({ id }) => id === captureId);
    if (capture) takeBack.mutate(capture, { onError: (error) => notify(error.message) });
  };
  return (
    <QuietTable<RippleCell>
      label="Ripple by level, load and mains"
      rows={cells}
      rowKey={({ captureId }) => captureId}
      exception={({ limit, tolerance }) => limit?.state === 'short' || tolerance?.state === 'outside'}
      columns={[
        {
          head: 'Port and level',
          cell: (cell) => (
            <Button size="small" onClick={() => onShow(cell)} sx={{ p: 0, textAlign: 'left', justifyContent: 'start' }}>
              {cell.outputs
                .map(({ port, volts, amps }) => `${port} ${volts} V${amps > 0 ? ` ${amps} A` : ''}`)
                .join(' + ')}
            </Button>
          ),
        },
        { head: 'Load', cell: ({ load }) => <span style={NOWRAP}>{load}</span> },
        { head: 'Mains', cell: ({ mains }) => <span style={NOWRAP}>{mainsLabel(mains)}</span> },
        { head: 'P-p, mV', number: true, cell: ({ figures }) => millivolts(figures.peakToPeak) },
        {
          head: '± U, mV',
          number: true,
          cell: ({ measured }) => (isStated(measured) ? millivolts(expandedUncertainty(measured)) : null),
          empty: 'scope?',
        },
        {
          head: '99.99 %, mV',
          number: true,
          cell: ({ figures }) => millivolts(figures.peakToPeak9999),
          empty: 'a record',
        },
        { head: 'RMS, mV', number: true, cell: ({ figures }) => millivolts(figures.rms), empty: 'a record' },
        {
          head: 'Strongest line',
          cell: ({ figures: { lines } }) =>
            lines[0] ? `${hertzWords(lines[0].hertz)}, ${LINE_WORDS[lines[0].kind]}` : null,
          empty: 'none',
        },
        {
          head: 'Floor, mV',
          number: true,
          cell: ({ probe }) => millivolts(probe?.floor ?? null),
          empty: 'probe shorted',
        },
        {
          head: 'Limit',
          cell: ({ limit, tolerance }) =>
            tolerance?.state === 'outside' ? (
              <span>leaves the level’s tolerance</span>
            ) : limit ? (
              <StateMark state={limit.state} />
            ) : null,
          empty: 'none set',
        },
        {
          head: '',
          cell: (cell) => (
            <Button
              size="small"
              color="error"
              onClick={() => back(cell)}
              aria-label={`Take back ${cell.conditions}`}
              sx={{ ...NOWRAP, p: 0, minWidth: 0 }}
            >
              Take back
            </Button>
          ),
        },
      ]}
    />
  );
}

/** What the work still asks for. */
function Missing({
  missing,
  onTake,
}: {
  readonly missing: readonly RippleWanted[];
  readonly onTake: (wanted: RippleWanted) => void;
}) {
  const [all, setAll] = useState(false);
  if (missing.length === 0) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3">Not taken yet: {missing.length}</Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mt: 0.5 }}>
        {missing.slice(0, all ? undefined : MOST_MISSING).map((one) => (
          <Button
            key={`${one.port} ${one.volts} ${one.amps} ${mainsLabel(one.mains)}`}
            size="small"
            variant="outlined"
            onClick={() => onTake(one)}
          >
            {one.port} {one.volts} V {one.amps > 0 ? `${one.amps} A` : 'no load'}, {mainsLabel(one.mains)}
          </Button>
        ))}
        {!all && missing.length > MOST_MISSING && (
          <Button size="small" onClick={() => setAll(true)}>
            All {missing.length}
          </Button>
        )}
      </Box>
    </Box>
  );
}

export function RipplePage() {
  const { dossier, verdict } = useSample();
  const { cells, missing, highest } = verdict.results.ripple;
  const [chosen, setChosen] = useState<string | null>(null);
  const [beside, setBeside] = useState<Shown | null>(null);
  const [taking, setTaking] = useState<RippleWanted | 'any' | null>(null);
  const recorded = recordedOf(cells);
  const shown =
    recorded.find(({ captureId }) => captureId === chosen) ?? recorded.find((cell) => cell === highest) ?? recorded[0];
  const other = beside?.id === shown?.captureId ? null : beside;
  const { maker, model } = dossier.sample.model;
  const traces = shown ? [{ id: shown.captureId, label: titleOf(shown) }, ...(other ? [other] : [])] : [];
  const probe = shown?.probe ?? dossier.rigs.find((rig) => rig.probe)?.probe ?? null;
  return (
    <>
      <PageHead title="Ripple">
        <Button variant="contained" onClick={() => setTaking('any')} disabled={dossier.rigs.length === 0}>
          Take in a record
        </Button>
      </PageHead>
      {dossier.rigs.length === 0 && (
        <Alert severity="warning">
          No rig yet: a record needs to know its probe and scope. <Link to="/bench">Add a rig at Bench</Link>.
        </Alert>
      )}
      {shown ? (
        <>
          <Typography sx={{ fontSize: 22, fontWeight: 600 }}>
            {millivolts(shown.figures.peakToPeak)} mV peak to peak
            <Box component="span" sx={{ fontSize: 15, fontWeight: 400, color: 'text.secondary', ml: 1.5 }}>
              {titleOf(shown)}
            </Box>
          </Typography>
          <Beside cells={recorded.filter((cell) => cell !== shown)} beside={other} onChoose={setBeside} />
          <TraceView
            key={traces.map(({ id }) => id).join()}
            traces={traces}
            caption={`${maker} ${model}: ripple of ${titleOf(shown)}`}
            spectrum
          />
          {(shown.figures.steps ?? []).map(({ at, from, to, excursion, recovery }) => (
            <Typography key={at} variant="body2">
              Load {fixed(from, 2)} to {fixed(to, 2)} A after {secondsWords(at)}: {millivolts(excursion)} mV{' '}
              {to > from ? 'under' : 'over'},{' '}
              {recovery === null ? 'not back in the record' : `back after ${secondsWords(recovery)}`}.
            </Typography>
          ))}
          {shown.figures.findings.map((finding) => (
            <Typography key={finding} variant="body2" color="warning.main">
              {finding}
            </Typography>
          ))}
        </>
      ) : (
        <EmptyFigure says="The trace of a record, from seconds to microseconds, and beside it what it is made of: mains, switching, bursts.">
          <Button variant="outlined" onClick={() => setTaking('any')} disabled={dossier.rigs.length === 0}>
            Take in a record
          </Button>
        </EmptyFigure>
      )}
      {cells.length > 0 && (
        <Box sx={{ mt: 2 }}>
          <Cells cells={cells} onShow={({ captureId }) => setChosen(captureId)} />
        </Box>
      )}
      <Missing missing={missing} onTake={setTaking} />
      <Typography variant="body2" color="text.secondary" sx={{ mt: 2 }}>
        {probe
          ? `Probe: ${[probe.tip, probe.capacitors, probe.bandwidth ? `${hertzWords(probe.bandwidth)} bandwidth` : 'bandwidth not stated', `${probe.coupling} coupling`, `× ${probe.attenuation}`].filter(Boolean).join(', ')}.`
          : 'How it is probed is not stated: say it at Bench, in the rig. '}
        A floor is never taken off a peak to peak.
      </Typography>
      <Caution
        line="The earth clip of a scope on mains earth can short an output."
        more="Check with a meter that there is no voltage between the clip and where it goes, or use a differential probe. Never probe inside the charger: mains stays closed."
      />
      {taking && <RippleDialog wanted={taking === 'any' ? null : taking} onClose={() => setTaking(null)} />}
    </>
  );
}
