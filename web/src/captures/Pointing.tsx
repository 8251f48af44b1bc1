// Choosing a stretch with the pointer: drag over it; Ctrl and wheel, or a pinch, come closer about the pointer.
import Box from '@mui/material/Box';
import type { Chart } from 'chart.js';
import { type PointerEvent, type ReactNode, type RefObject, useEffect, useRef, useState } from 'react';
import { dragged, type Move, type Stretch, turned } from './stretch.ts';

interface Props {
  readonly chart: RefObject<Chart<'line', { x: number; y: number }[]> | null>;
  readonly shown: Stretch;
  readonly onShow: (move: Move) => void;
  readonly children: ReactNode;
}

/** Where the plot lies across the chart, as fractions of what is shown. */
function partOf(chart: Chart<'line', { x: number; y: number }[]> | null, clientX: number): number | null {
  if (!chart) return null;
  const { left, right } = chart.chartArea;
  const x = clientX - chart.canvas.getBoundingClientRect().left;
  return right > left ? Math.min(1, Math.max(0, (x - left) / (right - left))) : null;
}

export function Pointing({ chart, shown, onShow, children }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<{ readonly from: number; readonly to: number } | null>(null);
  const latest = useRef(onShow);
  latest.current = onShow;
  useEffect(() => {
    const own = box.current;
    if (!own) return;
    // React listens to wheels without a say; the page scrolls as ever unless Ctrl is held.
    const turn = (event: WheelEvent) => {
      const part = partOf(chart.current, event.clientX);
      if (!event.ctrlKey || part === null) return;
      event.preventDefault();
      latest.current((now) => turned(now, part, event.deltaY));
    };
    own.addEventListener('wheel', turn, { passive: false });
    return () => own.removeEventListener('wheel', turn);
  }, [chart]);
  const at = (event: PointerEvent) => partOf(chart.current, event.clientX);
  const area = chart.current?.chartArea;
  return (
    <Box
      ref={box}
      data-drag={drag ? 'on' : undefined}
      sx={{ position: 'relative', height: '100%', cursor: 'crosshair', touchAction: 'pan-y' }}
      onPointerDown={(event) => {
        const part = event.button === 0 ? at(event) : null;
        if (part === null) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrag({ from: part, to: part });
      }}
      onPointerMove={(event) => {
        const part = drag && at(event);
        if (drag && part !== null) setDrag({ ...drag, to: part });
      }}
      onPointerUp={() => {
        const stretch = drag && dragged(shown, drag.from, drag.to);
        setDrag(null);
        if (stretch) onShow(() => stretch);
      }}
      onPointerCancel={() => setDrag(null)}
    >
      {children}
      {drag && area && (
        <Box
          sx={{
            position: 'absolute',
            top: area.top,
            height: area.bottom - area.top,
            left: area.left + Math.min(drag.from, drag.to) * (area.right - area.left),
            width: Math.abs(drag.to - drag.from) * (area.right - area.left),
            bgcolor: 'action.selected',
            borderInline: 1,
            borderColor: 'primary.main',
            pointerEvents: 'none',
          }}
        />
      )}
    </Box>
  );
}
