// A thin band beside a number: where the value sits between its limits, its uncertainty as a whisker. What is known only
// as an interval is hatched from end to end, without a mark in between.
import type { Interval, Limit } from '@lastmark/core/decision';
import { formatPlain, type QuantityId } from '@lastmark/core/quantity';
import { useTheme } from '@mui/material/styles';
import { useId } from 'react';

const WIDTH = 120;
const HEIGHT = 16;
const MIDDLE = HEIGHT / 2;

interface Props {
  /** Null where only an interval is known. */
  readonly value: number | null;
  /** The truth as far as it is known; ends may be infinite. */
  readonly known: Interval;
  /** The same in words. */
  readonly words: string;
  readonly limit: Limit;
  readonly quantity: QuantityId;
}

/** Range to draw: limits and whisker with room around them. */
function rangeOf({ value, known, limit }: Props): [number, number] {
  const marks = [
    value ?? Number.NaN,
    known.low,
    known.high,
    limit.kind === 'at-most' ? Number.NaN : limit.low,
    limit.kind === 'at-least' ? Number.NaN : limit.high,
  ].filter(Number.isFinite);
  const low = Math.min(...marks);
  const high = Math.max(...marks);
  const room = Math.max((high - low) * 0.35, Math.abs(high) * 1e-4, 1e-9);
  return [low - room, high + room];
}

export function LimitBand(props: Props) {
  const { value, known, words, limit, quantity } = props;
  const { palette } = useTheme();
  const hatch = useId();
  const [from, to] = rangeOf(props);
  const x = (at: number) => Math.min(WIDTH, Math.max(0, ((at - from) / (to - from)) * WIDTH));
  const low = limit.kind === 'at-most' ? 0 : x(limit.low);
  const high = limit.kind === 'at-least' ? WIDTH : x(limit.high);
  const said = [
    words,
    limit.kind === 'at-most' ? '' : `at least ${formatPlain(limit.low, quantity)}`,
    limit.kind === 'at-least' ? '' : `at most ${formatPlain(limit.high, quantity)}`,
  ];
  const ends = [known.low, known.high].filter(Number.isFinite);
  const drawn = Number.isFinite(known.low) || Number.isFinite(known.high);
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={said.filter(Boolean).join(', ')}
      style={{ display: 'block' }}
    >
      <line x1="0" x2={WIDTH} y1={MIDDLE} y2={MIDDLE} stroke={palette.line} />
      <rect
        x={low}
        y={MIDDLE - 3.5}
        width={Math.max(1, high - low)}
        height="7"
        fill={palette.ground}
        stroke={palette.soft}
        strokeWidth="0.8"
      />
      {[low, high].map((at, index) =>
        (index === 0 ? limit.kind === 'at-most' : limit.kind === 'at-least') ? null : (
          <line
            key={index === 0 ? 'low' : 'high'}
            x1={at}
            x2={at}
            y1="1"
            y2={HEIGHT - 1}
            stroke={palette.text.primary}
            strokeWidth="1.6"
          />
        ),
      )}
      {value === null && drawn && (
        <>
          <pattern id={hatch} width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="4" height="4" fill={palette.background.paper} />
            <line x1="0" x2="0" y1="0" y2="4" stroke={palette.primary.main} strokeWidth="2.4" />
          </pattern>
          <rect
            x={x(known.low)}
            y={MIDDLE - 3}
            width={Math.max(2, x(known.high) - x(known.low))}
            height="6"
            fill={`url(#${hatch})`}
          />
        </>
      )}
      {value !== null && drawn && (
        <line
          x1={x(known.low)}
          x2={x(known.high)}
          y1={MIDDLE}
          y2={MIDDLE}
          stroke={palette.primary.main}
          strokeWidth="2"
        />
      )}
      {ends.map((end) => (
        <line
          key={end}
          x1={x(end)}
          x2={x(end)}
          y1={MIDDLE - 3}
          y2={MIDDLE + 3}
          stroke={palette.primary.main}
          strokeWidth="1.5"
        />
      ))}
      {value !== null && <circle cx={x(value)} cy={MIDDLE} r="3.2" fill={palette.primary.main} />}
    </svg>
  );
}
