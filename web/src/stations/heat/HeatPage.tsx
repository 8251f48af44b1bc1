// Heat: the soak first, then its sensors, what it says of touch, and what it predicts.
import { EVENT_WORDS } from '@lastmark/core/heat';
import { fixed } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { apiUrl } from '../../api/world.ts';
import { useCapture } from '../../captures/useCapture.ts';
import { Caution } from '../../parts/Caution.tsx';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { Choice } from '../../parts/fields.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';
import { SoakDialog } from './SoakDialog.tsx';
import { Longer, Others, Predictions, Sensors, Touch } from './SoakParts.tsx';
import { ThermalPanel } from './ThermalPanel.tsx';

const SoakChart = lazy(async () => ({ default: (await import('./SoakChart.tsx')).SoakChart }));

const MINUTE = 60;
const CHART_HEIGHT = 300;
/** Said by the table already. */
const IN_TABLE = /had not settled|do not tell where/;

export function HeatPage() {
  const { dossier, verdict } = useSample();
  const { soaks, missing, causes } = verdict.results.heat;
  const { takeBack } = useCapture();
  const notify = useNotify();
  const [params, setParams] = useSearchParams();
  const chosen = params.get('soak') ?? '';
  const setChosen = (soak: string) => setParams({ soak }, { replace: true });
  const [taking, setTaking] = useState(false);
  const soak =
    soaks.find(({ captureId }) => captureId === chosen) ??
    soaks.find(({ figures }) => figures.events.length > 0) ??
    soaks.at(-1);
  const { maker, model } = dossier.sample.model;
  const capture = dossier.captures.find(({ id }) => id === soak?.captureId);
  return (
    <>
      <PageHead title="Heat">
        {soaks.length > 1 && soak && (
          <Choice
            label="Soak"
            value={soak.captureId}
            options={soaks.map(({ captureId, conditions }) => ({ value: captureId, label: conditions }))}
            onChange={setChosen}
            more={{ sx: { width: 300 } }}
          />
        )}
        <Button variant="contained" onClick={() => setTaking(true)} disabled={dossier.rigs.length === 0}>
          Take in a soak
        </Button>
      </PageHead>
      {dossier.rigs.length === 0 && (
        <Alert severity="warning">
          No rig yet: a soak needs to know its meters. <Link to="/bench">Add a rig at Bench</Link>.
        </Alert>
      )}
      {soak ? (
        <>
          <Typography sx={{ fontSize: 22, fontWeight: 600 }}>
            {soak.hottest
              ? soak.hottest.steady === null
                ? `${soak.hottest.name} ${fixed(soak.hottest.atEnd, 1)} °C at the end`
                : `${soak.hottest.name} leads to ${fixed(soak.hottest.steady, 1)} °C`
              : 'No temperature'}
            <Box component="span" sx={{ fontSize: 15, fontWeight: 400, color: 'text.secondary', ml: 1.5 }}>
              {soak.conditions}
            </Box>
          </Typography>
          {soak.figures.events.map(({ kind, at, from, to, temperature, recovered }) => (
            <Alert key={`${kind} ${at}`} severity="error" icon={false} sx={{ my: 0.5, py: 0 }}>
              Output {EVENT_WORDS[kind]} after {fixed(at / MINUTE, 1)} min: {fixed(from, 1)} to {fixed(to, 1)} W
              {temperature === null ? '' : ` at ${fixed(temperature, 1)} °C`}
              {recovered === null ? '' : `, as before again after ${fixed(recovered / MINUTE, 1)} min`}.
            </Alert>
          ))}
          <Later what="the soak" height={figureHeight(CHART_HEIGHT)}>
            <SoakChart
              key={soak.captureId}
              soak={soak}
              caption={`${maker} ${model}: ${soak.conditions}`}
              height={CHART_HEIGHT}
            />
          </Later>
          <Box sx={{ mt: 1.5 }}>
            <Sensors soak={soak} />
          </Box>
          {soak.hottest && <Longer sensor={soak.hottest} />}
          {soak.figures.findings
            .filter((finding) => !IN_TABLE.test(finding))
            .map((finding) => (
              <Typography key={finding} variant="body2" color="text.secondary">
                {finding}
              </Typography>
            ))}
          {capture && (
            <Box sx={{ display: 'flex', gap: 1, mt: 1, alignItems: 'baseline' }}>
              <Typography variant="body2" color="text.secondary" sx={{ flex: 1 }}>
                {capture.takenAt.slice(0, 10)}, {capture.source}
                {capture.soak?.surface ? `, lay on ${capture.soak.surface}` : ''}
                {capture.soak?.adapter ? `, through ${capture.soak.adapter}` : ''}
                {capture.note ? `. ${capture.note}` : ''}
              </Typography>
              <Button size="small" component="a" href={apiUrl(`/captures/${capture.id}/trace.csv`)}>
                CSV
              </Button>
              <Button
                size="small"
                color="error"
                disabled={takeBack.isPending}
                onClick={() => takeBack.mutate(capture, { onError: (error) => notify(error.message) })}
              >
                Take back
              </Button>
            </Box>
          )}
          <Box sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: { xs: '1fr', lg: '1fr 1fr' }, mt: 1.5 }}>
            <Touch soak={soak} />
            <Predictions soak={soak} />
          </Box>
        </>
      ) : (
        <EmptyFigure says="Temperatures over an hour at full load, where they lead with their interval, and when output gave less or cut out.">
          <Button variant="outlined" onClick={() => setTaking(true)} disabled={dossier.rigs.length === 0}>
            Take in a soak
          </Button>
        </EmptyFigure>
      )}
      {soak && <Others soaks={soaks} shown={soak} onShow={setChosen} />}
      <Box sx={{ mt: 1.5 }}>
        <ThermalPanel />
      </Box>
      {causes.map((cause) => (
        <Typography key={cause} sx={{ mt: 1, fontWeight: 600 }}>
          {cause}
        </Typography>
      ))}
      {missing.length > 0 && (
        <Typography color="text.secondary" sx={{ mt: 1.5 }}>
          No soak that leads anywhere yet at {missing.map(mainsLabel).join(' and ')}.
        </Typography>
      )}
      <Caution
        line="Hot surfaces burn. Never leave a soak alone without a fire-safe surface, a smoke alarm and a cut-off."
        more="Let it cool before you touch or unplug it; stop at smell, smoke, swelling or noise. After heat every port is proved again: a dead or weakened port is a finding."
      />
      {taking && <SoakDialog onClose={() => setTaking(false)} />}
    </>
  );
}
