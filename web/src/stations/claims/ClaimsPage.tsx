// Claims: the label typed line by line, each line understood before it is added.
import type { ClaimInput, StoredClaim } from '@lastmark/contract/types';
import { describeDuration, describePromise } from '@lastmark/core/claim';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { Attachments } from '../../parts/Attachments.tsx';
import { EvidenceList } from '../../parts/EvidenceList.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { isLoud, StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';
import { ClaimDialog } from './ClaimDialog.tsx';
import { LabelText } from './LabelText.tsx';
import { useClaims } from './useClaims.ts';

interface RowProps {
  readonly claim: StoredClaim;
  readonly index: number;
  readonly onChange: () => void;
  readonly onRemove: () => void;
}

/** A claim: what is proven takes one line, anything else says why; pressed, it shows the readings behind it. */
function ClaimRow({ claim, index, onChange, onRemove }: RowProps) {
  const { verdict } = useSample();
  const [open, setOpen] = useState(false);
  const name = describePromise(claim.promise);
  const result = verdict.claims[index];
  const state = result?.state ?? 'not tested';
  const id = `claim-${claim.id}`;
  return (
    <Box
      component="li"
      sx={{
        px: 2,
        py: 0.6,
        borderBottom: 1,
        borderColor: 'divider',
        ...(isLoud(state)
          ? { bgcolor: 'badGround', boxShadow: (theme) => `inset 4px 0 ${theme.palette.error.main}` }
          : null),
      }}
    >
      <Box sx={ROW}>
        <Box
          component="button"
          type="button"
          aria-expanded={open}
          aria-controls={id}
          onClick={() => setOpen(!open)}
          sx={{
            all: 'unset',
            cursor: 'pointer',
            fontWeight: 600,
            overflowWrap: 'anywhere',
            '&:hover': { textDecoration: 'underline' },
            '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main' },
          }}
        >
          {name}
        </Box>
        <Box sx={{ color: 'text.secondary', fontSize: 14 }}>
          {claim.printed}
          {claim.duration.kind !== 'unstated' && `, ${describeDuration(claim.duration)}`}
          {' · '}
          <Attachments owner="claim" ownerId={claim.id} compact />
        </Box>
        <StateMark state={state} />
        <Box sx={{ whiteSpace: 'nowrap' }}>
          <Button size="small" onClick={onChange} aria-label={`Change ${name}`}>
            Change
          </Button>
          <Button size="small" onClick={onRemove} aria-label={`Remove ${name}`}>
            Remove
          </Button>
        </Box>
      </Box>
      {result && state !== 'proven' && (
        <Box sx={{ fontSize: 13, color: 'text.secondary', pb: 0.25 }}>{result.sentence}</Box>
      )}
      {open && result && (
        <Box id={id} sx={{ pb: 1 }}>
          {state === 'proven' && <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{result.sentence}</Box>}
          <EvidenceList result={result} printed={claim.printed} />
        </Box>
      )}
    </Box>
  );
}

const ROW = {
  display: 'grid',
  gridTemplateColumns: { xs: 'minmax(0, 1fr) auto', md: 'minmax(0, 1.4fr) minmax(0, 1fr) 150px auto' },
  columnGap: 1.5,
  alignItems: 'center',
} as const;

export function ClaimsPage() {
  const { dossier } = useSample();
  const { sample, claims } = dossier;
  const { add, change, remove, removed, back } = useClaims(sample.id);
  const [open, setOpen] = useState<StoredClaim | 'new' | null>(null);
  const close = () => {
    setOpen(null);
    add.reset();
    change.reset();
  };
  const save = (input: ClaimInput) =>
    open === 'new' || open === null ? add.mutateAsync([input]) : change.mutateAsync({ claim: open, input });
  return (
    <Box sx={{ maxWidth: 1240 }}>
      <PageHead title="Claims">
        <Button variant="outlined" onClick={() => setOpen('new')}>
          Add by form
        </Button>
        {sample.model.kind !== 'cable' && (
          <Button component={Link} to={`/samples/${sample.id}/efficiency`} variant="outlined">
            Measure efficiency
          </Button>
        )}
      </PageHead>
      {sample.model.ports.length === 0 && sample.model.kind !== 'cable' && (
        <Alert severity="info" sx={{ mb: 2 }}>
          No ports yet. <Link to={`/samples/${sample.id}/intake`}>Enter them at Intake</Link>, then port lines can be
          claimed.
        </Alert>
      )}
      <LabelText onAdd={(inputs) => add.mutateAsync(inputs)} error={open ? undefined : add.error?.message} />
      {claims.length === 0 ? (
        <Typography color="text.secondary" sx={{ p: 2 }}>
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
      {removed.length > 0 && (
        <Box component="details" sx={{ mt: 2, fontSize: 14 }}>
          <Box component="summary" sx={{ cursor: 'pointer' }}>
            Removed: {removed.length}
          </Box>
          <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {removed.map(({ id, promise, printed, removedAt }) => (
              <Box component="li" key={id} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
                <Box sx={{ flex: 1 }}>
                  {describePromise(promise)}, {printed}; {removedAt.slice(0, 16).replace('T', ' ')} UTC
                </Box>
                <Button
                  size="small"
                  aria-label={`Bring back ${describePromise(promise)}`}
                  disabled={back.isPending}
                  onClick={() => back.mutate(id)}
                >
                  Bring back
                </Button>
              </Box>
            ))}
          </Box>
        </Box>
      )}
      {open && <ClaimDialog claim={open === 'new' ? null : open} onSave={save} onClose={close} />}
    </Box>
  );
}
