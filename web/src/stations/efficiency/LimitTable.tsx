// The limit sets held against a loading, and the class that chooses their formulas.
import { CLASSES } from '@lastmark/contract/schemas';
import type { StoredSetup } from '@lastmark/contract/types';
import type { SetupLimits } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { api, versionTag } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { useOnBench } from '../../app/bench.tsx';
import { useNotify } from '../../app/notices.tsx';
import { Choice } from '../../parts/fields.tsx';
import { LimitLines } from '../../parts/LimitLines.tsx';

interface Props {
  readonly limits: SetupLimits;
  readonly setup: StoredSetup;
}

export function LimitTable({ limits, setup }: Props) {
  const { dossier } = useOnBench();
  const notify = useNotify();
  const confirm = useMutation({
    mutationFn: (chosen: string) => {
      const { id, version, ...input } = setup;
      const nameplateClass = chosen === 'suggested' ? null : chosen;
      return api(`/setups/${id}`, {
        method: 'PUT',
        body: { ...input, nameplateClass },
        ifMatch: versionTag({ version }),
      });
    },
    onError: (error) => notify(error.message),
    onSettled: () => refreshSample(dossier.sample.id),
  });
  return (
    <Box sx={{ mt: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Limit sets
        </Typography>
        <Choice
          label="Nameplate class"
          value={setup.nameplateClass ?? 'suggested'}
          options={[
            { value: 'suggested', label: `suggested: ${limits.nameplateClass}` },
            ...CLASSES.map((one) => ({ value: one as string, label: `confirmed: ${one}` })),
          ]}
          onChange={(chosen) => confirm.mutate(chosen)}
          more={{ sx: { width: 260 } }}
        />
      </Box>
      {limits.lines.length === 0 ? (
        <Typography color="text.secondary">
          No limit set covers what is measured so far. The four-point average needs 25, 50, 75 and 100 %.
        </Typography>
      ) : (
        <LimitLines label="Limit sets" lines={limits.lines} />
      )}
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Indicative: taken at another mains than the set asks for. Confirm every limit against its current text. One
        sample is never compliance.
      </Typography>
    </Box>
  );
}
