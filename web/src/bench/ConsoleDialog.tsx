// What goes to and comes from one instrument, and a line to try a command on.
import type { CommandAnswer, InstrumentTraffic, StoredInstrument } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import { api } from '../api/client.ts';
import { instrumentProfilesQuery, leasesQuery, queryClient, trafficQuery } from '../api/queries.ts';
import { Understood } from './ProfileDialog.tsx';
import { understood } from './profileForm.ts';

const STATE_WORDS: Readonly<Record<InstrumentTraffic['state'], string>> = {
  up: '● connected',
  connecting: '◌ connecting',
  down: '▼ not connected',
  closed: '▼ closed',
};
const ARROWS = { out: '→', in: '←', note: '·' } as const;

function Traffic({ items }: Pick<InstrumentTraffic, 'items'>) {
  const end = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: scrolls when a line is added
  useEffect(() => {
    // Newer browsers answer with a promise, which is no way to clean up.
    void end.current?.scrollIntoView({ block: 'nearest' });
  }, [items.length]);
  return (
    <Box
      role="log"
      aria-label="Traffic"
      tabIndex={0}
      sx={{
        height: 320,
        overflowY: 'auto',
        p: 1,
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        bgcolor: 'background.default',
        fontVariantNumeric: 'tabular-nums',
        fontSize: 14,
      }}
    >
      {items.length === 0 && <Typography color="text.secondary">Nothing said yet. Try *IDN?</Typography>}
      {items.map(({ at, direction, text }, index) => (
        <Box
          // biome-ignore lint/suspicious/noArrayIndexKey: lines have no identity but their place
          key={index}
          sx={{ display: 'flex', gap: 1, color: direction === 'note' ? 'text.secondary' : 'text.primary' }}
        >
          <span>{new Date(at).toISOString().slice(11, 23)}</span>
          <span>{ARROWS[direction]}</span>
          <Box component="span" sx={{ overflowWrap: 'anywhere' }}>
            {text}
          </Box>
        </Box>
      ))}
      <div ref={end} />
    </Box>
  );
}

interface Props {
  readonly instrument: StoredInstrument;
  readonly onClose: () => void;
}

export function ConsoleDialog({ instrument, onClose }: Props) {
  const query = trafficQuery(instrument.id);
  // What went wrong stays to be read: asked again a second later, it would be gone and back.
  const traffic = useQuery({ ...query, refetchInterval: ({ state }) => (state.status === 'error' ? false : 1000) });
  const [command, setCommand] = useState('');
  const [steady, setSteady] = useState(false);
  const { data: profiles } = useQuery(instrumentProfilesQuery);
  const [read, setRead] = useState<ReturnType<typeof understood>>(null);
  const { data: leases } = useQuery({ ...leasesQuery, refetchInterval: 3000 });
  const taken = leases?.items.find(({ instrumentId }) => instrumentId === instrument.id);
  const send = useMutation({
    mutationFn: () =>
      api<CommandAnswer>(`/instruments/${instrument.id}/commands`, { method: 'POST', body: { command } }),
    onSuccess: ({ reply, ...answer }) => {
      queryClient.setQueryData(query.queryKey, answer);
      const profile = profiles?.items.find(({ id }) => id === instrument.profileId);
      setRead(reply === null ? null : understood(profile, command, reply));
      // What was typed meanwhile stays.
      setCommand((now) => (now === command ? '' : now));
    },
    onError: () => traffic.refetch(),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (command.trim()) send.mutate();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="console-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="console-title">
          {instrument.name}, {instrument.address}
        </DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5, '&&': { pt: 1 } }}>
          <Typography aria-live="polite">
            {traffic.data ? STATE_WORDS[traffic.data.state] : traffic.error ? 'Not known.' : 'Asking …'}
          </Typography>
          <Traffic items={(traffic.data?.items ?? []).filter((line) => steady || !line.steady)} />
          <FormControlLabel
            control={<Checkbox checked={steady} onChange={(event) => setSteady(event.target.checked)} />}
            label="Also the steady asking for live numbers"
          />
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1 }}>
            <TextField
              label="Command"
              autoFocus
              disabled={taken !== undefined}
              value={command}
              onChange={(event) => setCommand(event.target.value)}
              slotProps={{ htmlInput: { maxLength: 400, spellCheck: false, autoComplete: 'off' } }}
            />
            <Button
              type="submit"
              variant="contained"
              disabled={send.isPending || command.trim() === '' || taken !== undefined}
            >
              Send
            </Button>
          </Box>
          <Understood read={read} />
          {taken && (
            <Alert severity="info">
              It belongs to {taken.person}’s run “{taken.title}”: this console reads along until that run is over. Loads
              off works at any time.
            </Alert>
          )}
          {send.error && <Alert severity="error">{send.error.message}</Alert>}
          {traffic.error && (
            <Alert
              severity="error"
              action={
                <Button color="inherit" size="small" onClick={() => void traffic.refetch()}>
                  Ask again
                </Button>
              }
            >
              {traffic.error.message}
            </Alert>
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Close</Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
