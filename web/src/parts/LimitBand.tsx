// A thin band beside a number: where the value sits between its limits, its uncertainty as a whisker.
import type { Limit } from '@lastmark/core/decision';
import { formatMeasured, formatPlain, type QuantityId } from '@lastmark/core/quantity';
import { useTheme } from '@mui/material/styles';

const WIDTH = 120;
const HEIGHT = 16;
const MIDDLE = HEIGHT / 2;

interface Props {
  readonly value: number;
  readonly expanded: number;
  readonly limit: Limit;
  readonly quantity: QuantityId;
}

/** Range to draw: limits and whisker with room around them. */
function rangeOf(value: number, expanded: number, limit: Limit): [number, number] {
  const marks = [
    value - expanded,
    value + expanded,
    ...(limit.kind === 'at-most' ? [] : [limit.low]),
    ...(limit.kind === 'at-least' ? [] : [limit.high]),
  ];
  const low = Math.min(...marks);
  const high = Math.max(...marks);
  const room = Math.max((high - low) * 0.35, Math.abs(high) * 1e-4, 1e-9);
  return [low - room, high + room];
}

export function LimitBand({ value, expanded, limit, quantity }: Props) {
  const { palette } = useTheme();
  const [from, to] = rangeOf(value, expanded, limit);
  const x = (at: number) => Math.min(WIDTH, Math.max(0, ((at - from) / (to - from)) * WIDTH));
  const low = limit.kind === 'at-most' ? 0 : x(limit.low);
  const high = limit.kind === 'at-least' ? WIDTH : x(limit.high);
  const words = [
    formatMeasured(value, expanded, quantity),
    limit.kind === 'at-most' ? '' : `at least ${formatPlain(limit.low, quantity)}`,
    limit.kind === 'at-least' ? '' : `at most ${formatPlain(limit.high, quantity)}`,
  ];
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={words.filter(Boolean).join(', ')}
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
      {limit.kind !== 'at-most' && (
        <line x1={low} x2={low} y1="1" y2={HEIGHT - 1} stroke={palette.text.primary} strokeWidth="1.6" />
      )}
      {limit.kind !== 'at-least' && (
        <line x1={high} x2={high} y1="1" y2={HEIGHT - 1} stroke={palette.text.primary} strokeWidth="1.6" />
      )}
      <line
        x1={x(value - expanded)}
        x2={x(value + expanded)}
        y1={MIDDLE}
        y2={MIDDLE}
        stroke={palette.primary.main}
        strokeWidth="2"
      />
      <line
        x1={x(value - expanded)}
        x2={x(value - expanded)}
        y1={MIDDLE - 3}
        y2={MIDDLE + 3}
        stroke={palette.primary.main}
        strokeWidth="1.5"
      />
      <line
        x1={x(value + expanded)}
        x2={x(value + expanded)}
        y1={MIDDLE - 3}
        y2={MIDDLE + 3}
        stroke={palette.primary.main}
        strokeWidth="1.5"
      />
      <circle cx={x(value)} cy={MIDDLE} r="3.2" fill={palette.primary.main} />
    </svg>
  );
}
