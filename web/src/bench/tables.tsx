// What the tables of the bench share.
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';

export function Heads({ heads }: { readonly heads: readonly string[] }) {
  return (
    <TableHead>
      <TableRow>
        {heads.map((head) => (
          <TableCell key={head}>{head}</TableCell>
        ))}
      </TableRow>
    </TableHead>
  );
}

export const none = (words: string) => (
  <Typography sx={{ p: 2 }} color="text.secondary">
    {words}
  </Typography>
);
