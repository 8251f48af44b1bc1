// The page an invitation leads to: who it is, a password, and in.
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useLocation } from 'react-router';
import { useSend } from '../parts/form/useSend.ts';
import { useTyped } from '../parts/form/useTyped.ts';
import { usePageTitle } from '../parts/usePageTitle.ts';
import { JoinFields, type JoinForm, NO_JOIN, sendJoin } from './join.tsx';

export function JoinPage() {
  usePageTitle('Come in');
  // Behind the #: it was sent to no server on the way.
  const secret = useLocation().hash.slice(1);
  const form = useTyped<JoinForm>({ ...NO_JOIN, secret });
  const { name, signIn, password } = form.values;
  const ready = name.trim() !== '' && signIn.trim() !== '' && password !== '';
  const { submit } = useSend({
    form,
    ready,
    onClose: () => undefined,
    onSave: async (values) => {
      await sendJoin({ ...values, secret });
      window.location.assign('/');
    },
  });
  return (
    <Box component="main" sx={{ maxWidth: 440, mx: 'auto', px: 2, py: 6 }}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        Come in
      </Typography>
      {secret === '' ? (
        <Alert severity="warning">
          The link is not whole: what lets in stands behind its #. Copy all of it, or ask for another.
        </Alert>
      ) : (
        <Box component="form" onSubmit={submit} noValidate sx={{ display: 'grid', gap: 1 }}>
          <Typography sx={{ mb: 1 }}>
            You are invited to this bench. Where the link is for choosing a password anew, name and sign-in name stay as
            they are.
          </Typography>
          <JoinFields control={form.control} />
          {form.formState.errors.root && <Alert severity="error">{form.formState.errors.root.message}</Alert>}
          <Box>
            <Button type="submit" variant="contained" disabled={!ready || form.formState.isSubmitting}>
              Come in
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
