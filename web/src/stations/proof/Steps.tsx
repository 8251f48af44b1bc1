// All load steps of a sample, port by port, and the short re-proof after stress.
import { type StepResult, stepKey, stepTitle } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { Fragment, lazy, useState } from 'react';
import { Link } from 'react-router';
import { Caution } from '../../parts/Caution.tsx';
import { FileButton } from '../../parts/FileButton.tsx';
import { Choice } from '../../parts/fields.tsx';
import { GridFoot } from '../../parts/GridFoot.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { StateMark } from '../../parts/StateMark.tsx';
import { Term } from '../../parts/Term.tsx';
import { useSample } from '../../state/sample.tsx';
import { AddStep } from './AddStep.tsx';
import { ListDialog } from './ListDialog.tsx';
import { ReasonForm } from './ReasonForm.tsx';
import { StepGrid } from './StepGrid.tsx';
import { useProofPlace } from './useProofPlace.ts';

const StepMap = lazy(async () => ({ default: (await import('./StepMap.tsx')).StepMap }));

/** Sections of the page: each port, then what is loaded together. */
function sections(results: readonly StepResult[]): { title: string; results: StepResult[] }[] {
  const groups = new Map<string, StepResult[]>();
  for (const result of results) {
    const title = result.step.outputs.map(({ port }) => port).join(' + ');
    groups.set(title, [...(groups.get(title) ?? []), result]);
  }
  return [...groups].map(([title, own]) => ({ title, results: own }));
}

function Again() {
  const { verdict } = useSample();
  const { again } = verdict.results.proof;
  if (!again) return null;
  const due = again.lines.filter(({ done }) => !done).length;
  return (
    <Box
      component="section"
      aria-labelledby="again"
      sx={{
        p: 1.5,
        mb: 1.5,
        border: 1,
        borderColor: due ? 'warning.main' : 'divider',
        borderRadius: 1,
        bgcolor: 'background.paper',
      }}
    >
      <Typography variant="h3" id="again">
        {due ? `Prove again: ${due} of ${again.lines.length} due` : 'Proved again after the stress'}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        After a long hold or a search over the rating every port is read once more at its strongest level: press Repeat
        at the step, then type.
      </Typography>
      <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 0, listStyle: 'none' }}>
        {again.lines.map(({ step, state, sentence }) => (
          <Box component="li" key={stepKey(step)} sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
            <Box sx={{ minWidth: 150, fontWeight: 600 }}>{stepTitle(step)}</Box>
            <Box sx={{ minWidth: 130 }}>
              <StateMark state={state} />
            </Box>
            {sentence}
          </Box>
        ))}
      </Box>
    </Box>
  );
}

export function Steps() {
  const { dossier, verdict } = useSample();
  const { rigs, sample } = dossier;
  const { rig, mains, supplies, choose } = useProofPlace();
  const results = verdict.results.proof.steps;
  const [display, setDisplay] = useState(() =>
    dossier.points.some(({ readings }) => readings.some(({ place }) => place === 'display')),
  );
  const [overrides, setOverrides] = useState<Readonly<Record<string, string>>>({});
  const [beyond, setBeyond] = useState<{ result: StepResult; refusal: string } | null>(null);
  const [list, setList] = useState<File | null>(null);
  if (rigs.length === 0)
    return (
      <Box sx={{ p: 4, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
        <Typography variant="h2">No rig yet</Typography>
        <Typography sx={{ my: 1.5 }} color="text.secondary">
          A rig says which meter reads what, and what is in the line. Readings take their uncertainty from it.
        </Typography>
        <Button variant="contained" component={Link} to="/bench">
          Go to Bench
        </Button>
      </Box>
    );
  const high = results.some(
    ({ step }) => step.load === 1 && step.outputs.some(({ volts, amps }) => volts >= 28 && amps >= 1),
  );
  const proofIds = new Set<string | null>(
    dossier.setups.filter(({ purpose }) => purpose === 'proof').map(({ id }) => id),
  );
  const done = results.filter(({ delivered }) => delivered.length > 0).length;
  return (
    <>
      <Box
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          gap: 1.5,
          alignItems: 'center',
          mb: 1.5,
          '& > .MuiFormControl-root': { width: 180 },
          '& > .MuiFormControlLabel-root': { flex: 1 },
        }}
      >
        <Choice
          label="Rig"
          value={rig?.id ?? ''}
          options={rigs.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(rigId) => choose({ rigId })}
        />
        <Choice
          label="Mains"
          value={mainsLabel(mains)}
          options={supplies.map(mainsLabel)}
          onChange={(label) => choose({ mains: label })}
        />
        <FormControlLabel
          label="It has a display"
          control={<Switch checked={display} onChange={(event) => setDisplay(event.target.checked)} />}
        />
        <FileButton
          label="List of steps"
          accept=".csv,.tsv,.txt"
          onFiles={([first]) => setList(first ?? null)}
          button={{ variant: 'outlined' }}
        >
          Take in a list
        </FileButton>
      </Box>
      {rig && rig.elements.length > 0 && (
        <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
          In the line:{' '}
          {rig.elements
            .map(({ kind, name, amps, volts, basis }) => {
              const rating =
                amps === null
                  ? ''
                  : `, ${formatPlain(amps, 'current')}${volts === null ? '' : ` ${formatPlain(volts, 'voltage')}`}`;
              return `${kind} ${name}${basis === 'not stated' ? ', no rating stated: 3 A at 20 V' : `${rating} (${basis})`}`;
            })
            .join(' · ')}
        </Typography>
      )}
      {high && (
        <Caution
          line="Above 20 V a plug pulled under load draws an arc: turn the load off first."
          more="48 V at 5 A destroys contacts and can burn. Unplug only at zero current; keep fingers off plugs that are hot."
        />
      )}
      <Again />
      {results.length === 0 ? (
        <Box sx={{ p: 4, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
          <Typography variant="h2">No steps yet</Typography>
          <Typography sx={{ my: 1.5 }} color="text.secondary">
            Steps follow from what the ports offer and what the label promises. Enter a read-out or a claim, or add a
            step below.
          </Typography>
          <Button variant="contained" component={Link} to={`/samples/${sample.id}/read-out`}>
            Go to Read-out
          </Button>
        </Box>
      ) : (
        <>
          <Later what="the chart" height={figureHeight(280)}>
            <StepMap results={results} />
          </Later>
          <Typography sx={{ my: 1 }}>
            {done} of {results.length} steps read. Type a number, then Enter; 5 % either side of a level is the
            standard’s <Term of="tolerance" />
            {dossier.profile.tolerance === null
              ? ''
              : `, yours is ${formatPlain(dossier.profile.tolerance, 'efficiency')}`}
            .
          </Typography>
          <Box data-entry-area="">
            {sections(results).map(({ title, results: own }) => (
              <Fragment key={`${title} ${rig?.id} ${mainsLabel(mains)}`}>
                {beyond && own.some(({ step }) => stepKey(step) === stepKey(beyond.result.step)) && (
                  <ReasonForm
                    key={stepKey(beyond.result.step)}
                    step={stepTitle(beyond.result.step)}
                    refusal={beyond.refusal}
                    onClose={() => setBeyond(null)}
                    onGive={(reason) =>
                      setOverrides((before) => ({ ...before, [stepKey(beyond.result.step)]: reason }))
                    }
                  />
                )}
                <StepGrid
                  title={title}
                  results={own}
                  place={{ rig, mains }}
                  display={display}
                  overrides={overrides}
                  onOverride={(result, refusal) => setBeyond({ result, refusal })}
                />
              </Fragment>
            ))}
            <GridFoot points={dossier.points.filter(({ setupId }) => proofIds.has(setupId))} />
          </Box>
        </>
      )}
      {rig && <AddStep rig={rig} />}
      {list && rig && <ListDialog file={list} rig={rig} mains={mains} onClose={() => setList(null)} />}
    </>
  );
}
