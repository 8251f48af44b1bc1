// The mains side: power factor against load, where correction wakes up, waveforms and inrush, and a room of many.
import { correctionBrackets, currentCaptures } from '@lastmark/core/capture';
import { circuitDraw, surgeTogether } from '@lastmark/core/idle';
import { fixed, formatPlain, parseDecimal } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { lazy } from 'react';
import { CaptureList } from '../../captures/CaptureList.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { Choice } from '../../parts/fields.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { useSample, useSupplies } from '../../state/sample.tsx';

const CurveChart = lazy(async () => ({ default: (await import('./CurveChart.tsx')).CurveChart }));

interface Draw {
  readonly id: string;
  readonly label: string;
  readonly watts: number;
  readonly factor: number;
  readonly volts: number;
}

/** What some of these chargers take from one circuit together. */
function Room() {
  const { dossier, verdict } = useSample();
  const { value: form, set } = useDraft('room', { count: '20', fuse: '16', at: '' });
  const draws = verdict.results.efficiency.series.flatMap(({ setup, byMains }) =>
    byMains.flatMap(({ mains, loads }) =>
      loads.flatMap(({ load, input, powerFactor }): Draw[] =>
        powerFactor && mains.kind === 'ac'
          ? [
              {
                id: `${setup.id} ${mainsLabel(mains)} ${load}`,
                label: `${setup.name}, ${Math.round(load * 100)} %, ${mainsLabel(mains)}`,
                watts: input.value,
                factor: powerFactor,
                volts: mains.volts,
              },
            ]
          : [],
      ),
    ),
  );
  const chosen = draws.find(({ id }) => id === form.at) ?? draws.at(-1);
  const inrush = currentCaptures(dossier.captures).flatMap(({ figures }) =>
    figures.kind === 'inrush' ? [figures.peak] : [],
  );
  const count = parseDecimal(form.count);
  const fuse = parseDecimal(form.fuse);
  const draw =
    chosen && count >= 0 && fuse > 0
      ? circuitDraw(count, chosen.watts, Math.min(1, chosen.factor), chosen.volts, fuse)
      : null;
  const field = (key: 'count' | 'fuse', label: string) => (
    <TextField
      label={label}
      value={form[key]}
      onChange={(event) => set({ ...form, [key]: event.target.value })}
      slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
    />
  );
  return (
    <Box component="section" aria-label="A room of them" sx={{ mt: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        A room of them
      </Typography>
      {!chosen ? (
        <Typography color="text.secondary">Read the power factor at a load point first.</Typography>
      ) : (
        <>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(200px, 1fr))', gap: 1.5, mb: 1 }}>
            {field('count', 'Chargers')}
            {field('fuse', 'Circuit, A')}
            <Choice
              label="Each at"
              value={chosen.id}
              options={draws.map(({ id, label }) => ({ value: id, label }))}
              onChange={(at) => set({ ...form, at })}
            />
          </Box>
          <Typography sx={{ fontSize: 18 }}>
            {draw
              ? `${fixed(draw.watts, 0)} W, yet ${fixed(draw.voltAmps, 0)} VA and ${fixed(draw.amps, 1)} A: ${fixed(draw.share * 100, 0)} % of ${fixed(fuse, 0)} A.`
              : 'Give numbers.'}
          </Typography>
          <Typography variant="body2" color="text.secondary">
            Their current peaks fall together, so volt-amperes add up.
            {inrush.length > 0 && count > 0
              ? ` Switched on at once: up to ${formatPlain(surgeTogether(count, inrush), 'current')} for an instant, less what the wiring limits.`
              : ''}
          </Typography>
          <Caution line="What a circuit may carry, and how it is protected, follows local codes and is for licensed people to judge." />
        </>
      )}
    </Box>
  );
}

export function MainsCurrent() {
  const { dossier, verdict } = useSample();
  const brackets = correctionBrackets(verdict.results.efficiency.series);
  const supplies = useSupplies();
  const { sample } = dossier;
  return (
    <>
      <Typography variant="h2" sx={{ mb: 1 }}>
        Power factor
      </Typography>
      {brackets.length === 0 ? (
        <Typography color="text.secondary">
          Read the power factor at the load points; the curve appears with the first.
        </Typography>
      ) : (
        <>
          <Box component="ul" sx={{ mt: 0, pl: 2.5 }}>
            {brackets.map(({ name, mains, says }) => (
              <li key={`${name} ${mainsLabel(mains)}`}>
                {name}, {mainsLabel(mains)}: {says}
              </li>
            ))}
          </Box>
          <Later what="the chart" height={figureHeight(240)}>
            <CurveChart
              curves={brackets.map(({ name, mains, points }) => ({
                label: `${name}, ${mainsLabel(mains)}`,
                points: points.map(({ load, factor }) => ({ x: load * 100, y: factor, u: 0 })),
              }))}
              caption={`${sample.model.maker} ${sample.model.model}, unit ${sample.tag}: power factor against load`}
              title="Power factor"
              unit=""
              height={240}
              table={[
                ['loading', 'mains', 'load_percent', 'power_factor'],
                ...brackets.flatMap(({ name, mains, points }) =>
                  points.map(({ load, factor }) => [name, mainsLabel(mains), load * 100, factor]),
                ),
              ]}
            />
          </Later>
        </>
      )}
      <Typography variant="h2" sx={{ mt: 3, mb: 1 }}>
        Waveforms and inrush
      </Typography>
      <Caution
        line="For trained people: at the supply lead, through an insulated breakout, with a differential probe and a current clamp. Nothing is opened."
        more="The ground clip of an earthed scope can short the mains. Work on mains follows local codes."
      />
      <CaptureList
        kinds={['waveform', 'inrush']}
        supplies={supplies}
        empty="None yet. Take one from a file or from the scope; a run sheet records them by itself."
      />
      <Room />
    </>
  );
}
