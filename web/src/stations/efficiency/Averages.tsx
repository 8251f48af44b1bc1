// The figures a loading amounts to, big enough to read from a metre away.
import type { SeriesResult } from '@lastmark/core/efficiency';
import { formatMeasured, formatValue } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty, type Measured } from '@lastmark/core/uncertainty';
import type { SetupLimits } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import { StateMark } from '../../parts/StateMark.tsx';
import { Term } from '../../parts/Term.tsx';

const shown = (result: Measured): string => formatMeasured(result.value, expandedUncertainty(result), 'efficiency');
const percent = (load: number): string => `${Math.round(load * 100)} %`;

interface Props {
  readonly series: SeriesResult;
  readonly limits: SetupLimits | undefined;
}

export function Averages({ series, limits }: Props) {
  const { byMains, best, worst } = series;
  if (byMains.length === 0) return null;
  return (
    <Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 4, rowGap: 1.5 }}>
        {byMains.map(({ mains, average, missing, lightLoad }) => {
          const label = mainsLabel(mains);
          const held = (limits?.lines ?? []).filter(
            (line) => mainsLabel(line.mains) === label && line.quantity === 'average-efficiency',
          );
          const verdicts = held.filter(({ standing }) => standing === 'verdict');
          return (
            <Box key={label}>
              <Box sx={{ color: 'text.secondary', fontSize: 13 }}>
                <Term of="four-point average">Four-point average</Term>, {label}
              </Box>
              <Box sx={{ fontSize: 28, fontWeight: 600, lineHeight: 1.2, whiteSpace: 'nowrap' }}>
                {average ? (
                  shown(average)
                ) : (
                  <Box component="span" sx={{ fontSize: 17, fontWeight: 400 }}>
                    {missing.map(percent).join(', ')} still to measure
                  </Box>
                )}
              </Box>
              {verdicts.map((line) => (
                <Box key={line.setId} sx={{ fontSize: 13, display: 'flex', gap: 0.75 }}>
                  <StateMark state={line.decision.outcome} />
                  {line.title}
                </Box>
              ))}
              {held.length > 0 && verdicts.length === 0 && (
                <Box sx={{ fontSize: 13, color: 'text.secondary' }}>Indicative: see Limit sets below.</Box>
              )}
              {lightLoad && <Box sx={{ fontSize: 13 }}>At 10 % load {shown(lightLoad)}</Box>}
            </Box>
          );
        })}
        {best && worst && (
          <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
            <Box>
              Best {formatValue(best.efficiency.value, 'efficiency', 1)} at {percent(best.load)} load,{' '}
              {mainsLabel(best.mains)}
            </Box>
            <Box>
              Worst {formatValue(worst.efficiency.value, 'efficiency', 1)} at {percent(worst.load)} load,{' '}
              {mainsLabel(worst.mains)}
            </Box>
          </Box>
        )}
      </Box>
    </Box>
  );
}
