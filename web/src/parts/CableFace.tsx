// Both ends of what sits in a line, drawn from its intake: the charger's end at the left, the device's at the right.
import { type CableFacts, cableWords, type End } from '@lastmark/core/cable';
import { useTheme } from '@mui/material/styles';

const WIDTH = 184;
const HEIGHT = 58;
const MIDDLE = 26;

interface Props {
  readonly cable: CableFacts;
  readonly width?: number;
}

/** One end, drawn at the left and pointing outwards; the other is its mirror. */
function Head({ end, colour, fill }: { readonly end: End; readonly colour: string; readonly fill: string }) {
  const wide = end.startsWith('A') ? 22 : 14;
  const socket = end.endsWith('socket');
  if (end === 'captive')
    return <rect x="2" y={MIDDLE - 15} width="26" height="30" rx="5" fill={fill} stroke={colour} strokeWidth="2" />;
  return (
    <g stroke={colour} strokeWidth="2" fill={fill}>
      <rect x="16" y={MIDDLE - 11} width="26" height="22" rx="4" />
      {socket ? (
        <rect x="16" y={MIDDLE - wide / 2 + 2} width="9" height={wide - 4} rx={end.startsWith('C') ? 3 : 0} />
      ) : (
        <rect
          x="3"
          y={MIDDLE - wide / 2 + 2}
          width="13"
          height={wide - 4}
          rx={end.startsWith('C') ? 4 : 0}
          strokeDasharray={end === 'other' ? '3 2' : undefined}
        />
      )}
    </g>
  );
}

/** What hangs between both ends: a wire, or a body for what is none. */
function Between({
  cable,
  colour,
  fill,
}: {
  readonly cable: CableFacts;
  readonly colour: string;
  readonly fill: string;
}) {
  if (cable.form === 'cable' || cable.form === 'extension') {
    const path = `M42 ${MIDDLE} C 66 ${MIDDLE} 66 ${MIDDLE + 15} 92 ${MIDDLE + 15} S 118 ${MIDDLE} 142 ${MIDDLE}`;
    return (
      <>
        <path d={path} fill="none" stroke={colour} strokeWidth="4" />
        {cable.braid && <path d={path} fill="none" stroke={fill} strokeWidth="2" strokeDasharray="3 3" />}
        {cable.form === 'extension' && (
          <circle cx="92" cy={MIDDLE + 15} r="5" fill={fill} stroke={colour} strokeWidth="2" />
        )}
      </>
    );
  }
  return (
    <g stroke={colour} strokeWidth="2" fill={fill}>
      <line x1="42" x2="142" y1={MIDDLE} y2={MIDDLE} strokeWidth="4" />
      <rect x="66" y={MIDDLE - 14} width="52" height="28" rx="5" />
      {cable.form === 'data blocker' && <path d={`M78 ${MIDDLE - 7} l28 14 M106 ${MIDDLE - 7} l-28 14`} fill="none" />}
      {cable.form === 'inline meter' && <rect x="74" y={MIDDLE - 7} width="36" height="14" />}
    </g>
  );
}

export function CableFace({ cable, width = WIDTH }: Props) {
  const { palette } = useTheme();
  const [near, far] = cable.ends;
  const colour = palette.text.primary;
  const fill = palette.background.paper;
  const short = (end: End) => end.replace(' plug', '').replace(' socket', ' socket');
  return (
    <svg
      width={width}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={cableWords(cable)}
      style={{ display: 'block', maxWidth: '100%' }}
    >
      <Between cable={cable} colour={colour} fill={fill} />
      <Head end={near} colour={colour} fill={fill} />
      <g transform={`translate(${WIDTH} 0) scale(-1 1)`}>
        <Head end={far} colour={colour} fill={fill} />
      </g>
      <text x="2" y={HEIGHT - 3} fontSize="11" fill={palette.text.secondary}>
        {short(near)}
      </text>
      <text x={WIDTH - 2} y={HEIGHT - 3} fontSize="11" textAnchor="end" fill={palette.text.secondary}>
        {short(far)}
      </text>
    </svg>
  );
}
