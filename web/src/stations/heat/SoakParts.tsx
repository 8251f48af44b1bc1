// What stands below a soak: its sensors, whether going on would tell more, touch, predictions, and the other soaks.
import {
  compareSoaks,
  EVENT_WORDS,
  halfWidthAfter,
  LONGER_SECONDS,
  type SensorFigures,
  type SoakResult,
  settledAfter,
  TIGHT_KELVIN,
  TOUCH_TS1,
} from '@lastmark/core/heat';
import { fixed } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Panel } from '../../parts/Panel.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { StateMark } from '../../parts/StateMark.tsx';

const MINUTE = 60;
const LONGER_MINUTES = LONGER_SECONDS / MINUTE;

const celsius = (value: number | null): string | null => (value === null ? null : fixed(value, 1));
const interval = ([low, high]: readonly [number | null, number | null]): string =>
  `${celsius(low) ?? '?'} to ${celsius(high) ?? '?'}`;

/** When no more than a kelvin is still to come, from the start of the soak. */
function settles({ settled, fit, from }: SensorFigures): string {
  if (settled === null) return 'not told yet';
  if (settled) return 'settled';
  const after = fit && settledAfter(fit);
  return after === null || after === undefined ? 'not settled' : `after ${Math.round((after + from) / MINUTE)} min`;
}

/** Whether it may end, and what going on would bring. */
export function Longer({ sensor }: { readonly sensor: SensorFigures }) {
  const { fit, lasted, steadyInterval } = sensor;
  const [low, high] = steadyInterval;
  if (!fit || low === null || high === null) return null;
  const half = (high - low) / 2;
  const after = halfWidthAfter(fit, lasted, LONGER_MINUTES * MINUTE);
  if (half <= TIGHT_KELVIN)
    return <Typography variant="body2">Known to ± {fixed(half, 1)} K: going on would tell nothing new.</Typography>;
  if (after === null) return null;
  return (
    <Typography variant="body2">
      Known to ± {fixed(half, 1)} K; {LONGER_MINUTES} minutes more would bring about ± {fixed(after, 1)} K.
    </Typography>
  );
}

export function Sensors({ soak }: { readonly soak: SoakResult }) {
  return (
    <QuietTable<SensorFigures>
      label="Sensors"
      rows={soak.figures.sensors}
      rowKey={({ name }) => name}
      columns={[
        { head: 'Sensor', cell: ({ name }) => name },
        { head: 'At the end, °C', number: true, cell: ({ atEnd }) => celsius(atEnd) },
        { head: 'Leads to, °C', number: true, cell: ({ steady }) => celsius(steady), empty: 'a longer soak' },
        { head: '95 % of', cell: ({ steadyInterval }) => interval(steadyInterval) },
        {
          head: 'Still to come, K',
          number: true,
          cell: ({ remaining }) => (remaining === null ? null : fixed(remaining, 1)),
          empty: 'a longer soak',
        },
        { head: 'Settles', cell: settles },
        {
          head: 'Time constants, min',
          cell: ({ timeConstants }) =>
            timeConstants.length > 0 ? timeConstants.map((tau) => fixed(tau / MINUTE, 1)).join(' and ') : null,
          empty: 'none',
        },
      ]}
    />
  );
}

/** Every soak in a line, and how the others stand beside the one shown. */
export function Others({
  soaks,
  shown,
  onShow,
}: {
  readonly soaks: readonly SoakResult[];
  readonly shown: SoakResult;
  readonly onShow: (id: string) => void;
}) {
  if (soaks.length < 2) return null;
  const beside = (one: SoakResult): string => {
    if (one === shown) return 'shown';
    const found = compareSoaks(shown, one, mainsLabel(shown.mains) === mainsLabel(one.mains));
    if (!found.comparable) return `not compared: ${found.reasons.join('; ')}`;
    const { difference, half, told } = found;
    if (!told) return `level with it${half === null ? '' : ` within ${fixed(half, 1)} K`}`;
    return `${fixed(Math.abs(difference), 1)} ± ${fixed(half ?? 0, 1)} K ${difference > 0 ? 'hotter' : 'cooler'}`;
  };
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        All soaks
      </Typography>
      <QuietTable<SoakResult>
        label="All soaks"
        rows={soaks}
        rowKey={({ captureId }) => captureId}
        exception={({ figures }) => figures.events.length > 0}
        columns={[
          {
            head: 'Load, mains, place',
            cell: ({ captureId, conditions }) => (
              <Button size="small" onClick={() => onShow(captureId)} sx={{ p: 0, textAlign: 'left' }}>
                {conditions}
              </Button>
            ),
          },
          { head: 'At 25 °C, °C', number: true, cell: ({ at25 }) => celsius(at25?.steady ?? null), empty: 'not told' },
          {
            head: 'What happened',
            cell: ({ figures }) =>
              figures.events.map(({ kind, at }) => `${EVENT_WORDS[kind]}, ${fixed(at / MINUTE, 0)} min`).join('; ') ||
              null,
            empty: 'nothing',
          },
          { head: 'Beside the one shown', cell: beside },
        ]}
      />
    </Box>
  );
}

export function Touch({ soak }: { readonly soak: SoakResult }) {
  const { at25, touch, perWatt, loss } = soak;
  return (
    <Panel>
      <Typography variant="h3">Touched</Typography>
      {at25 ? (
        <Typography>
          {fixed(at25.steady, 1)} °C at 25 °C ({interval(at25.interval)}).
        </Typography>
      ) : (
        <Typography color="text.secondary">Needs the ambient and a soak that tells where it leads.</Typography>
      )}
      {touch.map(({ title, high, state }) => (
        <Box key={title} sx={{ display: 'flex', gap: 1, alignItems: 'baseline', mt: 0.5 }}>
          <StateMark state={state} />
          <span>
            {title}: up to {high} °C
          </span>
        </Box>
      ))}
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        {TOUCH_TS1.source}. A body that is gripped to unplug it is touched for 1 to 10 s.
      </Typography>
      <Typography variant="body2" sx={{ mt: 1 }}>
        {perWatt === null
          ? 'Kelvin per watt of loss: measure the efficiency of this loading at this mains.'
          : `${fixed(perWatt, 2)} K per watt of loss, at ${fixed(loss ?? 0, 2)} W.`}
      </Typography>
    </Panel>
  );
}

export function Predictions({ soak }: { readonly soak: SoakResult }) {
  return (
    <Panel>
      <Typography variant="h3">Predicted, not measured</Typography>
      {soak.predictions.length === 0 && (
        <Typography color="text.secondary">Needs the ambient and a soak that tells where it leads.</Typography>
      )}
      {soak.predictions.map(({ title, at }) => (
        <Typography key={title}>
          About {fixed(at.celsius, 0)} °C {title} ({Math.floor(at.interval[0])} to {Math.ceil(at.interval[1])} °C).
        </Typography>
      ))}
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        At another loss the rise goes with loss to the power of 0.8 to 1, until soaks at two losses tell which.
      </Typography>
    </Panel>
  );
}
