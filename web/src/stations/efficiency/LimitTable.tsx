// The limit sets held against a loading, what stands against a verdict, and the class that chooses the formulas.
import type { StoredSetup } from '@lastmark/contract/types';
import { chosenSets, limitsOfSetups, type SetupLimits } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { toJudge, useOnBench } from '../../app/bench.tsx';
import { AgainstVerdict } from '../../parts/AgainstVerdict.tsx';
import { Choice } from '../../parts/fields.tsx';
import { LimitLines } from '../../parts/LimitLines.tsx';
import { TakenDialog } from '../../parts/TakenDialog.tsx';
import { ClassDialog } from './ClassDialog.tsx';

interface Props {
  readonly limits: SetupLimits;
  readonly setup: StoredSetup;
}

/** Sets the bench does not judge by, to try one without changing anything. */
function useOther(setup: StoredSetup) {
  const { dossier, verdict } = useOnBench();
  const [otherId, setOtherId] = useState('none');
  const judged = toJudge(dossier);
  const chosen = chosenSets(judged).map(({ id }) => id);
  const others = dossier.limitSets.filter(({ id }) => !chosen.includes(id));
  const other = others.filter(({ id }) => id === otherId);
  const series = verdict.series.filter((one) => one.setup.id === setup.id);
  const lines = other.length > 0 ? limitsOfSetups(judged, series, other).flatMap((one) => one.lines) : [];
  return { others, otherId, setOtherId, lines };
}

export function LimitTable({ limits, setup }: Props) {
  const [dialog, setDialog] = useState<'class' | 'taken' | null>(null);
  const { others, otherId, setOtherId, lines: otherLines } = useOther(setup);
  const lines = [...limits.lines, ...otherLines];
  return (
    <Box sx={{ mt: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Limit sets
        </Typography>
        {others.length > 0 && (
          <Choice
            label="Judge also under"
            value={otherId}
            options={[
              { value: 'none', label: 'no other set' },
              ...others.map(({ id, title }) => ({ value: id, label: title })),
            ]}
            onChange={setOtherId}
            more={{ sx: { width: 240 } }}
          />
        )}
        <Button onClick={() => setDialog('taken')}>How it was taken</Button>
        <Button onClick={() => setDialog('class')}>Change the class</Button>
      </Box>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {limits.overridden
          ? `Judged as ${limits.nameplateClass} (derived: ${limits.derived.nameplateClass}): ${setup.classReason ?? ''}`
          : limits.derived.why}
      </Typography>
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
      {dialog === 'class' && <ClassDialog setup={setup} derived={limits.derived} onClose={() => setDialog(null)} />}
      {dialog === 'taken' && <TakenDialog setupId={setup.id} title={setup.name} onClose={() => setDialog(null)} />}
    </Box>
  );
}
