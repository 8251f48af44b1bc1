// Results held against limit sets, one row each, with where the result sits and how likely it conforms.
import type { LimitLine } from '@lastmark/core/limits';
import { formatPlain, formatProbability, formatValue } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { ReactNode } from 'react';
import { LimitBand } from './LimitBand.tsx';
import { StateMark } from './StateMark.tsx';

const WORDS: Record<LimitLine['quantity'], string> = {
  'average-efficiency': 'average',
  'light-load-efficiency': 'at 10 %',
  'no-load-power': 'no load',
};

function Small({ title, children }: { readonly title?: string; readonly children: ReactNode }) {
  return (
    <Box component="span" title={title} sx={{ display: 'block', fontSize: 12, color: 'text.secondary' }}>
      {children}
    </Box>
  );
}

/** A limit as `≥ 87.73 %` or `≤ 0.1 W`. */
function limitText({ limit }: LimitLine): string {
  if (limit.kind === 'at-most') return `≤ ${formatPlain(limit.high, 'power')}`;
  return `≥ ${formatValue(limit.low, 'efficiency', 2)}`;
}

function Line({ line }: { readonly line: LimitLine }) {
  const quantity = line.quantity === 'no-load-power' ? 'power' : 'efficiency';
  return (
    <TableRow>
      <TableCell>
        {line.title}
        <Small>
          {WORDS[line.quantity]}, {mainsLabel(line.mains)}
        </Small>
      </TableCell>
      <TableCell>{limitText(line)}</TableCell>
      <TableCell>{line.words}</TableCell>
      <TableCell>
        <LimitBand
          value={line.bounded ? null : line.result.value}
          known={line.known}
          words={line.words}
          limit={line.limit}
          quantity={quantity}
        />
      </TableCell>
      <TableCell>
        <StateMark state={line.decision.outcome} />
        {line.standing === 'indicative' && <Small title={line.reasons.join(' ')}>indicative</Small>}
      </TableCell>
      <TableCell>{line.decision.probability === null ? '–' : formatProbability(line.decision.probability)}</TableCell>
    </TableRow>
  );
}

interface Props {
  readonly label: string;
  readonly lines: readonly LimitLine[];
}

export function LimitLines({ label, lines }: Props) {
  return (
    <Table size="small" aria-label={label} sx={{ '& td:not(:first-of-type)': { whiteSpace: 'nowrap' } }}>
      <TableHead>
        <TableRow>
          {['Set', 'Limit', 'Measured', '', 'Outcome', 'Likely'].map((head) => (
            <TableCell key={head}>{head}</TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {lines.map((line) => (
          <Line key={`${line.setId} ${line.quantity} ${mainsLabel(line.mains)}`} line={line} />
        ))}
      </TableBody>
    </Table>
  );
}
