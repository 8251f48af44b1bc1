// A second pair of eyes: who else looked at a reading or a report, and saying so oneself.
import type { RemarkInput } from '@lastmark/contract/together';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { ulid } from 'ulid';
import { remarksQuery, sayRemark } from '../api/remarks.ts';
import { useMe } from '../api/who.ts';
import { useNotify } from '../state/notices.tsx';
import { witnessesOf } from './remarkWords.ts';

interface Props {
  readonly sampleId: string;
  readonly about: RemarkInput['about'] & ('reading' | 'report');
  readonly aboutId: string;
  /** Whose work it is, where that is known. */
  readonly author?: string | undefined;
  /** What it is called, for screen readers. */
  readonly name: string;
}

export function Witness({ sampleId, about, aboutId, author, name }: Props) {
  const me = useMe();
  const notify = useNotify();
  const { data } = useQuery({ ...remarksQuery(sampleId), enabled: me !== null });
  const say = useMutation({
    mutationFn: () =>
      sayRemark(sampleId, { id: ulid(), about, aboutId, kind: 'witness', text: '', mentions: [], answers: null }),
    onError: (error) => notify(error.message),
  });
  // Where people are not told apart a second pair of eyes cannot be told from the first.
  if (!me) return null;
  const seen = witnessesOf(data?.items ?? [], aboutId);
  const mine = author === me.id || seen.some((one) => one.author === me.id);
  return (
    <Box component="span">
      {seen.length > 0 && <Box component="span">✓ seen by {seen.map(({ who }) => who).join(', ')} </Box>}
      {!mine && data && (
        <Button
          size="small"
          disabled={say.isPending}
          onClick={() => say.mutate()}
          aria-label={`I looked at it too: ${name}`}
        >
          I looked at it too
        </Button>
      )}
    </Box>
  );
}
