// Who gets what: a row a combination, a column a port, the budgets drawn over the ports that share them. In each cell the
// promise as an outline, what was metered as fill, what is only known as an interval hatched; a broken edge where the port
// drops out when another of the set is plugged in.
import { CLAIM_STATES, worstState } from '@lastmark/core/claim';
import { fixed } from '@lastmark/core/quantity';
import { type Budget, type Drop, type ShareLine, type SplitRow, setKey } from '@lastmark/core/split';
import Box from '@mui/material/Box';
import { type SxProps, type Theme, useTheme } from '@mui/material/styles';
import { type ReactNode, useId } from 'react';
import { isLoud, StateMark } from '../../parts/StateMark.tsx';
import { columnsOf, shareWords, totalWords } from './matrix.ts';

const MORE_WORDS = {
  stated: '▲ more than promised',
  headroom: '▲ headroom',
  hazard: '▲ hazard: more than promised',
} as const;

interface BarProps {
  readonly line: ShareLine;
  /** W at the full width of a cell. */
  readonly scale: number;
  readonly colour: string;
}

/** The share as a bar; the numbers beside it say the same. */
function Bar({ line: { promised, measured, value }, scale, colour }: BarProps) {
  const { palette } = useTheme();
  const hatch = useId();
  const x = (watts: number) => `${Math.min(100, Math.max(0, (watts / scale) * 100))}%`;
  const low = measured?.low ?? 0;
  const high = Number.isFinite(measured?.high) ? (measured?.high ?? 0) : scale;
  return (
    <svg width="100%" height="13" aria-hidden="true" style={{ display: 'block' }}>
      {value !== null && <rect x="0" y="2" height="9" width={x(value)} fill={colour} opacity="0.75" />}
      {value === null && measured && (
        <>
          <pattern id={hatch} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" x2="0" y1="0" y2="6" stroke={colour} strokeWidth="2.5" />
          </pattern>
          <rect x={x(low)} y="2" height="9" width={x(high - low)} fill={`url(#${hatch})`} stroke={colour} />
        </>
      )}
      {promised !== null && (
        <rect
          x="1"
          y="1"
          height="11"
          width={x(promised)}
          fill="none"
          stroke={palette.text.primary}
          strokeWidth="1.5"
          strokeDasharray={measured ? undefined : '4 3'}
        />
      )}
    </svg>
  );
}

interface ShareProps extends BarProps {
  readonly broken: boolean;
}

function Share({ line, scale, colour, broken }: ShareProps) {
  const { palette } = useTheme();
  const loud = line.state !== null && isLoud(line.state);
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 0.5, whiteSpace: 'nowrap' }}>
        {broken && (
          <svg width="10" height="14" role="img" aria-label="drops out" style={{ alignSelf: 'center' }}>
            <title>drops out when another of the set is plugged in</title>
            <path d="M2 0l6 3.5-6 3.5 6 3.5-6 3.5" stroke={palette.error.main} strokeWidth="2" fill="none" />
          </svg>
        )}
        <Box component="span" sx={{ fontWeight: loud ? 700 : 600, color: loud ? 'error.main' : undefined }}>
          {line.ports.length > 1 && `${line.ports.join('+')} `}
          {line.measured ? shareWords(line, 1) : 'not read'}
        </Box>
        {line.promised !== null && (
          <Box component="span" sx={{ fontSize: 12, color: 'text.secondary' }}>
            of {fixed(line.promised, 0)}
          </Box>
        )}
      </Box>
      <Bar line={line} scale={scale} colour={colour} />
    </>
  );
}

/** How a combination stands: the state of its promise as the ledger has it. */
function Standing({ row, as }: { readonly row: SplitRow; readonly as: keyof typeof MORE_WORDS }) {
  const states = row.lines.flatMap(({ state }) => state ?? []);
  if (states.length === 0) {
    return (
      <Box component="span" sx={{ color: 'text.secondary', fontSize: 13 }}>
        not promised
      </Box>
    );
  }
  return (
    <>
      <StateMark state={worstState(states, CLAIM_STATES)} />
      {row.lines.every((line) => line.more) && <Box sx={{ fontSize: 13 }}>{MORE_WORDS[as]}</Box>}
    </>
  );
}

const STROKES = ['solid', 'dashed', 'dotted', 'double'] as const;

/** One bar over the ports of a budget. */
function BudgetRow({
  budget,
  index,
  ports,
}: {
  readonly budget: Budget;
  readonly index: number;
  readonly ports: readonly string[];
}) {
  const { palette } = useTheme();
  const first = ports.find((port) => budget.ports.includes(port));
  const line = `4px ${STROKES[index % STROKES.length]} ${palette.series[index % palette.series.length]}`;
  return (
    <tr>
      <td />
      {ports.map((port) => (
        <td key={port} style={{ borderBottom: budget.ports.includes(port) ? line : 'none', padding: '2px 8px' }}>
          {port === first &&
            (budget.sharing.kind === 'level'
              ? 'fall to 5 V together'
              : budget.ports.length > 1
                ? `share ${Math.round(budget.most)} W`
                : `alone ${Math.round(budget.most)} W`)}
        </td>
      ))}
      <td />
      <td />
    </tr>
  );
}

const TABLE: SxProps<Theme> = {
  borderCollapse: 'separate',
  borderSpacing: 0,
  width: '100%',
  tableLayout: 'fixed',
  fontSize: 14,
  '& tbody th, & tbody td': {
    px: 1,
    py: 0.4,
    textAlign: 'left',
    verticalAlign: 'middle',
    borderTop: 1,
    borderColor: 'divider',
  },
  '& tbody th': { fontWeight: 600, overflowWrap: 'anywhere' },
  '& thead td': { fontSize: 12, color: 'text.secondary', whiteSpace: 'nowrap' },
  '& thead th': {
    px: 1,
    py: 0.75,
    textAlign: 'left',
    color: 'text.secondary',
    fontSize: 13,
    position: 'sticky',
    top: 0,
    bgcolor: 'background.paper',
    zIndex: 1,
  },
  '& tr[data-short=true]': { bgcolor: 'badGround' },
};

interface Props {
  readonly label: string;
  readonly rows: readonly SplitRow[];
  readonly ports: readonly string[];
  readonly drops: readonly Drop[];
  readonly budgets?: readonly Budget[];
  readonly as: keyof typeof MORE_WORDS;
}

export function SplitMatrix({ label, rows, ports, drops, budgets = [], as }: Props) {
  const { palette } = useTheme();
  const scale = Math.max(
    1,
    ...rows.flatMap(({ lines }) =>
      lines.flatMap(({ promised, measured }) => [
        promised ?? 0,
        Number.isFinite(measured?.high) ? (measured?.high ?? 0) : 0,
      ]),
    ),
  );
  const colourOf = (port: string) =>
    palette.series[ports.indexOf(port) % palette.series.length] ?? palette.text.primary;
  const brokenIn = ({ occupied }: SplitRow, own: readonly string[]) =>
    drops.some((drop) => own.includes(drop.port) && drop.dropped && occupied.includes(drop.cause));
  const cellsOf = (row: SplitRow): ReactNode[] =>
    columnsOf(row, ports).map(({ port, span, line }) => (
      <td key={port} colSpan={span}>
        {line && (
          <Share
            line={line}
            scale={scale * span}
            colour={colourOf(line.ports[0] ?? port)}
            broken={brokenIn(row, line.ports)}
          />
        )}
      </td>
    ));
  return (
    <Box
      role="region"
      aria-label={label}
      tabIndex={0}
      sx={{ mb: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', overflowX: 'auto' }}
    >
      <Box component="table" aria-label={label} sx={TABLE} style={{ minWidth: 260 + ports.length * 104 }}>
        <colgroup>
          <col style={{ width: 112 }} />
          {ports.map((port) => (
            <col key={port} />
          ))}
          <col style={{ width: 96 }} />
          <col style={{ width: 118 }} />
        </colgroup>
        <thead>
          {budgets.map((budget, index) => (
            <BudgetRow key={budget.ports.join()} budget={budget} index={index} ports={ports} />
          ))}
          <tr>
            {['Occupied', ...ports.map((port) => `${port}, W`), 'Together', 'Promise'].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={setKey(row.occupied)} data-short={row.lines.some(({ state }) => state !== null && isLoud(state))}>
              <th scope="row">{setKey(row.occupied)}</th>
              {cellsOf(row)}
              <Box component="td" sx={{ whiteSpace: 'nowrap' }}>
                {totalWords(row)}
                {row.promised !== null && (
                  <Box component="span" sx={{ display: 'block', fontSize: 12, color: 'text.secondary' }}>
                    of {fixed(row.promised, 0)} W
                  </Box>
                )}
              </Box>
              <td>
                <Standing row={row} as={as} />
                {row.charging === false && (
                  <Box sx={{ color: 'error.main', fontSize: 13, fontWeight: 600 }}>▼ something stopped charging</Box>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
