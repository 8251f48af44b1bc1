// The charger's port face, drawn from the intake: ports in physical order with their own labels.
import type { PortFacts } from '@lastmark/core/verdict';
import { useTheme } from '@mui/material/styles';

const WIDTH = 46;
const GAP = 8;
const PAD = 12;
const HEIGHT = 66;

interface Props {
  readonly ports: readonly PortFacts[];
  /** Width on screen, px; the drawing scales down to fit. */
  readonly width?: number;
  readonly highlighted?: readonly string[];
}

function Connector({ port, x, colour, fill }: { port: PortFacts; x: number; colour: string; fill: string }) {
  const middle = x + WIDTH / 2;
  if (port.connector === 'A') {
    return (
      <g stroke={colour} strokeWidth="2" fill={fill}>
        <rect x={middle - 17} y="14" width="34" height="16" />
        <rect x={middle - 13} y="17" width="26" height="5" fill={colour} stroke="none" />
      </g>
    );
  }
  return (
    <g stroke={colour} strokeWidth="2" fill={fill}>
      <rect x={middle - 15} y="15" width="30" height="14" rx="7" />
      <line x1={middle - 8} y1="22" x2={middle + 8} y2="22" strokeWidth="3" strokeLinecap="round" />
      {port.connector === 'captive C' && <path d={`M${middle} 29 v9`} strokeWidth="4" />}
    </g>
  );
}

/** Shortened label that fits under its port. */
const shown = (label: string): string => (label.length > 6 ? `${label.slice(0, 5)}…` : label);

export function PortFace({ ports, width = 184, highlighted = [] }: Props) {
  const { palette } = useTheme();
  const full = Math.max(1, ports.length) * (WIDTH + GAP) - GAP + PAD * 2;
  const label =
    ports.length > 0 ? `Ports: ${ports.map((port) => `${port.label} (${port.connector})`).join(', ')}` : 'No ports yet';
  return (
    <svg
      width={Math.min(width, full)}
      viewBox={`0 0 ${full} ${HEIGHT}`}
      role="img"
      aria-label={label}
      style={{ display: 'block', maxHeight: 72 }}
    >
      <rect
        x="1"
        y="1"
        width={full - 2}
        height={HEIGHT - 2}
        rx="9"
        fill={palette.background.paper}
        stroke={palette.line}
        strokeWidth="2"
      />
      {ports.length === 0 && (
        <text x={full / 2} y="38" textAnchor="middle" fontSize="12" fill={palette.soft}>
          no ports
        </text>
      )}
      {ports.map((port, index) => {
        const x = PAD + index * (WIDTH + GAP);
        const lit = highlighted.includes(port.label);
        return (
          <g key={port.label}>
            <title>{`${port.label}, ${port.connector}${port.twin ? `, like ${port.twin}` : ''}`}</title>
            <Connector
              port={port}
              x={x}
              colour={lit ? palette.primary.main : palette.text.primary}
              fill={lit ? palette.ground : 'none'}
            />
            <text
              x={x + WIDTH / 2}
              y="54"
              textAnchor="middle"
              fontSize="13"
              fontWeight="600"
              fill={palette.text.primary}
            >
              {shown(port.label)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
