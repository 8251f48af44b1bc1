// Claims: the label typed line by line, each line understood before it is added.
import type { ClaimInput, StoredClaim } from '@lastmark/contract/types';
import { describeDuration, describePromise, type Promised, parseClaimLine } from '@lastmark/core/claim';
import { allModes } from '@lastmark/core/signal';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { Attachments } from '../../parts/Attachments.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { StateMark } from '../../parts/StateMark.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { useSample } from '../../state/sample.tsx';
import { ClaimDialog } from './ClaimDialog.tsx';
import { useClaims } from './useClaims.ts';

const EXAMPLES = [
  'C1: 5V 3A / 9V 3A / 20V 2.25A',
  'C1+A1: 45W+18W',
  'C2+C3 share 20W',
  'total 65 W',
  'idle 0.075 W',
  'efficiency 91 %',
  '“a slogan”',
];

/** Promises that can say for how long. */
const timed = ({ kind }: Promised): boolean => kind === 'port-line' || kind === 'total' || kind === 'combination';

function LabelLine({
  onAdd,
  busy,
  error,
}: {
  readonly onAdd: (inputs: ClaimInput[]) => Promise<unknown>;
  readonly busy: boolean;
  readonly error: string | undefined;
}) {
  const { sample, profile } = useSample().dossier;
  const { value: line, set, clear } = useDraft(`line-${sample.id}`, '');
  const [printed, setPrinted] = useState('label');
  const parsed = parseClaimLine(
    line,
    sample.model.ports.map(({ label }) => label),
    allModes(profile.signalModes),
  );
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!('promises' in parsed) || printed.trim() === '') return;
    await onAdd(
      parsed.promises.map((promise) => ({
        promise,
        duration: timed(promise) ? (parsed.duration ?? { kind: 'unstated' }) : { kind: 'unstated' },
        printed: printed.trim(),
      })),
    );
    set('');
    clear();
  };
  const unused = 'promises' in parsed ? (parsed.unused ?? []) : [];
  const understood = 'promises' in parsed ? parsed.promises.map(describePromise).join(' · ') : null;
  return (
    <Box
      component="form"
      onSubmit={(event: FormEvent) => void submit(event).catch(() => undefined)}
      noValidate
      sx={{ p: 2, mb: 3, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '1fr 170px auto' },
          gap: 1.5,
          alignItems: 'start',
        }}
      >
        <TextField
          autoFocus
          label="A line as printed"
          value={line}
          onChange={(event) => set(event.target.value)}
          error={line !== '' && understood === null}
          helperText={
            line === '' ? 'Type a line, then Enter.' : (understood ?? ('reason' in parsed ? parsed.reason : ''))
          }
          slotProps={{ htmlInput: { autoComplete: 'off' } }}
        />
        <TextField
          label="Printed on"
          value={printed}
          onChange={(event) => setPrinted(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
        <Button type="submit" variant="contained" disabled={busy || understood === null} sx={{ height: 40 }}>
          Add
        </Button>
      </Box>
      {unused.length > 0 && (
        <Alert severity="warning" sx={{ mt: 1 }}>
          Not used: {unused.map((text) => `“${text}”`).join(', ')}. Added without it, or mend the line.
        </Alert>
      )}
      {error && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {error}
        </Alert>
      )}
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Such as {EXAMPLES.join(' · ')}
      </Typography>
    </Box>
  );
}

function ClaimRow({
  claim,
  index,
  onChange,
  onRemove,
}: {
  readonly claim: StoredClaim;
  readonly index: number;
  readonly onChange: () => void;
  readonly onRemove: () => void;
}) {
  const { verdict } = useSample();
  const name = describePromise(claim.promise);
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1.5fr) minmax(0, 1fr) 168px auto',
        gap: 1.5,
        alignItems: 'center',
        px: 2,
        py: 1,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>{name}</Box>
      <Box sx={{ color: 'text.secondary' }}>
        {claim.printed}
        {claim.duration.kind !== 'unstated' && `, ${describeDuration(claim.duration)}`}
        {' · '}
        <Attachments owner="claim" ownerId={claim.id} compact />
      </Box>
      <StateMark state={verdict.claims[index]?.state ?? 'not tested'} />
      <Box sx={{ whiteSpace: 'nowrap' }}>
        <Button size="small" onClick={onChange} aria-label={`Change ${name}`}>
          Change
        </Button>
        <Button size="small" onClick={onRemove} aria-label={`Remove ${name}`}>
          Remove
        </Button>
      </Box>
    </Box>
  );
}

export function ClaimsPage() {
  const { dossier } = useSample();
  const { sample, claims } = dossier;
  const { add, change, remove } = useClaims(sample.id);
  const [open, setOpen] = useState<StoredClaim | 'new' | null>(null);
  const close = () => {
    setOpen(null);
    add.reset();
    change.reset();
  };
  const save = (input: ClaimInput) =>
    open === 'new' || open === null ? add.mutateAsync([input]) : change.mutateAsync({ claim: open, input });
  return (
    <Box sx={{ maxWidth: 980 }}>
      <PageHead title="Claims">
        <Button variant="outlined" onClick={() => setOpen('new')}>
          Add by form
        </Button>
        <Button component={Link} to={`/samples/${sample.id}/efficiency`} variant="outlined">
          Measure efficiency
        </Button>
      </PageHead>
      {sample.model.ports.length === 0 && (
        <Alert severity="info" sx={{ mb: 2 }}>
          No ports yet. <Link to={`/samples/${sample.id}/intake`}>Enter them at Intake</Link>, then port lines can be
          claimed.
        </Alert>
      )}
      <LabelLine
        onAdd={(inputs) => add.mutateAsync(inputs)}
        busy={add.isPending}
        error={open ? undefined : add.error?.message}
      />
      {claims.length === 0 ? (
        <Typography color="text.secondary">
          No claims yet. What do label, box and manual promise? Each line becomes one claim that can be tested.
        </Typography>
      ) : (
        <Box
          component="ul"
          aria-label="Claims"
          sx={{
            listStyle: 'none',
            m: 0,
            p: 0,
            border: 1,
            borderBottom: 0,
            borderColor: 'divider',
            borderRadius: 1,
            bgcolor: 'background.paper',
          }}
        >
          {claims.map((claim, index) => (
            <ClaimRow
              key={claim.id}
              claim={claim}
              index={index}
              onChange={() => setOpen(claim)}
              onRemove={() => remove.mutate(claim)}
            />
          ))}
        </Box>
      )}
      {open && <ClaimDialog claim={open === 'new' ? null : open} onSave={save} onClose={close} />}
    </Box>
  );
}
