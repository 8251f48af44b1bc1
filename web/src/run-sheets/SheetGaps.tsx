// What a complete result will still lack after the sheet, before anyone spends a day on it.
import type { SampleDossier } from '@lastmark/contract/types';
import { type SheetStep, sheetGaps } from '@lastmark/core/plan';
import { completeLoadings } from '@lastmark/core/verdict';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { toJudge, useVerdict } from '../state/sample.tsx';

const SHOWN = 8;

export function SheetGaps({
  steps,
  dossier,
}: {
  readonly steps: readonly SheetStep[];
  readonly dossier: SampleDossier;
}) {
  const { results } = useVerdict(dossier);
  const supplied = dossier.sample.model.kind === 'car' ? 'dc' : 'ac';
  const gaps = sheetGaps({
    steps,
    wanted: completeLoadings(toJudge(dossier), results.efficiency.series),
    mains: dossier.profile.mains.filter(({ kind }) => kind === supplied),
    loadings: dossier.setups.filter(({ purpose }) => purpose === 'efficiency').map(({ outputs }) => outputs),
    readOuts: dossier.readOuts,
  });
  if (gaps.length === 0) return null;
  return (
    <Alert severity="info" sx={{ mb: 1 }}>
      After this sheet a complete result will still lack:
      <Box component="ul" aria-label="What a complete result will lack" sx={{ m: 0, pl: 2.5 }}>
        {gaps.slice(0, SHOWN).map((gap) => (
          <li key={gap}>{gap}</li>
        ))}
      </Box>
      {gaps.length > SHOWN && `and ${gaps.length - SHOWN} more`}
    </Alert>
  );
}
