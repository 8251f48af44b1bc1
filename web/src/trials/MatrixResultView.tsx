// What a table says: which of its things explains what differs, and what each level brings.
import { formatPlain } from '@lastmark/core/quantity';
import { analyseMatrix, type FactorShare, type MatrixTrial, type TrialRun } from '@lastmark/core/trial';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { BarsChart } from '../parts/BarsChart.tsx';
import { FindingList } from '../parts/FindingList.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';

const percent = (part: number): string => `${Math.round(part * 100)} %`;

export function MatrixResultView({ trial, runs }: { readonly trial: MatrixTrial; readonly runs: readonly TrialRun[] }) {
  const result = useMemo(() => analyseMatrix(trial, runs), [trial, runs]);
  if (!result)
    return <Typography color="text.secondary">A few more runs, and it can be told which of them matters.</Typography>;
  const { factors, together, sentence, findings, chance, left } = result;
  const { quantity } = trial.measure;
  const rows = factors.flatMap((factor, at) =>
    factor.effects.map((effect, level) => ({
      key: `${at} ${level}`,
      factor,
      name: trial.factors[at]?.levels[level]?.name ?? '',
      effect,
      first: level === 0,
    })),
  );
  return (
    <Box component="section" aria-label="What it says" sx={{ mb: 2 }}>
      <Typography sx={{ fontSize: 20, fontWeight: 600, mb: 1 }}>{sentence}</Typography>
      <BarsChart
        lines={[
          ...factors.map(({ name, share, interval, called }: FactorShare) => ({
            name,
            value: share * 100,
            known: [interval[0] * 100, interval[1] * 100] as const,
            words: `${percent(share)}${called ? '' : ', no more than chance'}`,
          })),
          ...together.map(({ names, share, called }) => ({
            name: `${names[0]} and ${names[1]} together`,
            value: share * 100,
            words: `${percent(share)}${called ? '' : ', no more than chance'}`,
          })),
        ]}
        caption={`${trial.question} Part of what differs that each explains; whiskers: 95 %. Chance alone: ${formatPlain(Number(chance.toPrecision(2)), quantity)} from run to run`}
        title="Part of what differs, %"
        most={100}
        table={[
          ['what', 'share', 'low', 'high', 'probability_by_chance'],
          ...factors.map(({ name, share, interval, p }) => [name, share, interval[0], interval[1], p]),
          ...together.map(({ names, share, p }) => [`${names[0]} × ${names[1]}`, share, '', '', p]),
          ['not explained by their sum', left, '', '', ''],
        ]}
      />
      <FindingList findings={findings} />
      <Box sx={{ mt: 1.5 }}>
        <QuietTable<(typeof rows)[number]>
          label="What each brings"
          rows={rows}
          rowKey={({ key }) => key}
          columns={[
            { head: 'What', cell: ({ factor, first }) => (first ? factor.name : '') },
            { head: 'Which', cell: ({ name }) => name },
            {
              head: 'More or less than the mean',
              number: true,
              cell: ({ effect }) =>
                effect !== null && `${effect > 0 ? '+' : ''}${formatPlain(Number(effect.toPrecision(3)), quantity)}`,
              empty: 'not run yet',
            },
          ]}
        />
      </Box>
    </Box>
  );
}
