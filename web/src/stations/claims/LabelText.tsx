// The label as printed, a line or all of it: every line is understood before it is added, and what is not stays.
import type { ClaimInput } from '@lastmark/contract/types';
import { describePromise, type LabelLine, type Promised, parseCableLabel, parseLabel } from '@lastmark/core/claim';
import { allModes } from '@lastmark/core/signal';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type FormEvent, type KeyboardEvent, useState } from 'react';
import { linesTogether, useHandedOn } from '../../parts/useHandedOn.ts';
import { useSample } from '../../state/sample.tsx';

const CABLE_EXAMPLES = ['240 W', '5 A 20 V', '480 Mbit/s', '10 Gbps', '10 000 bends', '“a slogan”'];

const EXAMPLES = [
  'C1: 5V 3A / 9V 3A / 20V 2.25A',
  'C1+A1: 45W+18W',
  'C2+C3 share 20W',
  'total 65 W',
  'idle 0.075 W',
  'efficiency 91 %',
  'ripple < 50 mV',
  'laptop to 50 % in 30 min',
  '“a slogan”',
];

/** Promises that can say for how long. */
const timed = ({ kind }: Promised): boolean => kind === 'port-line' || kind === 'total' || kind === 'combination';

type Understood = Extract<LabelLine, { readonly promises: unknown }>;

const isUnderstood = (line: LabelLine): line is Understood => 'promises' in line;

const inputsOf = (lines: readonly Understood[], printed: string): ClaimInput[] =>
  lines.flatMap(({ promises, duration }) =>
    promises.map((promise) => ({
      promise,
      duration: timed(promise) ? (duration ?? { kind: 'unstated' }) : { kind: 'unstated' },
      printed,
    })),
  );

/** What is made of each line, while it is typed. */
function Reading({ lines }: { readonly lines: readonly LabelLine[] }) {
  return (
    <Box component="ul" aria-label="Understood" sx={{ listStyle: 'none', m: 0, mt: 1, p: 0, fontSize: 14 }}>
      {lines.map((line, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the same line may stand there twice
        <Box component="li" key={index} sx={{ display: 'flex', gap: 1, py: 0.25 }}>
          <Box component="span" aria-hidden sx={{ color: isUnderstood(line) ? 'success.main' : 'error.main' }}>
            {isUnderstood(line) ? '✓' : '▼'}
          </Box>
          <span>
            {isUnderstood(line) ? (
              line.promises.map(describePromise).join(' · ')
            ) : (
              <>
                <strong>{line.line}</strong> stays: {line.reason}
              </>
            )}
          </span>
        </Box>
      ))}
    </Box>
  );
}

interface Props {
  readonly onAdd: (inputs: ClaimInput[]) => Promise<unknown>;
  readonly error: string | undefined;
}

export function LabelText({ onAdd, error }: Props) {
  const { sample, profile } = useSample().dossier;
  const { value: text, set, hand } = useHandedOn(`line-${sample.id}`, '', linesTogether);
  const [printed, setPrinted] = useState('label');
  const cable = sample.model.kind === 'cable';
  const lines = cable
    ? parseCableLabel(text)
    : parseLabel(
        text,
        sample.model.ports.map(({ label }) => label),
        allModes(profile.signalModes),
      );
  const good = lines.filter(isUnderstood);
  const left = lines.flatMap((line) => (isUnderstood(line) ? [] : [line]));
  const add = () => {
    if (good.length === 0 || printed.trim() === '') return;
    const inputs = inputsOf(good, printed.trim());
    hand(good.map(({ line }) => line).join('\n'), left.map(({ line }) => line).join('\n'), () => onAdd(inputs));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add();
  };
  const keys = (event: KeyboardEvent) => {
    // Shift and Enter goes on to the next line of the label.
    if (event.key === 'Enter' && !event.shiftKey) submit(event);
  };
  const unused = good.flatMap((line) => line.unused ?? []);
  const one = lines.length === 1 ? lines[0] : undefined;
  const said = one && (isUnderstood(one) ? one.promises.map(describePromise).join(' · ') : one.reason);
  return (
    <Box
      component="form"
      onSubmit={submit}
      noValidate
      sx={{ p: 2, mb: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}
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
          multiline
          maxRows={8}
          label="A line as printed"
          value={text}
          onChange={(event) => set(event.target.value)}
          onKeyDown={keys}
          error={lines.length > 0 && good.length === 0}
          helperText={
            text.trim() === ''
              ? 'Type a line, then Enter. Or paste the whole label.'
              : (said ??
                (lines.length === 0
                  ? 'Go on: nothing is promised yet.'
                  : `${good.length} of ${lines.length} lines understood.`))
          }
          slotProps={{ htmlInput: { autoComplete: 'off' } }}
        />
        <TextField
          label="Printed on"
          value={printed}
          onChange={(event) => setPrinted(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
        <Button type="submit" variant="contained" disabled={good.length === 0} sx={{ height: 40 }}>
          Add
        </Button>
      </Box>
      {lines.length > 1 && <Reading lines={lines} />}
      {unused.length > 0 && (
        <Alert severity="warning" sx={{ mt: 1 }}>
          Not used: {unused.map((one) => `“${one}”`).join(', ')}. Added without it, or mend the line.
        </Alert>
      )}
      {error && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {error}
        </Alert>
      )}
      {text === '' && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
          Such as {(cable ? CABLE_EXAMPLES : EXAMPLES).join(' · ')}
        </Typography>
      )}
    </Box>
  );
}
