// Whether the log is as it was written: every seal worked out anew, when somebody asks.
import type { LogCheck } from '@lastmark/contract/log';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { QueryGate } from '../parts/QueryGate.tsx';

/** What is kept for the answer while it is worked out, px. */
const ANSWER_HEIGHT = 110;

function Checked({ check }: { readonly check: LogCheck }) {
  const { sealed, archived, waiting, head, wrong } = check;
  if (wrong.length > 0)
    return (
      <Alert severity="error">
        The log is not as it was written.
        <ul>
          {wrong.map(({ place, why }) => (
            <li key={place}>
              Place {place}: {why}
            </li>
          ))}
        </ul>
      </Alert>
    );
  return (
    <Alert severity="success" sx={{ minHeight: ANSWER_HEIGHT, overflowWrap: 'anywhere' }}>
      {sealed === 1 ? 'The one sealed entry is as it was' : `All ${sealed} sealed entries are as they were`} written
      {archived > 0 ? `; archives hold ${archived} from before` : ''}
      {waiting > 0 ? `; ${waiting} more ${waiting === 1 ? 'is' : 'are'} being sealed` : ''}. The last seal is{' '}
      <code>{head}</code>. Kept elsewhere, it shows later that nothing before it was changed.
    </Alert>
  );
}

export function ChainDialog({ onClose }: { readonly onClose: () => void }) {
  const check = useQuery({
    queryKey: ['log-check'],
    queryFn: ({ signal }) => api<LogCheck>('/log/check', { signal }),
    // Asked anew whenever it is opened: an answer of before says nothing of now.
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="chain-title">
      <DialogTitle id="chain-title">The chain of the log</DialogTitle>
      <DialogContent>
        <QueryGate query={check} what="the chain" height={ANSWER_HEIGHT}>
          {(found) => <Checked check={found} />}
        </QueryGate>
      </DialogContent>
      <DialogActions>
        <Button autoFocus onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}
