// How the units of a model lived: each as far as it came, and what part of them is alive after so many bends.
import type { UnitFate } from '@lastmark/contract/types';
import { survival, survivalSays } from '@lastmark/core/survival';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { fatesQuery } from '../../api/queries.ts';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

const percent = (part: number): string => `${Math.round(part * 100)} %`;

export function Units() {
  const { sample } = useSample().dossier;
  const { data } = useQuery(fatesQuery(sample.id));
  const fates = data?.items ?? [];
  if (fates.length === 0 || (fates.length === 1 && sample.units.length === 1)) return null;
  const steps = survival(fates);
  return (
    <Box component="section" aria-label="Units of this model" sx={{ mt: 2 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Units of this model
      </Typography>
      <Typography sx={{ mb: 1 }}>{survivalSays(fates, 'bends')}</Typography>
      <QuietTable<UnitFate>
        label="Units of this model"
        rows={fates}
        rowKey={({ sampleId }) => sampleId}
        exception={({ failed }) => failed}
        columns={[
          {
            head: 'Unit',
            cell: ({ sampleId, serial, tag }) => <Link to={`/samples/${sampleId}/bends`}>{serial || tag}</Link>,
          },
          { head: 'Bends', number: true, cell: ({ at }) => String(at) },
          { head: 'Then', cell: ({ failed, fault }) => (failed ? fault : 'taken out alive') },
          {
            head: 'Alive after it',
            cell: ({ at, failed }) => {
              const step = failed ? steps.find((one) => one.at === at) : undefined;
              return (
                step &&
                `${percent(step.alive)}${step.interval ? ` (${percent(step.interval[0])} to ${percent(step.interval[1])})` : ''}, ${step.atRisk} under test`
              );
            },
            empty: '',
          },
        ]}
      />
    </Box>
  );
}
