// The safety look: what was read against its limits, what it means for what hangs on it, what is only stated, what is open.
import {
  CHECK_WORDS,
  type CheckKind,
  CLASS_A,
  describeCheck,
  SAFETY_LIMITS,
  type SafetyCheck,
  USUAL_SAFETY,
} from '@lastmark/core/safety';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { Caution } from '../../parts/Caution.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { KeptList } from '../../parts/KeptList.tsx';
import { Later } from '../../parts/Later.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { useSample } from '../../state/sample.tsx';
import { CheckDialog } from './CheckDialog.tsx';
import { Again, Bonds, Fit, Marks, Readings } from './SafetyParts.tsx';
import { useChecks } from './useChecks.ts';

const HarmonicsChart = lazy(async () => ({ default: (await import('./HarmonicsChart.tsx')).HarmonicsChart }));

const CHART = 260;
const capital = (words: string): string => words.replace(/^./, (first) => first.toUpperCase());

/** The texts the limits come from. */
function Texts() {
  const { profile } = useSample().dossier;
  const { harmonics, limited } = useSample().verdict.results.safety;
  const ids = profile.safety?.setIds ?? USUAL_SAFETY;
  const sources = [
    ...SAFETY_LIMITS.filter(({ id }) => (ids as readonly string[]).includes(id)).map(
      ({ title, source }) => `${title}: ${source}`,
    ),
    ...(limited === true && harmonics.length > 0 ? [`${CLASS_A.title}: ${CLASS_A.source}`] : []),
  ];
  return (
    <Typography variant="body2" color="text.secondary" sx={{ mt: 2 }}>
      {sources.length === 0 ? 'No limits are chosen at Rules.' : `Limits: ${sources.join('. ')}.`}
    </Typography>
  );
}

export function SafetyPage() {
  const { dossier, verdict } = useSample();
  const result = verdict.results.safety;
  const { kinds, touch, earth, bonds, fit, marks, open } = result;
  const { current, kept } = useChecks();
  const [dialog, setDialog] = useState<{ readonly kind: CheckKind; readonly check: SafetyCheck | null } | null>(null);
  const has = (kind: CheckKind) => (kind === 'mark' ? marks.length > 0 : current.some((one) => one.kind === kind));
  const first = kinds.find((kind) => !has(kind));
  const metered = kinds.includes('touch');
  return (
    <Box sx={{ maxWidth: 1240 }}>
      <PageHead title="Safety">
        {kinds.map((kind) => (
          <Button
            key={kind}
            variant={kind === first ? 'contained' : 'outlined'}
            onClick={() => setDialog({ kind, check: null })}
          >
            {capital(CHECK_WORDS[kind])}
          </Button>
        ))}
      </PageHead>
      <Caution
        line={
          metered
            ? 'Records, never a certificate. What is read near mains is for licensed or trained persons, by local codes.'
            : 'Records, never a certificate. Fuse the lead to a vehicle battery: it can deliver hundreds of amps.'
        }
        more="The enclosure stays closed, and the primary side is not probed. Work on an isolated supply behind a residual-current device, with one hand and a second person near. Let what was loaded cool down first. Local codes and licensed people decide what may be done; Lastmark writes down what was found."
      />
      <Readings title="Touch current" readings={touch} />
      <Readings title="Protective earth" readings={earth} />
      <Bonds bonds={bonds} means={result.means} />
      <Fit fit={fit} mass={dossier.sample.model.mass} />
      <Again />
      {result.limited !== false && result.harmonics.length > 0 && (
        <Later what="the chart" height={figureHeight(CHART)}>
          <HarmonicsChart height={CHART} />
        </Later>
      )}
      <Marks marks={marks} />
      {open.length > 0 && (
        <Typography sx={{ mt: 2 }}>
          <strong>Still open:</strong> {open.join('; ')}.
        </Typography>
      )}
      <KeptList
        title="Every check"
        items={current}
        kept={kept}
        describe={describeCheck}
        beside={(check) => ('by' in check ? ` · ${check.by.person}` : '')}
        onCorrect={(check) => setDialog({ kind: check.kind, check })}
      />
      <Texts />
      {dialog && <CheckDialog {...dialog} onClose={() => setDialog(null)} />}
    </Box>
  );
}
