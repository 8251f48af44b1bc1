// The bench line's numbers: mains W and power factor, V·A·W of each loaded channel, the hottest point.
import type { LiveEvent } from '@lastmark/contract/types';
import { fixed } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import type { Live } from '../state/useLive.ts';

interface Figure {
  readonly id: string;
  readonly name: string;
  readonly text: string;
}

const LEAST_WATTS = 0.1;

const shown = (value: number | null | undefined, decimals: number, unit: string): string =>
  value == null ? `– ${unit}` : `${fixed(value, decimals)} ${unit}`;

/** What one instrument contributes. Values stand in the order its class tells them. */
function figuresOf({ instrumentId, name, class: kind, values }: LiveEvent): readonly Figure[] {
  if (kind === 'power analyser') {
    const [, watts, , , factor] = values;
    return [
      {
        id: instrumentId,
        name: 'Mains',
        // Where next to nothing flows a power factor means nothing.
        text: `${shown(watts, 2, 'W')}${(watts ?? 0) >= LEAST_WATTS && factor != null ? `  PF ${fixed(factor, 2)}` : ''}`,
      },
    ];
  }
  if (kind === 'DC load') {
    const channels = Math.floor((values.length - 1) / 2);
    return Array.from({ length: channels }, (_, index): Figure | null => {
      const volts = values[1 + index * 2] ?? null;
      const amps = values[2 + index * 2] ?? null;
      // A channel with nothing on it says nothing.
      if (volts === null || amps === null || volts < 0.5) return null;
      const watts = volts * amps;
      return {
        id: `${instrumentId} ${index}`,
        name: channels > 1 ? `Load ${index + 1}` : 'Load',
        text: `${shown(volts, 2, 'V')} ${shown(amps, 3, 'A')} ${shown(watts, 1, 'W')}`,
      };
    }).filter((one) => one !== null);
  }
  if (kind !== 'thermometer') return [];
  const points = values.filter((value): value is number => value !== null);
  return points.length > 0
    ? [{ id: instrumentId, name: 'Hottest', text: shown(Math.max(...points), 1, '°C') }]
    : [{ id: instrumentId, name, text: '–' }];
}

/** Whether a problem is that nobody knows whether a load is off. */
export const isDoubt = (problem: string): boolean => problem.startsWith('Nobody knows whether');

/** More than what an open channel reads by itself, A. */
const LEAST_AMPS = 0.01;

/** Whether something flows from a port into this load. */
export const isDrawing = ({ class: kind, values }: LiveEvent): boolean =>
  kind === 'DC load' && values.some((value, index) => index > 0 && index % 2 === 0 && (value ?? 0) >= LEAST_AMPS);

interface Props {
  readonly live: Live;
  /** Read from a metre away. */
  readonly loud: boolean;
}

export function LiveNumbers({ live, loud }: Props) {
  const figures = live.events.filter(({ values }) => values.length > 0).flatMap(figuresOf);
  // Loads in doubt are told beside the button that is to be pressed.
  const problems = live.events.flatMap(({ problem, name }) =>
    problem && !isDoubt(problem) ? [problem.startsWith(name) ? problem : `${name}: ${problem}`] : [],
  );
  const newest = live.events.reduce((latest, { at }) => (at > latest ? at : latest), '');
  return (
    <Box
      // When the newest of these numbers was asked for: what is measured as the way from instrument to screen.
      data-newest={newest}
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 3,
        alignItems: 'baseline',
        fontVariantNumeric: 'tabular-nums',
      }}
    >
      {figures.map(({ id, name, text }) => (
        <Box key={id}>
          <Box component="span" sx={{ color: 'text.secondary', fontSize: 13, mr: 0.75 }}>
            {name}
          </Box>
          <Box component="span" sx={{ fontWeight: 600, fontSize: loud ? 20 : 15, whiteSpace: 'pre' }}>
            {text}
          </Box>
        </Box>
      ))}
      {problems.map((problem) => (
        <Box key={problem} sx={{ color: 'error.main', fontWeight: 600, fontSize: 14 }}>
          ▼ {problem}
        </Box>
      ))}
    </Box>
  );
}
