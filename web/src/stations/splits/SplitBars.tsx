// One combination as bars: each port its promise as an outline, what was measured as fill, breaks marked.

import { fixed } from '@lastmark/core/quantity';
import type { Drop, SplitRow } from '@lastmark/core/split';
import { useTheme } from '@mui/material/styles';

const WIDTH = 350;
const HEIGHT = 34;
const BAR = 20;
const GAP = 6;
const NARROWEST = 44;

interface Props {
  readonly row: SplitRow;
  readonly ports: readonly string[];
  /** W at the full width of a row. */
  readonly scale: number;
  readonly drops: readonly Drop[];
}

const middle = ({ low, high }: { low: number; high: number }) => (low + high) / 2;

/** The line in words, for those who do not see it. */
function wordsOf({ lines }: SplitRow, broken: (port: string) => boolean): string {
  return lines
    .map(({ port, promised, measured, state }) => {
      const read = measured ? `${fixed(middle(measured), 1)} W` : 'not measured';
      const promise = promised === null ? 'nothing promised' : `promised ${fixed(promised, 0)} W, ${state}`;
      return `${port} ${read}, ${promise}${broken(port) ? ', drops out' : ''}`;
    })
    .join('; ');
}

export function SplitBars({ row, ports, scale, drops }: Props) {
  const { palette } = useTheme();
  const broken = (port: string) =>
    drops.some((drop) => drop.port === port && drop.dropped && row.occupied.includes(drop.cause));
  // Every row is drawn to one scale; the narrowest bars keep room for their label.
  const room = WIDTH - GAP * (ports.length - 1) - NARROWEST;
  const x = (watts: number) => (watts / Math.max(1, scale)) * room;
  let at = 0;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={wordsOf(row, broken)}
      style={{ display: 'block', maxWidth: '100%' }}
    >
      {row.lines.map(({ port, promised, measured, state }) => {
        const colour = palette.series[ports.indexOf(port) % palette.series.length] ?? palette.text.primary;
        const got = measured ? middle(measured) : 0;
        const width = Math.max(x(Math.max(got, promised ?? 0)), NARROWEST);
        const start = at;
        at += width + GAP;
        return (
          <g key={port} transform={`translate(${start} 0)`}>
            {measured && <rect x="0" y="7" width={Math.max(1, x(got))} height={BAR} fill={colour} opacity="0.28" />}
            {measured && <rect x="0" y={7 + BAR - 4} width={Math.max(1, x(got))} height="4" fill={colour} />}
            {promised !== null && (
              <rect
                x="0.75"
                y="7"
                width={Math.max(2, x(promised)) - 1.5}
                height={BAR}
                fill="none"
                stroke={palette.text.primary}
                strokeWidth="1.5"
                strokeDasharray={state === 'open' ? '4 3' : undefined}
              />
            )}
            <text x="5" y="21" fontSize="13" fontWeight="600" fill={palette.text.primary}>
              {port} {measured ? fixed(got, 0) : '–'}
            </text>
            {/* A port that drops out has a broken edge. */}
            {broken(port) && (
              <path d={`M-2 3 l5 6 l-5 6 l5 6 l-5 6 l5 4`} stroke={palette.error.main} strokeWidth="2.5" fill="none" />
            )}
          </g>
        );
      })}
    </svg>
  );
}
