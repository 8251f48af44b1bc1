// One line of caution at the step it belongs to, with more behind it.
import Box from '@mui/material/Box';

interface Props {
  readonly line: string;
  readonly more?: string;
}

export function Caution({ line, more }: Props) {
  const mark = (
    <Box component="span" sx={{ color: 'warning.main', fontWeight: 600 }} aria-hidden="true">
      ▲{' '}
    </Box>
  );
  const style = { my: 1, px: 1.5, py: 0.75, borderLeft: 4, borderColor: 'warning.main', bgcolor: 'background.paper' };
  if (!more)
    return (
      <Box role="note" sx={style}>
        {mark}
        {line}
      </Box>
    );
  return (
    <Box component="details" sx={style}>
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        {mark}
        {line}
      </Box>
      <Box sx={{ mt: 0.5, color: 'text.secondary' }}>{more}</Box>
    </Box>
  );
}
