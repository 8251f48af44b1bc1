// One's own account: name, password, second factor, where one is signed in, and tokens for scripts.
import type { Me } from '@lastmark/contract/people';
import { ROLE_WORDS } from '@lastmark/contract/roles';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client.ts';
import { refreshWho, whoQuery } from '../api/who.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { FormSection } from '../parts/form/FormSection.tsx';
import { TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { useNotify } from '../state/notices.tsx';
import { Factor } from './Factor.tsx';
import { PASSWORD_HINT } from './join.tsx';
import { PasswordInput } from './PasswordInput.tsx';
import { Sessions } from './Sessions.tsx';
import { Tokens } from './Tokens.tsx';

function NameDialog({ me, onClose }: { readonly me: Me; readonly onClose: () => void }) {
  const form = useTyped({ name: me.name });
  return (
    <FormDialog
      title="Your name"
      form={form}
      action="Keep"
      ready={form.values.name.trim() !== ''}
      onClose={onClose}
      onSave={async ({ name }) => {
        await api('/me', { method: 'PUT', body: { name: name.trim() }, real: true });
        await refreshWho();
      }}
    >
      <TextInput control={form.control} name="name" label="As others see it" max={60} required />
    </FormDialog>
  );
}

function PasswordDialog({ onClose }: { readonly onClose: () => void }) {
  const notify = useNotify();
  const form = useTyped({ ownPassword: '', password: '' });
  return (
    <FormDialog
      title="Another password"
      form={form}
      action="Change it"
      ready={form.values.ownPassword !== '' && form.values.password !== ''}
      onClose={onClose}
      onSave={async (body) => {
        await api('/me/password', { method: 'PUT', body, real: true });
        notify('Your password is changed. You are signed out everywhere else.');
      }}
    >
      <PasswordInput
        control={form.control}
        name="ownPassword"
        label="Password until now"
        kind="current-password"
        autoFocus
      />
      <PasswordInput
        control={form.control}
        name="password"
        label="New password"
        kind="new-password"
        hint={PASSWORD_HINT}
      />
    </FormDialog>
  );
}

function Account({ me }: { readonly me: Me }) {
  const [open, setOpen] = useState<'name' | 'password' | null>(null);
  const notify = useNotify();
  const out = useMutation({
    mutationFn: () => api('/sign-out', { method: 'POST', real: true }),
    onSuccess: () => window.location.assign('/'),
    onError: (error) => notify(error.message),
  });
  const { title, says } = ROLE_WORDS[me.role];
  return (
    <Box sx={{ maxWidth: 980 }}>
      <FormSection wide title={me.name} hint={`signs in as ${me.signIn}`}>
        <Box>
          {title}: {says}
        </Box>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
          <Button onClick={() => setOpen('name')}>Change the name</Button>
          {me.password && <Button onClick={() => setOpen('password')}>Another password</Button>}
          <Button onClick={() => out.mutate()} disabled={out.isPending}>
            Sign out
          </Button>
        </Box>
      </FormSection>
      {me.password && <Factor me={me} />}
      <Sessions />
      <Tokens role={me.role} />
      {open === 'name' && <NameDialog me={me} onClose={() => setOpen(null)} />}
      {open === 'password' && <PasswordDialog onClose={() => setOpen(null)} />}
    </Box>
  );
}

export function AccountPage() {
  const who = useQuery(whoQuery);
  return (
    <Page title="Your account">
      <QueryGate query={who} what="your account">
        {({ me, people }) => {
          if (me) return <Account me={me} />;
          return people ? (
            <Alert severity="info">Sign in to see your account.</Alert>
          ) : (
            <Alert severity="info">
              People are not told apart on this server: it serves this machine alone. Start it with LASTMARK_PEOPLE=1 to
              tell them apart.
            </Alert>
          );
        }}
      </QueryGate>
    </Page>
  );
}
