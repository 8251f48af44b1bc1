// One combination as bars: each share its promise as an outline, what was metered as fill, what is only known as an
// interval hatched from its lower to its upper end, breaks marked.

import { fixed } from '@lastmark/core/quantity';
import type { Drop, ShareLine, SplitRow } from '@lastmark/core/split';
import { useTheme } from '@mui/material/styles';
import { useId } from 'react';

const WIDTH = 320;
const HEIGHT = 34;
const BAR = 20;
const GAP = 6;
const NARROWEST = 44;
/** Width of a sign in the bars, px. */
const SIGN = 7.6;

interface Props {
  readonly row: SplitRow;
  readonly ports: readonly string[];
  /** W at the full width of a row. */
  readonly scale: number;
  readonly drops: readonly Drop[];
}

/** What is known of a share: a value where it was metered, else both ends. */
export function shareWords({ value, measured }: Pick<ShareLine, 'value' | 'measured'>, decimals: number): string {
  if (value !== null) return fixed(value, decimals);
  if (!measured) return '–';
  return `${fixed(Math.floor(measured.low * 10 ** decimals) / 10 ** decimals, decimals)}…${fixed(Math.ceil(measured.high * 10 ** decimals) / 10 ** decimals, decimals)}`;
}

/** The line in words, for those who do not see it. */
function wordsOf({ lines }: SplitRow, broken: (ports: readonly string[]) => boolean): string {
  return lines
    .map((line) => {
      const read = line.measured ? `${shareWords(line, 1)} W` : 'not measured';
      const promise =
        line.promised === null ? 'nothing promised' : `promised ${fixed(line.promised, 0)} W, ${line.state}`;
      return `${line.ports.join(' and ')} ${read}, ${promise}${broken(line.ports) ? ', drops out' : ''}`;
    })
    .join('; ');
}

export function SplitBars({ row, ports, scale, drops }: Props) {
  const { palette } = useTheme();
  const hatch = useId();
  const broken = (own: readonly string[]) =>
    drops.some((drop) => own.includes(drop.port) && drop.dropped && row.occupied.includes(drop.cause));
  // Every row is drawn to one scale; the narrowest bars keep room for their label.
  const room = WIDTH - GAP * (ports.length - 1) - NARROWEST;
  const x = (watts: number) => (watts / Math.max(1, scale)) * room;
  let at = 0;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      role="img"
      aria-label={wordsOf(row, broken)}
      style={{ display: 'block', maxWidth: '100%', height: 'auto' }}
    >
      {row.lines.map((line) => {
        const { ports: own, promised, measured, value } = line;
        const name = own.join('+');
        const index = ports.indexOf(own[0] ?? '');
        const colour = palette.series[index % palette.series.length] ?? palette.text.primary;
        const high = Number.isFinite(measured?.high) ? (measured?.high ?? 0) : 0;
        const label = `${name} ${shareWords(line, 0)}`;
        const width = Math.max(x(Math.max(high, promised ?? 0)), NARROWEST, label.length * SIGN + 8);
        const start = at;
        at += width + GAP;
        const low = measured?.low ?? 0;
        return (
          <g key={name} transform={`translate(${start} 0)`}>
            {value !== null && (
              <>
                <rect x="0" y="7" width={Math.max(1, x(value))} height={BAR} fill={colour} opacity="0.28" />
                <rect x="0" y={7 + BAR - 4} width={Math.max(1, x(value))} height="4" fill={colour} />
              </>
            )}
            {value === null && measured && (
              <>
                <pattern
                  id={`${hatch}${index}`}
                  width="6"
                  height="6"
                  patternUnits="userSpaceOnUse"
                  patternTransform="rotate(45)"
                >
                  <line x1="0" x2="0" y1="0" y2="6" stroke={colour} strokeWidth="2" />
                </pattern>
                <rect
                  x={x(low)}
                  y={7 + BAR - 6}
                  width={Math.max(2, x(high) - x(low))}
                  height="6"
                  fill={`url(#${hatch}${index})`}
                  stroke={colour}
                />
              </>
            )}
            {promised !== null && (
              <rect
                x="0.75"
                y="7"
                width={Math.max(2, x(promised)) - 1.5}
                height={BAR}
                fill="none"
                stroke={palette.text.primary}
                strokeWidth="1.5"
                strokeDasharray={measured ? undefined : '4 3'}
              />
            )}
            <text x="5" y="20" fontSize="13" fontWeight="600" fill={palette.text.primary}>
              {label}
            </text>
            {/* A port that drops out has a broken edge. */}
            {broken(own) && (
              <path d="M-2 3 l5 6 l-5 6 l5 6 l-5 6 l5 4" stroke={palette.error.main} strokeWidth="2.5" fill="none" />
            )}
          </g>
        );
      })}
    </svg>
  );
}
