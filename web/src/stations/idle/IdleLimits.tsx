// The no-load limits held against the idle draw.
import { formatMeasured, formatPlain, formatProbability } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useOnBench } from '../../app/bench.tsx';
import { LimitBand } from '../../parts/LimitBand.tsx';
import { StateMark } from '../../parts/StateMark.tsx';

export function IdleLimits() {
  const { verdict } = useOnBench();
  if (verdict.idleLimits.length === 0) return null;
  return (
    <>
      <Typography variant="h2" sx={{ mt: 3, mb: 1 }}>
        Limit sets
      </Typography>
      <Table size="small" aria-label="No-load limits" sx={{ '& td': { whiteSpace: 'nowrap' } }}>
        <TableHead>
          <TableRow>
            {['Set', 'Limit', 'Measured', '', 'Outcome', 'Likely'].map((head) => (
              <TableCell key={head}>{head}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {verdict.idleLimits.map((line) => (
            <TableRow key={`${line.setId} ${mainsLabel(line.mains)}`}>
              <TableCell>
                {line.title}
                <Box component="span" sx={{ display: 'block', fontSize: 12, color: 'text.secondary' }}>
                  {mainsLabel(line.mains)}
                </Box>
              </TableCell>
              <TableCell>{line.limit.kind === 'at-most' ? `≤ ${formatPlain(line.limit.high, 'power')}` : ''}</TableCell>
              <TableCell>{formatMeasured(line.result.value, expandedUncertainty(line.result), 'power')}</TableCell>
              <TableCell>
                <LimitBand
                  value={line.result.value}
                  expanded={expandedUncertainty(line.result)}
                  limit={line.limit}
                  quantity="power"
                />
              </TableCell>
              <TableCell>
                <StateMark state={line.decision.outcome} />
                {line.standing === 'indicative' && (
                  <Box
                    component="span"
                    title={line.why}
                    sx={{ display: 'block', fontSize: 12, color: 'text.secondary' }}
                  >
                    indicative
                  </Box>
                )}
              </TableCell>
              <TableCell>{formatProbability(line.decision.probability)}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Confirm every limit against its current text. One sample is never compliance.
      </Typography>
    </>
  );
}
