// Coming in: name and password, the code of the second factor where it is wanted, and the first person of a new lab.
import type { Me, SignInAnswer, Who } from '@lastmark/contract/people';
import type { LoadsOffAnswer } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { api } from '../api/client.ts';
import { realUrl } from '../api/world.ts';
import { TextInput } from '../parts/form/inputs.tsx';
import { useSend } from '../parts/form/useSend.ts';
import { useTyped } from '../parts/form/useTyped.ts';
import { NO_WORD, wordsOf } from '../parts/loadsOffWords.ts';
import { JoinFields, type JoinForm, NO_JOIN, sendJoin } from './join.tsx';
import { PasswordInput } from './PasswordInput.tsx';

/** Whoever was let in once may switch loads off, signed in or not: nothing that stands over the page is in its way. */
function PressLoadsOff() {
  const off = useMutation({ mutationFn: () => api<LoadsOffAnswer>('/loads-off', { method: 'POST', body: {} }) });
  const told = off.error ? NO_WORD : off.data ? wordsOf(off.data, NONE).said : '';
  return (
    <>
      <Box role="status" sx={{ flex: 1, fontSize: 14, pl: 1 }}>
        {told}
      </Box>
      <Button color="error" variant="outlined" onClick={() => off.mutate()}>
        Loads off
      </Button>
    </>
  );
}

const NONE: ReadonlySet<string> = new Set();

interface Props {
  readonly who: Who;
  /** Whether somebody was signed in here a moment ago. */
  readonly again: boolean;
  readonly onDone: (me: Me) => void;
}

/** Why the lab's own sign-in did not let somebody in: told behind the # of the address. */
const notLetIn = (): string | null => {
  const [, said] = /^#not-let-in=(.+)$/.exec(window.location.hash) ?? [];
  return said ? decodeURIComponent(said) : null;
};

function SignIn({ who, again, onDone }: Props) {
  const id = useId();
  const [codeWanted, setCodeWanted] = useState(false);
  const [refused] = useState(notLetIn);
  const form = useTyped({ signIn: '', password: '', code: '' });
  const { control, values, formState } = form;
  const ready = values.signIn.trim() !== '' && values.password !== '' && (!codeWanted || values.code.trim() !== '');
  const { submit } = useSend({
    form,
    ready,
    onClose: () => undefined,
    onSave: async ({ signIn, password, code }) => {
      const { me } = await api<SignInAnswer>('/sign-in', {
        method: 'POST',
        body: { signIn: signIn.trim(), password, code: code.trim() },
        real: true,
      });
      if (me) onDone(me);
      else setCodeWanted(true);
    },
  });
  return (
    <Dialog open maxWidth="xs" fullWidth aria-labelledby={id}>
      <form onSubmit={submit} noValidate>
        <DialogTitle id={id}>{again ? 'Sign in again' : 'Sign in'}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1, '&&': { pt: 1 } }}>
          {refused && <Alert severity="error">{refused}</Alert>}
          {who.provider && (
            <Button variant="outlined" href={realUrl('/sign-in/provider')}>
              {who.provider}
            </Button>
          )}
          {again && <Typography>Your session is over. What you typed is kept; sign in and go on.</Typography>}
          <TextInput
            control={control}
            name="signIn"
            label="Sign-in name"
            max={120}
            required
            more={{ autoFocus: true, helperText: ' ', autoComplete: 'username' }}
          />
          <PasswordInput control={control} name="password" label="Password" kind="current-password" />
          {codeWanted && (
            <TextInput
              control={control}
              name="code"
              label="Code of your authenticator, or a recovery code"
              max={40}
              required
              more={{ autoFocus: true, autoComplete: 'one-time-code', helperText: ' ' }}
            />
          )}
          {formState.errors.root && <Alert severity="error">{formState.errors.root.message}</Alert>}
        </DialogContent>
        <DialogActions>
          {again && <PressLoadsOff />}
          <Button type="submit" variant="contained" disabled={!ready || formState.isSubmitting}>
            Sign in
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}

function First({ onDone }: Pick<Props, 'onDone'>) {
  const id = useId();
  const form = useTyped<JoinForm>(NO_JOIN);
  const ready = form.values.secret.trim() !== '' && form.values.password !== '';
  const { submit } = useSend({
    form,
    ready,
    onClose: () => undefined,
    onSave: async (values) => onDone(await sendJoin(values)),
  });
  return (
    <Dialog open maxWidth="xs" fullWidth aria-labelledby={id}>
      <form onSubmit={submit} noValidate>
        <DialogTitle id={id}>You are the first here</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1, '&&': { pt: 1 } }}>
          <Typography>
            Type the code that was printed where Lastmark was started. Whoever has it becomes admin, and lets the others
            in.
          </Typography>
          <TextInput
            control={form.control}
            name="secret"
            label="Code of the start"
            max={40}
            required
            more={{ autoFocus: true, autoComplete: 'off', helperText: ' ' }}
          />
          <JoinFields control={form.control} />
          {form.formState.errors.root && <Alert severity="error">{form.formState.errors.root.message}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button type="submit" variant="contained" disabled={!ready || form.formState.isSubmitting}>
            Come in
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}

export function SignInDialog({ who, again, onDone }: Props) {
  // Whoever follows an invitation says there who they are.
  if (window.location.pathname === '/join') return null;
  return who.first ? <First onDone={onDone} /> : <SignIn who={who} again={again} onDone={onDone} />;
}
