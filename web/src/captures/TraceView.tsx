// A trace with zoom from the whole of it to single samples; of ripple the spectrum of the same stretch stands beside it.
import type { TraceWindow } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { lazy, useState } from 'react';
import { figureHeight } from '../parts/heights.ts';
import { Later } from '../parts/Later.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { around, type Move, moved, type Stretch, within } from './stretch.ts';
import { TraceGate } from './TraceGate.tsx';
import { asked, traceQuery } from './traceQuery.ts';

const CaptureChart = lazy(async () => ({ default: (await import('./CaptureChart.tsx')).CaptureChart }));
const SpectrumChart = lazy(async () => ({ default: (await import('./SpectrumChart.tsx')).SpectrumChart }));

const BUCKETS = 700;
const HEIGHT = 250;
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

const picked = (data: TraceWindow | undefined, name: string | null) =>
  (data?.columns ?? []).map((column) => (name === null ? column : { ...column, name }));

export function TraceView(props: Props) {
  const { traces, spectrum = false, height = HEIGHT } = props;
  const room = figureHeight(height) + (spectrum ? SECOND_LINE : 0);
  return (
    <TraceGate id={traces[0]?.id ?? ''} buckets={BUCKETS} what="the trace" height={BUTTONS + room}>
      {(whole) => <Stretched {...props} whole={whole} room={room} />}
    </TraceGate>
  );
}

interface StretchedProps extends Props {
  readonly whole: TraceWindow;
  readonly room: number;
}

function Stretched({ traces, caption, spectrum = false, height = HEIGHT, whole, room }: StretchedProps) {
  const [first, second] = traces;
  const [stretch, setStretch] = useState<Stretch | null>(null);
  const one = useWindow(first?.id ?? '', stretch);
  const other = useWindow(second?.id ?? first?.id ?? '', stretch);
  const all: Stretch = { from: 0, to: whole.length };
  const move = (to: Move) => setStretch((now) => within(to(now ?? all), whole));
  const label = (of: Shown | undefined) => (second ? (of?.label ?? '') : null);
  const columns = [...picked(one.data, label(first)), ...(second ? picked(other.data, label(second)) : [])];
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
        <QueryGate query={second && !one.error ? other : one} what="the stretch" height={room}>
          {() => (
            <Later what="the chart" height={room}>
              <CaptureChart caption={caption} columns={columns} height={height} range={stretch ?? all} onShow={move} />
            </Later>
          )}
        </QueryGate>
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
