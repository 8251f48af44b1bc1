// A meter file before it is kept: its columns, what they amount to, and every line that cannot be read.
import type { StoredSetup } from '@lastmark/contract/types';
import { COLUMN_ROLES, type ColumnRole, type FilePlan, type FileReading, isDrifting } from '@lastmark/core/meter-file';
import { quantityOf } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { ApiProblem } from '../../api/client.ts';
import { takeBackImport } from '../../api/imports.ts';
import { Choice } from '../../parts/fields.tsx';
import { useNotify } from '../../state/notices.tsx';
import { useSample, useSupplies } from '../../state/sample.tsx';
import { BadLines } from './BadLines.tsx';
import { FilePreview } from './FilePreview.tsx';
import { useMeterFile } from './useMeterFile.ts';

const ROLES = Object.entries(COLUMN_ROLES).map(([value, { label }]) => ({ value: value as ColumnRole, label }));
const DELIMITER_NAMES = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'stroke' } as const;

function unitsFor(role: ColumnRole): string[] {
  if (role === 'time') return ['s', 'ms', 'min', 'h'];
  if (role === 'load') return ['%', ''];
  const { quantity } = COLUMN_ROLES[role];
  return quantity ? quantityOf(quantity).units.map(({ symbol }) => symbol) : [];
}

function Columns({
  plan,
  ports,
  onChange,
}: {
  readonly plan: FilePlan;
  readonly ports: readonly string[];
  readonly onChange: (plan: FilePlan) => void;
}) {
  const set = (index: number, part: Partial<FilePlan['columns'][number]>) =>
    onChange({ ...plan, columns: plan.columns.map((column, at) => (at === index ? { ...column, ...part } : column)) });
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(250px, 1fr))', gap: 1.5 }}>
      {plan.columns.map((column, index) => {
        const units = unitsFor(column.role);
        const name = column.name || `column ${index + 1}`;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns of a file have no identity but their place
          <Box key={index} sx={{ display: 'grid', gridTemplateColumns: '1fr 88px', gap: 0.75 }}>
            <Choice
              label={name}
              value={column.role}
              options={ROLES}
              onChange={(role) =>
                set(index, {
                  role,
                  unit: unitsFor(role)[0] ?? '',
                  port: role.startsWith('output') ? (ports[0] ?? null) : null,
                })
              }
            />
            {units.length > 1 && (
              <Choice
                label="Unit"
                value={column.unit}
                options={units.map((unit) => ({ value: unit, label: unit || 'ratio' }))}
                onChange={(unit) => set(index, { unit })}
              />
            )}
            {column.role.startsWith('output') && ports.length > 1 && (
              <Choice
                label="Port"
                value={column.port ?? ''}
                options={ports}
                onChange={(port) => set(index, { port })}
              />
            )}
          </Box>
        );
      })}
    </Box>
  );
}

function Outcome({
  reading,
  file,
  agreed,
  onAgree,
}: {
  readonly file: File;
  readonly reading: FileReading;
  readonly agreed: boolean;
  readonly onAgree: (agreed: boolean) => void;
}) {
  const { goodLines, badLines, badCount, efficiencyDiffers, clock } = reading;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3" role="status">
        {goodLines} good {goodLines === 1 ? 'line' : 'lines'}, {badCount} bad
      </Typography>
      {efficiencyDiffers > 0 && (
        <Alert severity="warning" sx={{ my: 1 }}>
          {efficiencyDiffers} lines state another efficiency than output over input gives. The computed one counts.
        </Alert>
      )}
      {reading.points.some(isDrifting) && (
        <Alert severity="warning" sx={{ my: 1 }}>
          The input still moves within some points: they are kept as drifting, with the uncertainty of one line.
        </Alert>
      )}
      <FilePreview reading={reading} file={file} />
      {clock?.base === 'own' && (
        <Typography color="text.secondary">
          Its times have no sure date: the last line is taken to be of when the file was written.
        </Typography>
      )}
      {badCount > 0 && (
        <>
          <BadLines lines={badLines} />
          {goodLines > 0 && (
            <FormControlLabel
              control={<Checkbox checked={agreed} onChange={(event) => onAgree(event.target.checked)} />}
              label={`Keep the ${goodLines === 1 ? 'good line' : `${goodLines} good lines`} and leave out the ${badCount === 1 ? 'bad one' : `${badCount} bad ones`}`}
            />
          )}
        </>
      )}
    </Box>
  );
}

interface Props {
  readonly file: File;
  readonly setup: StoredSetup;
  readonly onClose: () => void;
}

export function ImportDialog({ file, setup, onClose }: Props) {
  const supplies = useSupplies();
  const notify = useNotify();
  const { dossier } = useSample();
  const [agreed, setAgreed] = useState(false);
  const { sniffed, plan, setPlan, wholeFileMains, setWholeFileMains, problems, reading, keep } = useMeterFile(
    file,
    setup,
  );
  const ports = setup.outputs.map(({ port }) => port);
  const result = reading.data;
  const ready =
    result !== undefined &&
    !reading.isFetching &&
    problems.length === 0 &&
    result.goodLines > 0 &&
    (result.badCount === 0 || agreed);
  /** The very same file came before: keeping it once more is a second press. */
  const twice = keep.error instanceof ApiProblem && keep.error.status === 409;
  const failed = sniffed.error ?? reading.error ?? keep.error;
  return (
    <Dialog open onClose={onClose} maxWidth="lg" fullWidth aria-labelledby="import-title">
      <DialogTitle id="import-title" sx={{ overflowWrap: 'anywhere' }}>
        {file.name} into {setup.name}
      </DialogTitle>
      <DialogContent>
        <Box sx={{ height: 4 }}>
          {(sniffed.isPending || reading.isFetching || keep.isPending) && !failed && (
            <LinearProgress aria-label="Reading the file" />
          )}
        </Box>
        {failed && (
          <Alert severity="error" sx={{ my: 1 }}>
            {failed.message}
          </Alert>
        )}
        {plan && (
          <>
            <Typography color="text.secondary" sx={{ mb: 2 }}>
              Values between {DELIMITER_NAMES[plan.delimiter]}s, decimal {plan.decimal === ',' ? 'comma' : 'point'},
              header on line {plan.headerLine}.{' '}
              {sniffed.data?.remembered
                ? 'Columns as you mapped them last time.'
                : 'Columns as their names suggest; change what is wrong.'}
            </Typography>
            <Columns plan={plan} ports={ports} onChange={setPlan} />
            {!plan.columns.some(({ role }) => role === 'mains-volts') && (
              <Choice
                label="Mains of the whole file"
                value={wholeFileMains ? mainsLabel(wholeFileMains) : ''}
                options={supplies.map(mainsLabel)}
                onChange={(label) => setWholeFileMains(supplies.find((one) => mainsLabel(one) === label) ?? null)}
                more={{ sx: { mt: 2, maxWidth: 260 } }}
              />
            )}
            {problems.length > 0 && (
              <Alert severity="info" sx={{ mt: 2 }}>
                {problems.join(' ')}
              </Alert>
            )}
          </>
        )}
        {result && problems.length === 0 && (
          <Outcome reading={result} file={file} agreed={agreed} onAgree={setAgreed} />
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={!ready || keep.isPending}
          onClick={() =>
            keep.mutate(
              { keepGood: agreed, again: twice },
              {
                onSuccess: ({ goodLines, points, attachmentId }) => {
                  notify(
                    `${goodLines} lines kept as ${points} points. The file is attached to the sample.`,
                    () => void takeBackImport(dossier.sample.id, attachmentId),
                  );
                  onClose();
                },
              },
            )
          }
        >
          {twice ? 'Take it in again' : 'Keep'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
