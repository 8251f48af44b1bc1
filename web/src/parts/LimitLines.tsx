// Results held against limit sets, one row each, with where the result sits and how likely it conforms.
import type { LimitLine } from '@lastmark/core/limits';
import { formatPlain, formatProbability, formatValue } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { LimitBand } from './LimitBand.tsx';
import { QuietTable } from './QuietTable.tsx';
import { StateMark } from './StateMark.tsx';

const WORDS: Record<LimitLine['quantity'], string> = {
  'average-efficiency': 'average',
  'light-load-efficiency': 'at 10 %',
  'no-load-power': 'no load',
};

const NOWRAP = { whiteSpace: 'nowrap' } as const;

function Small({ title, children }: { readonly title?: string; readonly children: ReactNode }) {
  return (
    <Box
      component="span"
      title={title}
      sx={{ display: 'block', fontSize: 12, fontWeight: 400, color: 'text.secondary' }}
    >
      {children}
    </Box>
  );
}

/** A limit as `≥ 87.73 %` or `≤ 0.1 W`. */
function limitText({ limit }: LimitLine): string {
  if (limit.kind === 'at-most') return `≤ ${formatPlain(limit.high, 'power')}`;
  return `≥ ${formatValue(limit.low, 'efficiency', 2)}`;
}

interface Props {
  readonly label: string;
  readonly lines: readonly LimitLine[];
}

export function LimitLines({ label, lines }: Props) {
  return (
    <QuietTable<LimitLine>
      label={label}
      rows={lines}
      rowKey={({ setId, quantity, mains }) => `${setId} ${quantity} ${mainsLabel(mains)}`}
      exception={({ decision }) => decision.outcome === 'short'}
      columns={[
        {
          head: 'Set',
          cell: ({ title, quantity, mains }) => (
            <>
              {title}
              <Small>
                {WORDS[quantity]}, {mainsLabel(mains)}
              </Small>
            </>
          ),
        },
        { head: 'Limit', cell: (line) => <span style={NOWRAP}>{limitText(line)}</span> },
        { head: 'Measured', cell: ({ words }) => <span style={NOWRAP}>{words}</span> },
        {
          head: 'Where it lies',
          cell: ({ bounded, result, known, words, limit, quantity }) => (
            <LimitBand
              value={bounded ? null : result.value}
              known={known}
              words={words}
              limit={limit}
              quantity={quantity === 'no-load-power' ? 'power' : 'efficiency'}
            />
          ),
        },
        {
          head: 'Outcome',
          cell: ({ decision, standing, reasons }) => (
            <>
              <StateMark state={decision.outcome} />
              {standing === 'indicative' && <Small title={reasons.join(' ')}>indicative</Small>}
            </>
          ),
        },
        {
          head: 'Likely',
          cell: ({ decision }) => (decision.probability === null ? null : formatProbability(decision.probability)),
          empty: 'not told',
        },
      ]}
    />
  );
}
