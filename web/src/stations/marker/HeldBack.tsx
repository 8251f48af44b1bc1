// Chargers of the shelf this cable would hold back, the most first.
import type { HeldBackCharger } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { heldBackQuery } from '../../api/queries.ts';
import { QueryGate } from '../../parts/QueryGate.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';

interface Row {
  readonly key: string;
  readonly charger: HeldBackCharger;
  readonly port: HeldBackCharger['ports'][number];
}

export function HeldBack({ sampleId }: { readonly sampleId: string }) {
  const query = useQuery(heldBackQuery(sampleId));
  return (
    <>
      <Typography variant="h2" sx={{ mt: 2, mb: 1 }}>
        Chargers it holds back
      </Typography>
      <QueryGate query={query} what="the chargers">
        {({ items }) =>
          items.length === 0 ? (
            <Typography color="text.secondary">None on the shelf is promised to give more than it carries.</Typography>
          ) : (
            <QuietTable<Row>
              label="Chargers it holds back"
              height={360}
              rows={items.flatMap((charger) =>
                charger.ports.map((port) => ({ charger, port, key: `${charger.sampleId} ${port.port}` })),
              )}
              rowKey={({ key }) => key}
              columns={[
                {
                  head: 'Charger',
                  cell: ({ charger }) => <Link to={`/samples/${charger.sampleId}/claims`}>{charger.name}</Link>,
                },
                { head: 'Port', cell: ({ port }) => port.port },
                { head: 'Promised', unit: 'W', number: true, cell: ({ port }) => formatPlain(port.promised, 'power') },
                {
                  head: 'Through this cable',
                  unit: 'W',
                  number: true,
                  cell: ({ port }) => formatPlain(port.through, 'power'),
                },
                {
                  head: 'Less by',
                  unit: 'W',
                  number: true,
                  cell: ({ port }) => formatPlain(Number((port.promised - port.through).toPrecision(3)), 'power'),
                },
              ]}
            />
          )
        }
      </QueryGate>
    </>
  );
}
