// A list stands still while it is read: what others did meanwhile is counted, and shown when asked for.
import Button from '@mui/material/Button';
import { type StillList, useUnshown } from './useNews.ts';

interface Props {
  readonly list: StillList;
  /** The sample it is all about. */
  readonly sampleId?: string;
  readonly query: { readonly dataUpdatedAt: number; readonly refetch: () => unknown };
}

export function ByOthers({ list, sampleId = '', query }: Props) {
  const changes = useUnshown(list, query.dataUpdatedAt, sampleId);
  if (changes === 0) return null;
  return (
    <Button size="small" variant="outlined" onClick={() => void query.refetch()} sx={{ ml: 'auto' }}>
      {changes === 1 ? 'One change by others: show it' : `${changes} changes by others: show them`}
    </Button>
  );
}
