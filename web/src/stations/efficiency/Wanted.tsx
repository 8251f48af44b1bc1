// What a complete result still needs: each port at its ends and all together, one press each to add.
import type { SetupInput, StoredSetup } from '@lastmark/contract/types';
import { stepTitle } from '@lastmark/core/proof';
import type { Output } from '@lastmark/core/reading';
import { completeLoadings, openLoadings } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { useNotify } from '../../state/notices.tsx';
import { toJudge, useSample } from '../../state/sample.tsx';

interface Props {
  readonly onChoose: (setupId: string) => void;
}

export function Wanted({ onChoose }: Props) {
  const { dossier, verdict } = useSample();
  const notify = useNotify();
  const wanted = completeLoadings(toJudge(dossier), verdict.results.efficiency.series);
  const add = useMutation({
    mutationFn: (outputs: readonly Output[]) => {
      const body: SetupInput = {
        name: stepTitle({ outputs, load: 1 }).slice(0, 80),
        purpose: 'efficiency',
        outputs: [...outputs],
        evidence: 'load',
        rigId: dossier.setups.findLast(({ purpose }) => purpose === 'efficiency')?.rigId ?? dossier.rigs[0]?.id ?? '',
        nameplateClass: null,
      };
      return api<StoredSetup>(`/samples/${dossier.sample.id}/setups`, { method: 'POST', body });
    },
    onSuccess: async ({ id }) => {
      await refreshSample(dossier.sample.id);
      onChoose(id);
    },
    onError: (error) => notify(error.message),
  });
  if (wanted.length === 0) return null;
  const open = openLoadings(wanted);
  return (
    <Box component="details">
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        {open.length === 0
          ? 'Every loading a complete result needs is measured'
          : `A complete result needs ${open.length} more of ${wanted.length} loadings`}
      </Box>
      <Box component="ul" sx={{ mt: 1, pl: 0, listStyle: 'none' }}>
        {wanted.map(({ outputs, why, setupId, measuredAt }) => (
          <Box
            component="li"
            key={`${stepTitle({ outputs, load: 1 })} ${why}`}
            sx={{ display: 'flex', gap: 1.5, alignItems: 'center', minHeight: 36 }}
          >
            <Box sx={{ width: 320 }}>{stepTitle({ outputs, load: 1 })}</Box>
            <Typography variant="body2" color="text.secondary" sx={{ flex: 1 }}>
              {why}
            </Typography>
            {setupId ? (
              <Button size="small" onClick={() => onChoose(setupId)}>
                {measuredAt.length > 0 ? `measured at ${measuredAt.length} mains` : 'measure it'}
              </Button>
            ) : (
              <Button
                size="small"
                onClick={() => add.mutate(outputs)}
                disabled={add.isPending || dossier.rigs.length === 0}
              >
                Add
              </Button>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
