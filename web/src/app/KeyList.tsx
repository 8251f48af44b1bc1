// The list of keys.
import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';

const KEYS: readonly (readonly [string, string])[] = [
  ['Ctrl K', 'Command box: samples, stations, actions'],
  ['Alt 1 … Alt 9, Alt 0, Alt -, Alt =', 'Stations of the sample on the bench'],
  ['Alt G', 'Go to the first empty field of the grid'],
  ['← → ↑ ↓', 'Move in a grid'],
  ['Alt L', 'Fold or open the ledger'],
  ['Enter', 'In a grid: take the reading, go to the next'],
  ['↑ ↓', 'In a grid: the cell above or below'],
  ['Esc', 'Every load off, wherever loads are connected; while a run is on, in fields and dialogs too'],
  ['Esc, nothing running', 'In a grid: back to what stood there; in a dialog: close'],
  ['Enter H R S N X', 'At the run console: go on or record, hold, repeat, skip, note, stop'],
  ['Space, then ↑ ↓', 'On the handle of a port or step: pick up and move it'],
  ['?', 'This list'],
];

export function KeyList({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="key-list">
      <DialogTitle id="key-list">Keys</DialogTitle>
      <DialogContent>
        <Box
          component="dl"
          sx={{ display: 'grid', gridTemplateColumns: 'max-content 1fr', columnGap: 3, rowGap: 1, m: 0 }}
        >
          {KEYS.map(([key, does]) => (
            <Box key={key} sx={{ display: 'contents' }}>
              <Box component="dt" sx={{ fontWeight: 600 }}>
                {key}
              </Box>
              <Box component="dd" sx={{ m: 0 }}>
                {does}
              </Box>
            </Box>
          ))}
        </Box>
      </DialogContent>
    </Dialog>
  );
}
