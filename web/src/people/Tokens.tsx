// Tokens for scripts: made with a scope and an end, shown once, ended here.
import type { AccessToken, NewAccessToken } from '@lastmark/contract/people';
import { isEnough, ROLE_WORDS, ROLES, type Role } from '@lastmark/contract/roles';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { FormSection } from '../parts/form/FormSection.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { momentText } from '../parts/moment.ts';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { useNotify } from '../state/notices.tsx';
import { refreshPeople, tokensQuery } from './queries.ts';
import { Shown } from './Shown.tsx';

const LIVES = [
  { value: '7', label: 'a week' },
  { value: '30', label: 'a month' },
  { value: '366', label: 'a year' },
];

interface DialogProps {
  readonly role: Role;
  readonly onMade: (token: NewAccessToken) => void;
  readonly onClose: () => void;
}

function TokenDialog({ role: own, onMade, onClose }: DialogProps) {
  const form = useTyped<{ name: string; role: Role; days: string }>({ name: '', role: 'reader', days: '30' });
  return (
    <FormDialog
      title="A token for a script"
      form={form}
      action="Make it"
      ready={form.values.name.trim() !== ''}
      onClose={onClose}
      onSave={async ({ name, role, days }) => {
        const body = { name: name.trim(), role, days: Number(days) };
        onMade(await api<NewAccessToken>('/me/tokens', { method: 'POST', body, real: true }));
        await refreshPeople();
      }}
    >
      <TextInput
        control={form.control}
        name="name"
        label="What it is for"
        max={60}
        required
        more={{ autoFocus: true }}
      />
      <ChoiceInput
        control={form.control}
        name="role"
        label="What it may do"
        options={ROLES.filter((role) => isEnough(own, role)).map((role) => ({
          value: role,
          label: `${ROLE_WORDS[role].title}: ${ROLE_WORDS[role].says}`,
        }))}
      />
      <ChoiceInput control={form.control} name="days" label="How long it lives" options={LIVES} />
    </FormDialog>
  );
}

export function Tokens({ role }: { readonly role: Role }) {
  const tokens = useQuery(tokensQuery);
  const notify = useNotify();
  const [open, setOpen] = useState(false);
  const [made, setMade] = useState<NewAccessToken | null>(null);
  const end = useMutation({
    mutationFn: (id: string) => api(`/me/tokens/${id}`, { method: 'DELETE', real: true }),
    onSuccess: refreshPeople,
    onError: (error) => notify(error.message),
  });
  return (
    <FormSection wide title="Tokens" hint="for scripts; sent as Authorization: Bearer …">
      {made && (
        <Shown
          says={`The token for ${made.name}. It is shown this once; a script sends it with every request.`}
          text={made.token}
          onDone={() => setMade(null)}
        />
      )}
      <QueryGate query={tokens} what="your tokens">
        {({ items }) =>
          items.length === 0 ? (
            <Box>None.</Box>
          ) : (
            <QuietTable<AccessToken>
              label="Tokens"
              rows={items}
              rowKey={({ id }) => id}
              columns={[
                { head: 'For', cell: ({ name }) => name },
                { head: 'May', cell: (token) => ROLE_WORDS[token.role].title },
                { head: 'Until', cell: ({ endsAt }) => momentText(endsAt) },
                { head: 'Last used', cell: ({ seenAt }) => seenAt && momentText(seenAt), empty: 'never' },
                {
                  head: 'Do',
                  cell: ({ id, name }) => (
                    <Button size="small" onClick={() => end.mutate(id)} aria-label={`End the token ${name}`}>
                      End it
                    </Button>
                  ),
                },
              ]}
            />
          )
        }
      </QueryGate>
      <Box>
        <Button variant="outlined" onClick={() => setOpen(true)}>
          Make a token
        </Button>
      </Box>
      {open && <TokenDialog role={role} onMade={setMade} onClose={() => setOpen(false)} />}
    </FormSection>
  );
}
