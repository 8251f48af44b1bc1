// A strip a measure: every sample of the set on one line, this one marked, with its rank, the mean, and how many it is ahead of.
import type { SetMember } from '@lastmark/contract/types';
import type { Standing } from '@lastmark/core/compare';
import Box from '@mui/material/Box';
import { useTheme } from '@mui/material/styles';
import Typography from '@mui/material/Typography';
import { useEffect, useRef } from 'react';
import { useCompareWork } from './useCompareWork.ts';
import { axisTitle, type MeasureView, plainWords, words } from './views.ts';

const HEIGHT = 46;
const SIDE = 10;

interface StripProps {
  readonly view: MeasureView;
  readonly marked: string | null;
}

/** Drawn rather than built: ten thousand ticks are one picture. */
function Strip({ view, marked }: StripProps) {
  const { palette } = useTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  const { values, byId, better } = view;
  useEffect(() => {
    const element = canvas.current;
    const frame = element?.parentElement;
    const context = element?.getContext('2d');
    if (!element || !frame || !context) return;
    const draw = () => {
      const width = frame.clientWidth;
      const density = window.devicePixelRatio || 1;
      element.width = width * density;
      element.height = HEIGHT * density;
      context.setTransform(density, 0, 0, density, 0, 0);
      context.clearRect(0, 0, width, HEIGHT);
      const numbers = values.map(({ value }) => value);
      const low = numbers.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
      const high = numbers.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
      const at = (value: number) => {
        const part = high > low ? (value - low) / (high - low) : 0.5;
        // The better side is always on the right.
        return SIDE + (better === 'less' ? 1 - part : part) * (width - 2 * SIDE);
      };
      context.strokeStyle = palette.line;
      context.lineWidth = 1;
      context.beginPath();
      context.moveTo(SIDE, HEIGHT / 2);
      context.lineTo(width - SIDE, HEIGHT / 2);
      context.stroke();
      context.strokeStyle = palette.text.secondary;
      context.globalAlpha = values.length > 200 ? 0.35 : 0.8;
      context.beginPath();
      for (const { value } of values) {
        context.moveTo(at(value), HEIGHT / 2 - 9);
        context.lineTo(at(value), HEIGHT / 2 + 9);
      }
      context.stroke();
      context.globalAlpha = 1;
      const mean = numbers.reduce((a, b) => a + b, 0) / numbers.length;
      context.fillStyle = palette.text.secondary;
      context.beginPath();
      context.moveTo(at(mean), HEIGHT / 2 + 11);
      context.lineTo(at(mean) - 5, HEIGHT / 2 + 19);
      context.lineTo(at(mean) + 5, HEIGHT / 2 + 19);
      context.fill();
      const own = marked === null ? undefined : byId.get(marked);
      if (!own) return;
      context.strokeStyle = palette.primary.main;
      context.lineWidth = 2;
      if (own.u) {
        context.beginPath();
        context.moveTo(at(own.value - 2 * own.u), HEIGHT / 2);
        context.lineTo(at(own.value + 2 * own.u), HEIGHT / 2);
        context.stroke();
      }
      context.fillStyle = palette.primary.main;
      context.beginPath();
      context.arc(at(own.value), HEIGHT / 2, 6, 0, 2 * Math.PI);
      context.fill();
    };
    draw();
    const watch = new ResizeObserver(draw);
    watch.observe(frame);
    return () => watch.disconnect();
  }, [values, byId, better, marked, palette]);
  return (
    <Box sx={{ height: HEIGHT, minWidth: 0, overflow: 'hidden' }}>
      <canvas ref={canvas} aria-hidden style={{ display: 'block', width: '100%', height: HEIGHT }} />
    </Box>
  );
}

const percent = (part: number): string => `${Math.round(part * 100)} %`;

/** Where it stands, in words. */
function standingWords(standing: Standing, { better }: MeasureView): string {
  const { rank, of, ahead, interval } = standing;
  if (better === null) return `${of} samples`;
  if (ahead === null) return 'alone in this';
  const sure = interval && interval[1] > interval[0] ? ` (${percent(interval[0])} to ${percent(interval[1])})` : '';
  return `${rank} of ${of}, ahead of ${percent(ahead)}${sure}`;
}

interface Props {
  readonly views: readonly MeasureView[];
  readonly members: readonly SetMember[];
  readonly marked: string | null;
  /** Changes with what was fetched. */
  readonly stamp: number;
}

export function Strips({ views, members, marked, stamp }: Props) {
  const filled = views.filter(({ count }) => count > 0);
  const standings = useCompareWork(['standings', marked, stamp, filled.map(({ key }) => key).join()], (work) =>
    work.standings(
      marked ?? '',
      filled.map(({ better, values }) => ({ better, values })),
    ),
  );
  return (
    <>
      <Box component="ul" aria-label="Strips" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {filled.map((view, at) => {
          const own = marked === null ? undefined : view.byId.get(marked);
          const standing = standings?.[at] ?? null;
          return (
            <Box
              component="li"
              key={view.id}
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', md: '230px minmax(0, 1fr) 300px' },
                columnGap: 2,
                alignItems: 'center',
                borderBottom: 1,
                borderColor: 'divider',
                py: 0.5,
              }}
            >
              <Box>
                <Typography sx={{ fontWeight: 600 }}>{view.title}</Typography>
                <Typography variant="body2" color="text.secondary">
                  {axisTitle(view).split(' · ').slice(1).join(' · ') || view.unit}
                </Typography>
              </Box>
              <Strip view={view} marked={marked} />
              <Box sx={{ minHeight: 42 }}>
                {own ? (
                  <>
                    <Typography sx={{ fontWeight: 600 }}>{words(view, own)}</Typography>
                    <Typography variant="body2" color="text.secondary">
                      {standing ? `${standingWords(standing, view)} · mean ${plainWords(view, standing.mean)}` : ' '}
                    </Typography>
                  </>
                ) : (
                  <Typography variant="body2" color="text.secondary">
                    {marked === null
                      ? `${view.values.length} of ${members.length} samples`
                      : 'not measured under this condition'}
                  </Typography>
                )}
              </Box>
            </Box>
          );
        })}
      </Box>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        The better side is on the right; the mark below a line is the mean.
      </Typography>
    </>
  );
}
