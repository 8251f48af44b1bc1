// The sources of an uncertainty as bars, with what would help: one result a row.
import { type Budget, finerMeter } from '@lastmark/core/efficiency';
import { fixed, formatUncertainty } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useSample } from '../state/sample.tsx';

export interface BudgetRow {
  readonly title: string;
  readonly budget: Budget;
  /** The expanded uncertainty in words: "0.40 percentage points". */
  readonly expanded: string;
}

/** What another meter of the bench would read the largest source to. */
function finerWords(budget: Budget, instruments: Parameters<typeof finerMeter>[1]): string {
  const finer = finerMeter(budget, instruments);
  return finer
    ? ` On this bench "${finer.name}" reads it to ± ${formatUncertainty(finer.expanded, finer.quantity)}.`
    : '';
}

export function BudgetLines({ rows }: { readonly rows: readonly BudgetRow[] }) {
  const { instruments } = useSample().dossier;
  if (rows.length === 0) return null;
  return (
    <Box component="details" sx={{ mb: 2 }}>
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        Where the uncertainty comes from
      </Box>
      <Box
        sx={{
          mt: 1,
          display: 'grid',
          gridTemplateColumns: 'max-content max-content 1fr',
          columnGap: 3,
          rowGap: 1,
          alignItems: 'start',
        }}
      >
        {rows.map(({ title, budget, expanded }) => (
          <Box key={title} sx={{ display: 'contents' }}>
            <Box sx={{ fontWeight: 600 }}>{title}</Box>
            <Box>
              {budget.lines.map(({ source, share }) => (
                <Box
                  key={source}
                  sx={{ display: 'grid', gridTemplateColumns: '150px 100px 56px', gap: 1, alignItems: 'center' }}
                >
                  <span>{source}</span>
                  <Box aria-hidden sx={{ height: 8, border: 1, borderColor: 'divider' }}>
                    <Box
                      sx={{
                        height: '100%',
                        width: `${Math.min(100, Math.abs(share) * 100)}%`,
                        bgcolor: 'text.secondary',
                      }}
                    />
                  </Box>
                  <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
                    {fixed(share * 100, 0)} %
                  </Box>
                </Box>
              ))}
            </Box>
            <Typography variant="body2" color="text.secondary">
              U {expanded}. {budget.advice}
              {finerWords(budget, instruments)}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
