// Where the uncertainty comes from, on demand: each source with its share.
import { efficiencyBudget, type SeriesResult } from '@lastmark/core/efficiency';
import { fixed } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';

export function Budget({ series }: { readonly series: SeriesResult }) {
  const points = series.byMains.flatMap(({ mains, loads }) =>
    loads.filter(({ load }) => load > 0).map((result) => ({ mains, result, budget: efficiencyBudget(result) })),
  );
  if (points.length === 0) return null;
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
        {points.map(({ mains, result, budget }) => (
          <Box key={`${mainsLabel(mains)} ${result.load}`} sx={{ display: 'contents' }}>
            <Box sx={{ fontWeight: 600 }}>
              {Math.round(result.load * 100)} %, {mainsLabel(mains)}
            </Box>
            <Box>
              {budget.lines.map(({ source, share }) => (
                <Box
                  key={source}
                  sx={{ display: 'grid', gridTemplateColumns: '110px 120px 44px', gap: 1, alignItems: 'center' }}
                >
                  <span>{source}</span>
                  <Box aria-hidden sx={{ height: 8, border: 1, borderColor: 'divider' }}>
                    <Box sx={{ height: '100%', width: `${share * 100}%`, bgcolor: 'text.secondary' }} />
                  </Box>
                  <span>{fixed(share * 100, 0)} %</span>
                </Box>
              ))}
            </Box>
            <Typography variant="body2" color="text.secondary">
              U {fixed(budget.u * 200, 2)} percentage points. {budget.advice}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
