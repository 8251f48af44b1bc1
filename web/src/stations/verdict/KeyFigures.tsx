// What a sample is known by, each figure with its condition.
import { pricePerMetre } from '@lastmark/core/cable';
import type { LimitLine } from '@lastmark/core/limits';
import { formatMeasured, formatPlain } from '@lastmark/core/quantity';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import type { KeyFigures } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import { LimitBand } from '../../parts/LimitBand.tsx';
import { StateMark } from '../../parts/StateMark.tsx';
import { type SampleAtHand, useSample } from '../../state/sample.tsx';

type Item = readonly [name: string, value: string, condition: string, band?: LimitLine | null | undefined];

/** The limit a figure is nearest to, or furthest beyond. */
const nearest = (lines: readonly LimitLine[], quantity: LimitLine['quantity']): LimitLine | null =>
  lines
    .filter((line) => line.quantity === quantity)
    .reduce<LimitLine | null>((a, b) => (a && a.decision.margin <= b.decision.margin ? a : b), null);

function Band({ line }: { readonly line: LimitLine }) {
  const { bounded, result, known, words, limit, quantity, title, decision } = line;
  return (
    <Box title={title} sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
      <LimitBand
        value={bounded ? null : result.value}
        known={known}
        words={words}
        limit={limit}
        quantity={quantity === 'no-load-power' ? 'power' : 'efficiency'}
      />
      <StateMark state={decision.outcome} bare />
    </Box>
  );
}

/** What a cable is known by. */
function cableItems({ dossier, verdict }: SampleAtHand): readonly Item[] {
  const { cable, prices, mass } = dossier.sample.model;
  const { rating } = verdict.results.marker;
  const { loop } = verdict.results.resistance;
  const { done, failed } = verdict.results.bends;
  const paid = prices.findLast(({ kind }) => kind === 'paid');
  const metre = paid && cable ? pricePerMetre({ amount: paid.amount, pack: cable.pack, length: cable.length }) : null;
  return [
    [
      'May carry',
      rating ? formatPlain(rating.amps * rating.volts, 'power') : 'nobody asked',
      rating ? `${rating.amps} A at ${rating.volts} V` : '',
    ],
    [
      'Resistance',
      loop ? formatMeasured(loop.value, expandedUncertainty(loop), 'resistance') : 'not measured',
      loop ? 'there and back' : '',
    ],
    ['Bends', failed ? `failed by ${failed.count}` : done > 0 ? String(done) : 'not bent', failed?.fault ?? ''],
    ['Mass', mass === null ? 'not weighed' : formatPlain(mass, 'mass'), cable?.length ? `${cable.length} m` : ''],
    [
      'Price',
      metre === null || !paid ? 'not entered' : `${metre.toFixed(2)} ${paid.currency}/m`,
      metre === null ? '' : 'paid',
    ],
  ];
}

export function Figures({ figures }: { readonly figures: KeyFigures }) {
  const at = useSample();
  const { watts, efficiency, idle, massPerWatt, pricePerWatt } = figures;
  const inLine = at.dossier.sample.model.kind === 'cable';
  const { results } = at.verdict;
  const average = inLine
    ? null
    : nearest(
        results.efficiency.limits.flatMap(({ lines }) => lines),
        'average-efficiency',
      );
  const empty = inLine ? null : nearest(results.idle.limits, 'no-load-power');
  const items: readonly Item[] = inLine
    ? cableItems(at)
    : [
        ['Nameplate', watts === null ? 'not known' : formatPlain(watts, 'power'), ''],
        ['Average efficiency', efficiency?.words ?? 'not measured', efficiency?.condition ?? '', average],
        ['Idle', idle?.words ?? 'not measured', idle?.condition ?? '', empty],
        ['Mass', massPerWatt === null ? 'not weighed' : `${(massPerWatt * 1000).toFixed(2)} g/W`, ''],
        [
          'Price',
          pricePerWatt === null ? 'not entered' : `${pricePerWatt.value.toFixed(2)} ${pricePerWatt.currency}/W`,
          pricePerWatt?.basis ?? '',
        ],
      ];
  return (
    <Box component="dl" sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, rowGap: 1.5, m: 0, mb: 3 }}>
      {items.map(([name, value, condition, band]) => (
        <Box key={name}>
          <Box component="dt" sx={{ color: 'text.secondary', fontSize: 13 }}>
            {name}
          </Box>
          <Box component="dd" sx={{ m: 0 }}>
            <Box sx={{ fontSize: 19, fontWeight: 600, lineHeight: 1.25 }}>{value}</Box>
            {band && <Band line={band} />}
            <Box sx={{ fontSize: 12, color: 'text.secondary' }}>{condition}</Box>
          </Box>
        </Box>
      ))}
    </Box>
  );
}
