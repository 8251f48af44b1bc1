// The no-load limits held against the idle draw.
import { classOfSample, limitsOfIdle } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { AgainstVerdict } from '../../parts/AgainstVerdict.tsx';
import { ClassForm } from '../../parts/ClassForm.tsx';
import { LimitLines } from '../../parts/LimitLines.tsx';
import { TakenDialog } from '../../parts/TakenDialog.tsx';
import { useOtherSet } from '../../parts/useOtherSet.tsx';
import { toJudge, useSample } from '../../state/sample.tsx';

export function IdleLimits() {
  const { dossier, verdict } = useSample();
  const [stating, setStating] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const { sample } = dossier;
  const whole = classOfSample(toJudge(dossier));
  const derived = classOfSample(
    toJudge({ ...dossier, sample: { ...sample, model: { ...sample.model, classChoice: null } } }),
  );
  const { figures } = verdict;
  const { draws, limits } = verdict.results.idle;
  const other = useOtherSet((sets) => limitsOfIdle(toJudge(dossier), draws, figures.watts, sets));
  const lines = [...limits, ...other.lines];
  if (draws.length === 0) return null;
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 3, mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Limit sets
        </Typography>
        {other.choice}
        <Button onClick={() => setStating(true)}>How it was taken</Button>
        <Button onClick={() => setChoosing(true)}>Change the class</Button>
      </Box>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {whole.chosen
          ? `Judged as ${whole.nameplateClass} (derived: ${derived.nameplateClass}): ${whole.why}`
          : `Judged as ${whole.nameplateClass}: ${whole.why}`}
      </Typography>
      {choosing && (
        <ClassForm
          derived={derived}
          chosen={sample.model.classChoice ?? null}
          stays="Stays with the model and is shown beside its no-load limits."
          onSave={async (classChoice) => {
            const body = { model: { ...sample.model, classChoice }, unit: sample.unit };
            await api(`/samples/${sample.id}`, { method: 'PUT', body, ifMatch: sample.etag });
            await refreshSample(sample.id);
          }}
          onClose={() => setChoosing(false)}
        />
      )}
      {lines.length === 0 ? (
        <Typography color="text.secondary">No limit set covers what is measured so far.</Typography>
      ) : (
        <LimitLines label="No-load limits" lines={lines} />
      )}
      <AgainstVerdict lines={lines} />
      {stating && <TakenDialog setupId={null} title="idle" onClose={() => setStating(false)} />}
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Confirm every limit against its current text. One sample is never compliance.
      </Typography>
    </>
  );
}
