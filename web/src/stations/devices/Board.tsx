// The same devices on every charger of the shelf, side by side: who serves which best, and what the readings cannot tell.
import { type BoardCell, type BoardRow, deviceBoard } from '@lastmark/core/charge';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { deviceEvidenceQuery } from '../../api/queries.ts';
import { QueryGate } from '../../parts/QueryGate.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';
import { markOf } from './Grid.tsx';

/** Chargers that fit beside each other. */
const MOST_COLUMNS = 6;

function Cell({ cell, best }: { readonly cell: BoardCell; readonly best: boolean }) {
  const { run, part, aside } = cell;
  return (
    <Box sx={{ color: aside ? 'text.secondary' : undefined }}>
      <Box sx={{ fontWeight: best ? 700 : 400 }}>
        {markOf(run.outcome)} {formatPlain(run.watts, 'power')}
        {best ? ' ▲ most' : ''}
      </Box>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
        {[run.port, run.lead, part === null ? null : `${Math.round(part * 100)} % of its baseline`, aside]
          .filter(Boolean)
          .join(', ')}
      </Box>
    </Box>
  );
}

export function Board() {
  const { dossier } = useSample();
  const query = useQuery(deviceEvidenceQuery);
  return (
    <QueryGate query={query} what="the other chargers">
      {(evidence) => {
        const rows = deviceBoard(dossier.devices, evidence);
        const own = dossier.sample.id;
        const count = (id: string) => rows.filter(({ cells }) => cells.some(({ sampleId }) => sampleId === id)).length;
        const chargers = evidence.samples
          .filter(({ id }) => count(id) > 0)
          .sort((a, b) => Number(b.id === own) - Number(a.id === own) || count(b.id) - count(a.id));
        if (rows.length === 0) return null;
        const shown = chargers.slice(0, MOST_COLUMNS);
        return (
          <Box component="section" aria-labelledby="board" sx={{ mt: 3 }}>
            <Typography variant="h2" id="board" sx={{ mb: 1 }}>
              On every charger
            </Typography>
            <QuietTable<BoardRow>
              label="Devices by charger"
              rows={rows}
              rowKey={({ deviceId, workload }) => `${deviceId} ${workload}`}
              columns={[
                {
                  head: 'Device',
                  cell: ({ device, workload }) => (
                    <>
                      {device}
                      <Box sx={{ fontSize: 13, fontWeight: 400, color: 'text.secondary' }}>{workload}</Box>
                    </>
                  ),
                },
                ...shown.map(({ id, name, tag }) => ({
                  head: id === own ? 'this charger' : `${name}, ${tag}`,
                  cell: ({ cells, best }: BoardRow) => {
                    const cell = cells.find(({ sampleId }) => sampleId === id);
                    return cell ? <Cell cell={cell} best={best === id} /> : null;
                  },
                  empty: 'run it here',
                })),
                { head: 'What that says', cell: ({ says }) => says },
              ]}
            />
            <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
              The best port of each. A device at work takes something else than one asleep: each has a row of its own.
              {chargers.length > shown.length ? ` And ${chargers.length - shown.length} chargers more.` : ''}{' '}
              <Link to="/bench">Baselines stand at Bench.</Link>
            </Typography>
          </Box>
        );
      }}
    </QueryGate>
  );
}
