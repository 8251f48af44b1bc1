// Two people edited one sample: what differs, and whose shall stand.
import type { Sample } from '@lastmark/contract/types';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../api/client.ts';
import { QueryGate } from '../../parts/QueryGate.tsx';
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
              <Table size="small">
                <TableHead>
                  <TableRow>
                    <TableCell>Field</TableCell>
                    <TableCell>Yours</TableCell>
                    <TableCell>Theirs</TableCell>
                  </TableRow>
                </TableHead>
                <TableBody>
                  {differences(mine, toForm(theirs)).map((one) => (
                    <TableRow key={one.field}>
                      <TableCell>{one.field}</TableCell>
                      <TableCell sx={{ overflowWrap: 'anywhere' }}>{one.mine}</TableCell>
                      <TableCell sx={{ overflowWrap: 'anywhere' }}>{one.theirs}</TableCell>
                    </TableRow>
                  ))}
                </TableBody>
              </Table>
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
