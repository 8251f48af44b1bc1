// A ranking for those who want one: weights on the screen, what is beaten by none, and how easily it would turn.
import type { SetMember } from '@lastmark/contract/types';
import { formatProbability } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { useDeferredValue, useId } from 'react';
import { QuietTable } from '../parts/QuietTable.tsx';
import { useCompareWork } from './useCompareWork.ts';
import { type MeasureView, sampleTitle } from './views.ts';

const MOST_SHOWN = 200;

interface Props {
  readonly views: readonly MeasureView[];
  readonly members: readonly SetMember[];
  readonly weights: readonly { readonly measure: string; readonly weight: number }[];
  /** Changes with what was fetched. */
  readonly stamp: number;
  readonly onWeights: (weights: { measure: string; weight: number }[]) => void;
}

const percent = (part: number): string => `${Math.round(part * 100)} %`;

export function Ranking({ views, members, weights, stamp, onWeights }: Props) {
  const id = useId();
  const judged = views.filter(({ better, count }) => better !== null && count > 0);
  const weightOf = (measure: string) => weights.find((one) => one.measure === measure)?.weight ?? 0;
  const total = judged.reduce((sum, view) => sum + weightOf(view.id), 0);
  const asked = useDeferredValue(judged.map((view) => weightOf(view.id)).join());
  const told = useCompareWork(['rank', stamp, asked, judged.map(({ key }) => key).join()], (work) =>
    work.rank(
      judged.map((view) => ({
        measure: view.id,
        title: view.title,
        better: view.better,
        weight: weightOf(view.id),
        values: view.values,
      })),
    ),
  );
  const names = new Map(members.map((member) => [member.id, sampleTitle(member)]));
  const ranked = told?.ranked ?? [];
  const [first, second] = ranked;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '300px minmax(0, 1fr)' }, gap: 3 }}>
      <Box component="section" aria-label="Weights">
        <Typography variant="h2" sx={{ mb: 1 }}>
          Weights
        </Typography>
        {judged.map((view) => (
          <Box key={view.id} sx={{ mb: 0.5 }}>
            <Box sx={{ display: 'flex', justifyContent: 'space-between' }}>
              <Typography id={`${id}-${view.id}`}>{view.title}</Typography>
              <Typography sx={{ fontVariantNumeric: 'tabular-nums' }}>
                {total > 0 ? percent(weightOf(view.id) / total) : '0 %'}
              </Typography>
            </Box>
            <Slider
              size="small"
              min={0}
              max={10}
              step={1}
              value={weightOf(view.id)}
              aria-labelledby={`${id}-${view.id}`}
              onChange={(_event, value) =>
                onWeights([
                  ...weights.filter(({ measure }) => measure !== view.id),
                  ...(value === 0 ? [] : [{ measure: view.id, weight: value as number }]),
                ])
              }
              sx={{ py: 1.5 }}
            />
          </Box>
        ))}
        <Typography variant="body2" color="text.secondary">
          Each counts from the worst to the best of this set, so an order is of this set alone.
        </Typography>
      </Box>
      <Box component="section" aria-label="Ranking" sx={{ minWidth: 0 }}>
        {total === 0 ? (
          <Typography color="text.secondary">
            Nothing counts yet: give something a weight. Without weights, First says who leads in each.
          </Typography>
        ) : !first ? (
          <Typography color="text.secondary">
            {told ? 'No sample has everything that counts.' : 'Being drawn…'}
          </Typography>
        ) : (
          <>
            <Typography sx={{ mb: 0.5 }}>
              <strong>{told?.called ? '▲ First: ' : '≈ '}</strong>
              {names.get(first.id)}
              {told?.called
                ? ` stays first with ${formatProbability(first.first)}.`
                : `, level with ${names.get(second?.id ?? '') ?? 'others'}: first in ${formatProbability(first.first)} of the draws only.`}{' '}
              At {percent(first.anyWeights)} of all weights there could be it is first.
            </Typography>
            {(told?.tips ?? []).slice(0, 2).map(({ measure, title, from, to, becomes }) => (
              <Typography key={measure} variant="body2">
                {title} at {percent(to)} rather than {percent(from)} makes {names.get(becomes)} first.
              </Typography>
            ))}
            {told && told.tips.length === 0 && (
              <Typography variant="body2">No single weight makes another first.</Typography>
            )}
            <Box sx={{ mt: 1 }}>
              <QuietTable<(typeof ranked)[number]>
                label="Ranked samples"
                height={420}
                rows={ranked.slice(0, MOST_SHOWN)}
                rowKey={({ id: key }) => key}
                columns={[
                  { head: '', cell: (row) => String(ranked.indexOf(row) + 1) },
                  { head: 'Sample', cell: ({ id: key }) => names.get(key) },
                  { head: 'Weighed', unit: '%', number: true, cell: ({ merit }) => `${(merit * 100).toFixed(1)} %` },
                  { head: 'First in the draws', cell: ({ first: part }) => formatProbability(part) },
                  { head: 'First at any weights', cell: ({ anyWeights }) => percent(anyWeights) },
                  {
                    head: 'Beaten',
                    cell: ({ notBeaten }) => (notBeaten ? 'by none' : 'by another in all that counts'),
                  },
                ]}
              />
            </Box>
            {told && told.without.length > 0 && (
              <Box component="details" sx={{ mt: 1, fontSize: 14 }}>
                <Box component="summary" sx={{ cursor: 'pointer', minHeight: 24 }}>
                  {told.without.length} not ranked: something that counts is not known of them
                </Box>
                {told.without.slice(0, 100).map(({ id: key, lacks }) => (
                  <div key={key}>
                    {names.get(key)}: {lacks.join(', ')}
                  </div>
                ))}
              </Box>
            )}
          </>
        )}
      </Box>
    </Box>
  );
}
