// Two people edited one sample: what differs, and whose shall stand.
import type { Sample } from '@lastmark/contract/types';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../api/client.ts';
import { QueryGate } from '../../parts/QueryGate.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { differences, type IntakeForm, toForm } from './form.ts';

interface Props {
  readonly sampleId: string;
  readonly mine: IntakeForm;
  readonly onTheirs: () => void;
  /** Save mine over the version just shown. */
  readonly onMine: (etag: string) => void;
  readonly onClose: () => void;
}

export function ConflictDialog({ sampleId, mine, onTheirs, onMine, onClose }: Props) {
  const query = useQuery({
    queryKey: ['conflict', sampleId],
    queryFn: () => api<Sample>(`/samples/${sampleId}`),
    gcTime: 0,
  });
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="conflict-title">
      <DialogTitle id="conflict-title">Someone else saved this sample meanwhile</DialogTitle>
      <QueryGate query={query} what="their version">
        {(theirs) => (
          <>
            <DialogContent>
              <Typography sx={{ mb: 1 }}>Nothing was overwritten. These fields differ:</Typography>
              <QuietTable
                label="What differs"
                rows={differences(mine, toForm(theirs))}
                rowKey={({ field }) => field}
                columns={[
                  { head: 'Field', cell: ({ field }) => field },
                  { head: 'Yours', cell: (one) => one.mine, empty: 'empty' },
                  { head: 'Theirs', cell: (one) => one.theirs, empty: 'empty' },
                ]}
              />
            </DialogContent>
            <DialogActions>
              <Button onClick={onClose}>Keep editing</Button>
              <Button onClick={onTheirs}>Take theirs</Button>
              <Button variant="contained" onClick={() => onMine(theirs.etag)}>
                Save mine over theirs
              </Button>
            </DialogActions>
          </>
        )}
      </QueryGate>
    </Dialog>
  );
}
