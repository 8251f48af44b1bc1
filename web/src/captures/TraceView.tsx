// A trace with zoom from the whole of it to single samples; of ripple the spectrum of the same stretch stands beside it.
import type { TraceWindow } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { lazy, useState } from 'react';
import { figureHeight } from '../parts/heights.ts';
import { Later, Room } from '../parts/Later.tsx';
import { around, type Move, moved, type Stretch, within } from './stretch.ts';
import { asked, traceQuery } from './traceQuery.ts';

const CaptureChart = lazy(async () => ({ default: (await import('./CaptureChart.tsx')).CaptureChart }));
const SpectrumChart = lazy(async () => ({ default: (await import('./SpectrumChart.tsx')).SpectrumChart }));

const BUCKETS = 700;
const CLOSER = 4;
/** The line of buttons above the picture, px. */
const BUTTONS = 35;
/** Beside the trace, the buttons below a spectrum have a line of their own, px. */
const SECOND_LINE = 30;

export interface Shown {
  readonly id: string;
  /** What it is called beside another. */
  readonly label: string;
}

interface Props {
  readonly traces: readonly Shown[];
  readonly caption: string;
  readonly spectrum?: boolean;
  readonly height?: number;
}

/** What a key or a button does to a stretch. */
const MOVES: readonly { readonly key: string; readonly label: string; readonly to: Move }[] = [
  { key: '+', label: 'Closer', to: (one) => around(one, 1 / CLOSER) },
  { key: '-', label: 'Wider', to: (one) => around(one, CLOSER) },
  { key: 'ArrowLeft', label: 'Earlier', to: (one) => moved(one, -0.5) },
  { key: 'ArrowRight', label: 'Later', to: (one) => moved(one, 0.5) },
];

const useWindow = (id: string, stretch: Stretch | null) =>
  useQuery({ ...traceQuery(id, BUCKETS, stretch), placeholderData: keepPreviousData });

export function TraceView({ traces, caption, spectrum = false, height = 250 }: Props) {
  const [first, second] = traces;
  const [stretch, setStretch] = useState<Stretch | null>(null);
  const whole = useWindow(first?.id ?? '', null);
  const one = useWindow(first?.id ?? '', stretch);
  const other = useWindow(second?.id ?? first?.id ?? '', stretch);
  const room = figureHeight(height) + (spectrum ? SECOND_LINE : 0);
  if (one.error) return <Alert severity="error">{one.error.message}</Alert>;
  if (!one.data || !whole.data) return <Room what="the trace" height={BUTTONS + room} />;
  const { length } = whole.data;
  const all: Stretch = { from: 0, to: length };
  const move = (to: Move) => setStretch((now) => within(to(now ?? all), whole.data));
  const named = (data: TraceWindow | undefined, label: string) =>
    (data?.columns ?? []).map((column) => ({ ...column, name: traces.length > 1 ? label : column.name }));
  const columns = [...named(one.data, first?.label ?? ''), ...(second ? named(other.data, second.label) : [])];
  return (
    <Box
      role="group"
      aria-label={`${caption}: arrows move, plus and minus zoom`}
      tabIndex={0}
      onKeyDown={(event) => {
        const found = MOVES.find(({ key }) => key === event.key || (key === '+' && event.key === '='));
        if (event.key === '0') setStretch(null);
        else if (found) move(found.to);
        else return;
        event.preventDefault();
      }}
    >
      <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center', mb: 0.5 }}>
        {MOVES.map(({ label, to }) => (
          <Button key={label} size="small" onClick={() => move(to)}>
            {label}
          </Button>
        ))}
        <Button size="small" disabled={stretch === null} onClick={() => setStretch(null)}>
          All of it
        </Button>
        <Box component="span" sx={{ fontSize: 13, color: 'text.secondary', ml: 1 }}>
          Drag over a stretch; Ctrl and wheel come closer.
        </Box>
      </Box>
      <Box sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: spectrum ? { xs: '1fr', lg: '3fr 2fr' } : '1fr' }}>
        <Later what="the chart" height={room}>
          <CaptureChart caption={caption} columns={columns} height={height} range={stretch ?? all} onShow={move} />
        </Later>
        {spectrum && first && (
          <Later what="the spectrum" height={room}>
            <SpectrumChart
              traces={traces}
              query={asked(stretch)}
              caption={`${caption}: by frequency`}
              height={height}
              room={room}
            />
          </Later>
        )}
      </Box>
    </Box>
  );
}
