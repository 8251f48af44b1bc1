// The limit sets held against a loading, what stands against a verdict, and the class that chooses the formulas.
import type { StoredSetup } from '@lastmark/contract/types';
import { limitsOfSetups, type SetupLimits } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { api, versionTag } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { AgainstVerdict } from '../../parts/AgainstVerdict.tsx';
import { ClassForm } from '../../parts/ClassForm.tsx';
import { LimitLines } from '../../parts/LimitLines.tsx';
import { TakenDialog } from '../../parts/TakenDialog.tsx';
import { useOtherSet } from '../../parts/useOtherSet.tsx';
import { toJudge, useSample } from '../../state/sample.tsx';

interface Props {
  readonly limits: SetupLimits;
  readonly setup: StoredSetup;
}

export function LimitTable({ limits, setup }: Props) {
  const [dialog, setDialog] = useState<'class' | 'taken' | null>(null);
  const { dossier, verdict } = useSample();
  const { sample } = dossier;
  const series = verdict.results.efficiency.series.filter((one) => one.setup.id === setup.id);
  const other = useOtherSet((sets) => limitsOfSetups(toJudge(dossier), series, sets).flatMap((one) => one.lines));
  const lines = [...limits.lines, ...other.lines];
  return (
    <Box sx={{ mt: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Limit sets
        </Typography>
        {other.choice}
        <Button onClick={() => setDialog('taken')}>How it was taken</Button>
        <Button onClick={() => setDialog('class')}>Change the class</Button>
      </Box>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {limits.overridden
          ? `Judged as ${limits.nameplateClass} (derived: ${limits.derived.nameplateClass}): ${setup.classReason ?? ''}`
          : limits.derived.why}
      </Typography>
      {dialog === 'class' && (
        <ClassForm
          derived={limits.derived}
          chosen={
            setup.nameplateClass ? { nameplateClass: setup.nameplateClass, reason: setup.classReason ?? '' } : null
          }
          stays="Stays with the loading and is shown beside its limits."
          onSave={async (choice) => {
            const { id, version, ...input } = setup;
            const body = {
              ...input,
              nameplateClass: choice?.nameplateClass ?? null,
              classReason: choice?.reason ?? null,
            };
            await api(`/setups/${id}`, { method: 'PUT', body, ifMatch: versionTag({ version }) });
            await refreshSample(sample.id);
          }}
          onClose={() => setDialog(null)}
        />
      )}
      {lines.length === 0 ? (
        <Typography color="text.secondary">
          No limit set covers what is measured so far. The four-point average needs 25, 50, 75 and 100 %.
        </Typography>
      ) : (
        <LimitLines label="Limit sets" lines={lines} />
      )}
      <AgainstVerdict lines={lines} />
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Taken at the receptacle, not at the end of a cord. Confirm every limit against its current text. One sample is
        never compliance.
      </Typography>
      {dialog === 'taken' && <TakenDialog setupId={setup.id} title={setup.name} onClose={() => setDialog(null)} />}
    </Box>
  );
}
