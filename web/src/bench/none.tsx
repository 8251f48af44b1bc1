// What stands in place of a list of the bench that is empty.
import Typography from '@mui/material/Typography';

export const none = (words: string) => (
  <Typography
    sx={{ p: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}
    color="text.secondary"
  >
    {words}
  </Typography>
);
