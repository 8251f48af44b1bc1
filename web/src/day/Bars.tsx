// The day as bars: a line for every instrument that is used, and one for everybody who is there.
import type { DayPlan, DayProblem, Placed, Task } from '@lastmark/core/schedule';
import Box from '@mui/material/Box';
import { useTheme } from '@mui/material/styles';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { clockWords } from './dayText.ts';

const NAMES = 190;
const LINE = 34;
/** A step of the arrow keys, and what a dragged bar settles on, s. */
const GRID = 300;

interface Props {
  readonly problem: DayProblem;
  readonly plan: DayPlan;
  readonly colourOf: (sampleId: string) => string;
  readonly pins: Readonly<Record<string, number>>;
  /** Hold a task from a moment on; null lets it go. */
  readonly onPin: (taskId: string, at: number | null) => void;
}

interface LineOf {
  readonly id: string;
  readonly title: string;
  readonly placed: readonly (readonly [Placed, Task])[];
  /** When it may be used, or is there; left out for always. */
  readonly there?: readonly { readonly from: number; readonly to: number }[];
}

function linesOf({ tasks, resources, people }: DayProblem, { placed }: DayPlan): readonly LineOf[] {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const pairs = placed.flatMap((one) => {
    const task = byId.get(one.id);
    return task ? [[one, task] as const] : [];
  });
  return [
    ...resources.map(({ id, title }) => ({
      id,
      title,
      placed: pairs.filter(([, { needs }]) => needs.includes(id)),
    })),
    ...people.map(({ id, title, there }) => ({
      id,
      title,
      there,
      placed: pairs.filter(([{ personId }]) => personId === id),
    })),
  ].filter((line) => line.placed.length > 0 || 'there' in line);
}

export function Bars({ problem, plan, colourOf, pins, onPin }: Props) {
  const { palette } = useTheme();
  const frame = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<{ readonly id: string; readonly from: number; readonly by: number } | null>(null);
  const begin = Math.min(problem.now, ...plan.placed.map(({ start, setUp }) => start - setUp));
  const first = Math.floor(begin / 3600) * 3600;
  const last = Math.max(first + 3600, Math.ceil(plan.finish / 3600) * 3600);
  const part = (seconds: number) => `${((100 * (seconds - first)) / (last - first)).toFixed(4)}%`;
  const hours = Array.from({ length: Math.round((last - first) / 3600) + 1 }, (_one, at) => first + at * 3600);
  const every = Math.max(1, Math.ceil(hours.length / 12));
  const secondsPerPixel = () => (last - first) / Math.max(1, (frame.current?.clientWidth ?? NAMES + 600) - NAMES);
  const snap = (seconds: number) => Math.max(problem.now, Math.round(seconds / GRID) * GRID);
  const key = ({ id, start }: Placed, event: KeyboardEvent) => {
    const by = event.key === 'ArrowRight' ? GRID : event.key === 'ArrowLeft' ? -GRID : 0;
    if (by !== 0) onPin(id, snap(start + by));
    else if (event.key === 'Delete' || event.key === 'Backspace') onPin(id, null);
    else return;
    event.preventDefault();
  };
  const down = ({ id }: Placed, event: PointerEvent<HTMLElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ id, from: event.clientX, by: 0 });
  };
  const move = (event: PointerEvent) =>
    drag && setDrag({ ...drag, by: (event.clientX - drag.from) * secondsPerPixel() });
  const up = ({ id, start }: Placed) => {
    if (drag?.id === id && Math.abs(drag.by) > GRID / 2) onPin(id, snap(start + drag.by));
    setDrag(null);
  };
  return (
    <Box
      ref={frame}
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', overflow: 'hidden' }}
    >
      <Box
        aria-hidden
        sx={{ display: 'grid', gridTemplateColumns: `${NAMES}px 1fr`, borderBottom: 1, borderColor: 'divider' }}
      >
        <span />
        <Box sx={{ position: 'relative', height: 24, fontSize: 12, color: 'text.secondary' }}>
          {hours.map((hour, at) =>
            at % every === 0 && at < hours.length - every / 2 ? (
              <Box
                component="span"
                key={hour}
                sx={{ position: 'absolute', left: part(hour), pl: 0.5, whiteSpace: 'nowrap' }}
              >
                {clockWords(hour)}
              </Box>
            ) : null,
          )}
        </Box>
      </Box>
      {linesOf(problem, plan).map(({ id, title, placed, there }) => (
        <Box
          key={id}
          role="group"
          aria-label={title}
          sx={{ display: 'grid', gridTemplateColumns: `${NAMES}px 1fr`, borderBottom: 1, borderColor: 'divider' }}
        >
          <Box
            sx={{
              px: 1,
              fontSize: 14,
              lineHeight: `${LINE}px`,
              overflow: 'hidden',
              textOverflow: 'ellipsis',
              whiteSpace: 'nowrap',
            }}
            title={title}
          >
            {title}
          </Box>
          <Box sx={{ position: 'relative', height: LINE, bgcolor: there ? 'ground' : undefined, overflow: 'hidden' }}>
            {(there ?? []).map(({ from, to }) => (
              <Box
                key={from}
                aria-hidden
                sx={{
                  position: 'absolute',
                  top: 0,
                  bottom: 0,
                  left: part(from),
                  width: `calc(${part(to)} - ${part(from)})`,
                  bgcolor: 'background.paper',
                }}
              />
            ))}
            {placed.map(([one, task]) => {
              const held = pins[one.id] !== undefined;
              const shift = drag?.id === one.id ? drag.by : 0;
              const setUp = one.setUp > 0 && (
                <Box
                  key={`${one.id} set-up`}
                  aria-hidden
                  title={`set up for ${task.title}\n${clockWords(one.start - one.setUp)} to ${clockWords(one.start)}`}
                  sx={{
                    position: 'absolute',
                    top: 4,
                    height: LINE - 8,
                    left: part(one.start - one.setUp + shift),
                    width: `calc(${part(one.start)} - ${part(one.start - one.setUp)})`,
                    border: `1px dashed ${colourOf(task.sampleId)}`,
                    borderRadius: 0.5,
                  }}
                />
              );
              // Whoever sets something up that then runs by itself is there for the set-up alone.
              if (there && !task.attended) return setUp;
              return [
                setUp,
                <Box
                  key={one.id}
                  component="button"
                  type="button"
                  aria-label={`${task.title}, ${clockWords(one.start)} to ${clockWords(one.end)}${held ? ', held there' : ''}`}
                  title={`${task.title}\n${clockWords(one.start)} to ${clockWords(one.end)}`}
                  onKeyDown={(event: KeyboardEvent) => key(one, event)}
                  onPointerDown={(event: PointerEvent<HTMLElement>) => down(one, event)}
                  onPointerMove={move}
                  onPointerUp={() => up(one)}
                  onPointerCancel={() => setDrag(null)}
                  sx={{
                    position: 'absolute',
                    top: 4,
                    height: LINE - 8,
                    left: part(one.start + shift),
                    width: `max(3px, calc(${part(one.end)} - ${part(one.start)} - 1px))`,
                    p: 0,
                    border: held ? `2px solid ${palette.text.primary}` : 0,
                    borderRadius: 0.5,
                    bgcolor: colourOf(task.sampleId),
                    cursor: 'grab',
                    touchAction: 'none',
                    '&:focus-visible': { outline: `3px solid ${palette.primary.main}`, zIndex: 2 },
                  }}
                />,
              ];
            })}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
