// Small multiples: every measure against the same one, side by side, the same sample marked in each.
import type { SetMember } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useTheme } from '@mui/material/styles';
import Typography from '@mui/material/Typography';
import { useEffect, useRef } from 'react';
import { axisTitle, type MeasureView, plainWords } from './views.ts';

const HEIGHT = 132;
const SIDE = 8;

interface PanelProps {
  readonly members: readonly SetMember[];
  readonly x: MeasureView;
  readonly y: MeasureView;
  readonly marked: string | null;
}

const spanOf = (values: readonly number[]): readonly [number, number] => [
  values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY),
  values.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY),
];

/** Values of those that have both. */
function pairsOf({ members, x, y }: Pick<PanelProps, 'members' | 'x' | 'y'>) {
  return members.flatMap(({ id }) => {
    const [a, b] = [x.byId.get(id), y.byId.get(id)];
    return a && b ? [{ id, x: a.value, y: b.value }] : [];
  });
}

function Panel({ members, x, y, marked }: PanelProps) {
  const { palette } = useTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    const frame = element?.parentElement;
    const context = element?.getContext('2d');
    if (!element || !frame || !context) return;
    const pairs = pairsOf({ members, x, y });
    const [left, right] = spanOf(pairs.map((one) => one.x));
    const [low, high] = spanOf(pairs.map((one) => one.y));
    const draw = () => {
      const width = frame.clientWidth;
      const density = window.devicePixelRatio || 1;
      element.width = width * density;
      element.height = HEIGHT * density;
      context.setTransform(density, 0, 0, density, 0, 0);
      context.clearRect(0, 0, width, HEIGHT);
      context.strokeStyle = palette.line;
      context.strokeRect(0.5, 0.5, width - 1, HEIGHT - 1);
      const px = (value: number) => SIDE + (right > left ? (value - left) / (right - left) : 0.5) * (width - 2 * SIDE);
      const py = (value: number) =>
        HEIGHT - SIDE - (high > low ? (value - low) / (high - low) : 0.5) * (HEIGHT - 2 * SIDE);
      context.fillStyle = palette.text.secondary;
      context.globalAlpha = pairs.length > 200 ? 0.4 : 0.85;
      context.beginPath();
      for (const one of pairs) {
        context.moveTo(px(one.x) + 3, py(one.y));
        context.arc(px(one.x), py(one.y), 3, 0, 2 * Math.PI);
      }
      context.fill();
      context.globalAlpha = 1;
      const own = pairs.find(({ id }) => id === marked);
      if (!own) return;
      context.fillStyle = palette.primary.main;
      context.beginPath();
      context.arc(px(own.x), py(own.y), 6, 0, 2 * Math.PI);
      context.fill();
    };
    draw();
    const watch = new ResizeObserver(draw);
    watch.observe(frame);
    return () => watch.disconnect();
  }, [members, x, y, marked, palette]);
  return (
    <Box sx={{ height: HEIGHT, width: '100%', overflow: 'hidden' }}>
      <canvas ref={canvas} aria-hidden style={{ display: 'block', width: '100%', height: HEIGHT }} />
    </Box>
  );
}

interface Props {
  readonly members: readonly SetMember[];
  readonly views: readonly MeasureView[];
  readonly x: MeasureView;
  readonly marked: string | null;
  /** Look at one of them large. */
  readonly onOpen: (id: string) => void;
}

export function Panels({ members, views, x, marked, onOpen }: Props) {
  const others = views.filter(({ id, count }) => id !== x.id && count > 0);
  return (
    <>
      <Box
        component="ul"
        aria-label={`Every measure against ${x.title}`}
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(230px, 1fr))',
          gap: 1.5,
        }}
      >
        {others.map((y) => {
          const pairs = pairsOf({ members, x, y });
          const [low, high] = spanOf(pairs.map((one) => one.y));
          const range =
            pairs.length === 0
              ? 'no sample has both'
              : `${plainWords(y, low)} to ${plainWords(y, high)}, ${pairs.length} samples`;
          return (
            <Box component="li" key={y.id}>
              <ButtonBase
                onClick={() => onOpen(y.id)}
                aria-label={`${y.title}: ${range}. Look at it large`}
                sx={{ display: 'block', width: '100%', textAlign: 'left', borderRadius: 1 }}
              >
                <Typography sx={{ fontWeight: 600 }} noWrap>
                  {axisTitle(y).split(' · ')[0]}
                </Typography>
                <Panel members={members} x={x} y={y} marked={marked} />
                <Typography variant="body2" color="text.secondary" noWrap>
                  {range}
                </Typography>
              </ButtonBase>
            </Box>
          );
        })}
      </Box>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Across, everywhere: {axisTitle(x)}.
      </Typography>
    </>
  );
}
