// The port face with its budgets: ports that share stand on one bar.
import type { Budget } from '@lastmark/core/split';
import type { PortFacts } from '@lastmark/core/verdict';
import { useTheme } from '@mui/material/styles';

const WIDTH = 84;
const SHAPES = ['', '6 4', '2 3', '10 4 2 4'] as const;

export function BudgetFace({
  ports,
  budgets,
}: {
  readonly ports: readonly PortFacts[];
  readonly budgets: readonly Budget[];
}) {
  const { palette } = useTheme();
  const x = (label: string) => ports.findIndex((port) => port.label === label) * WIDTH + 8;
  const height = 56 + Math.max(1, budgets.length) * 22;
  const words = budgets
    .map(({ ports: own, sharing, most }) =>
      sharing.kind === 'level'
        ? `${own.join(' and ')} fall to 5 V beside each other`
        : `${own.join(' and ')} ${own.length > 1 ? 'share' : 'alone'} ${Math.round(most)} W`,
    )
    .join('; ');
  return (
    <svg
      width={ports.length * WIDTH + 60}
      height={height}
      role="img"
      aria-label={words || 'No budget known yet'}
      style={{ display: 'block', maxWidth: '100%' }}
    >
      {ports.map(({ label, connector }) => (
        <g key={label} transform={`translate(${x(label)} 0)`}>
          <rect
            x="14"
            y="10"
            width="40"
            height={connector === 'A' ? 20 : 18}
            rx={connector === 'A' ? 2 : 9}
            fill={palette.background.paper}
            stroke={palette.text.primary}
            strokeWidth="2"
          />
          <text x="34" y="46" textAnchor="middle" fontSize="14" fontWeight="600" fill={palette.text.primary}>
            {label.length > 8 ? `${label.slice(0, 7)}…` : label}
          </text>
        </g>
      ))}
      {budgets.map((budget, index) => {
        const colour = palette.series[index % palette.series.length] ?? palette.text.primary;
        const y = 62 + index * 22;
        const places = budget.ports.map(x);
        const from = Math.min(...places) + 14;
        const to = Math.max(...places) + 54;
        return (
          <g key={budget.ports.join()} stroke={colour} strokeWidth="4">
            <line x1={from} x2={to} y1={y} y2={y} strokeDasharray={SHAPES[index % SHAPES.length]} />
            {places.map((place) => (
              <line key={place} x1={place + 34} x2={place + 34} y1={y - 7} y2={y} strokeWidth="3" />
            ))}
            <text x={to + 6} y={y + 5} fontSize="13" fill={palette.text.primary} stroke="none">
              {budget.sharing.kind === 'level' ? 'fall to 5 V' : `${Math.round(budget.most)} W`}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
