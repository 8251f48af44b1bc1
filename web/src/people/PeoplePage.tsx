// Who there is, what they may do, and letting others in.
import type { Invitation, LetIn, StoredPerson } from '@lastmark/contract/people';
import { ROLE_WORDS, ROLES, type Role } from '@lastmark/contract/roles';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, versionTag } from '../api/client.ts';
import { useMe } from '../api/who.ts';
import { Collections } from '../collections/Collections.tsx';
import { collectionsQuery, namesQuery } from '../collections/queries.ts';
import { Ask } from '../parts/Ask.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { momentText } from '../parts/moment.ts';
import { Page } from '../parts/Page.tsx';
import { Loading, QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { useNotify } from '../state/notices.tsx';
import { invitationsQuery, peopleQuery, refreshPeople } from './queries.ts';
import { Shown } from './Shown.tsx';

const ROLE_OPTIONS = ROLES.map((role) => ({
  value: role,
  label: `${ROLE_WORDS[role].title}: ${ROLE_WORDS[role].says}`,
}));

type From = 'lab' | 'outside';
const FROM_OPTIONS = [
  { value: 'lab', label: 'Of the lab' },
  { value: 'outside', label: 'Guest: sees samples of the collections they are named for; reader or engineer' },
] as const;

const linkText = ({ path }: LetIn): string => `${window.location.origin}${path}`;

function InviteDialog({ onDone, onClose }: { readonly onDone: (link: LetIn) => void; readonly onClose: () => void }) {
  const form = useTyped<{ role: Role; note: string; from: From }>({ role: 'engineer', note: '', from: 'lab' });
  return (
    <FormDialog
      title="Invite somebody"
      form={form}
      action="Make the link"
      onClose={onClose}
      onSave={async ({ role, note, from }) => {
        const body = { role, note: note.trim(), guest: from === 'outside' };
        onDone(await api<LetIn>('/invitations', { method: 'POST', body, real: true }));
        await refreshPeople();
      }}
    >
      <ChoiceInput control={form.control} name="role" label="What they may do" options={ROLE_OPTIONS} />
      <ChoiceInput control={form.control} name="from" label="Where they are from" options={FROM_OPTIONS} />
      <TextInput
        control={form.control}
        name="note"
        label="For whom"
        max={80}
        more={{ helperText: 'So that you know which one to take back.' }}
      />
    </FormDialog>
  );
}

function PersonDialog({ person, onClose }: { readonly person: StoredPerson; readonly onClose: () => void }) {
  const { id, name, role, disabled, guest } = person;
  const form = useTyped<{ name: string; role: Role; from: From; state: 'in' | 'out' }>({
    name,
    role,
    from: guest ? 'outside' : 'lab',
    state: disabled ? 'out' : 'in',
  });
  return (
    <FormDialog
      title={`Change ${name}`}
      form={form}
      action="Keep"
      ready={form.values.name.trim() !== ''}
      onClose={onClose}
      onSave={async (values) => {
        await api<StoredPerson>(`/people/${id}`, {
          method: 'PUT',
          body: {
            name: values.name.trim(),
            role: values.role,
            disabled: values.state === 'out',
            guest: values.from === 'outside',
          },
          ifMatch: versionTag(person),
          real: true,
        });
        await refreshPeople();
      }}
    >
      <TextInput control={form.control} name="name" label="Name" max={60} required />
      <ChoiceInput control={form.control} name="role" label="What they may do" options={ROLE_OPTIONS} />
      <ChoiceInput control={form.control} name="from" label="Where they are from" options={FROM_OPTIONS} />
      <ChoiceInput
        control={form.control}
        name="state"
        label="Whether they are let in"
        options={[
          { value: 'in', label: 'Let in' },
          { value: 'out', label: 'Kept out: signed out everywhere, their tokens end, their work stays' },
        ]}
      />
    </FormDialog>
  );
}

interface TableProps {
  readonly people: readonly StoredPerson[];
  readonly onChange: (person: StoredPerson) => void;
  readonly onReset: (person: StoredPerson) => void;
  readonly onForget: (person: StoredPerson) => void;
}

function PeopleTable({ people, onChange, onReset, onForget }: TableProps) {
  const me = useMe();
  return (
    <QuietTable<StoredPerson>
      label="People"
      rows={people}
      rowKey={({ id }) => id}
      columns={[
        { head: 'Name', cell: ({ id, name }) => (id === me?.id ? `${name} (you)` : name) },
        { head: 'Signs in as', cell: ({ signIn }) => signIn },
        {
          head: 'May',
          cell: ({ role, disabled, guest }) =>
            disabled ? (
              <Box sx={{ color: 'error.main', fontWeight: 600 }}>▼ kept out</Box>
            ) : (
              `${ROLE_WORDS[role].title}${guest ? ', guest' : ''}`
            ),
        },
        { head: 'Second factor', cell: ({ factor }) => (factor ? 'yes' : null), empty: 'none' },
        { head: 'Last here', cell: ({ seenAt }) => seenAt && momentText(seenAt), empty: 'never' },
        {
          head: 'Do',
          cell: (person) => (
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
              <Button size="small" onClick={() => onChange(person)} aria-label={`Change ${person.name}`}>
                Change
              </Button>
              <Button
                size="small"
                component={Link}
                to={`/log?person=${person.id}`}
                aria-label={`What ${person.name} did`}
              >
                What they did
              </Button>
              {person.id !== me?.id && (
                <Ask
                  button="Locked out"
                  says={`${person.name} is signed out everywhere and gets a link to choose a password anew; a second factor ends with it.`}
                  yes="Make the link"
                  no="Leave it"
                  onYes={() => onReset(person)}
                />
              )}
              {person.id !== me?.id && person.disabled && (
                <Ask
                  button="Forget"
                  color="error"
                  says={`Name, sign-in and everything that lets ${person.name} in go for good. What they measured and did stays, by nobody; reports keep the name they were issued under.`}
                  yes="Forget them"
                  no="Leave it"
                  onYes={() => onForget(person)}
                />
              )}
            </Box>
          ),
        },
      ]}
    />
  );
}

function Open({ invitations }: { readonly invitations: readonly Invitation[] }) {
  const notify = useNotify();
  const withdraw = useMutation({
    mutationFn: (id: string) => api(`/invitations/${id}`, { method: 'DELETE', real: true }),
    onSuccess: refreshPeople,
    onError: (error) => notify(error.message),
  });
  if (invitations.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="open-invitations" sx={{ mt: 3 }}>
      <Typography variant="h2" id="open-invitations" sx={{ mb: 1 }}>
        Invitations nobody has taken yet
      </Typography>
      <QuietTable<Invitation>
        label="Invitations"
        rows={invitations}
        rowKey={({ id }) => id}
        columns={[
          { head: 'For', cell: ({ note }) => note, empty: 'nobody named' },
          { head: 'May', cell: ({ role, guest }) => `${ROLE_WORDS[role].title}${guest ? ', guest' : ''}` },
          { head: 'Invited by', cell: ({ by }) => by },
          { head: 'Good until', cell: ({ endsAt }) => momentText(endsAt) },
          {
            head: 'Do',
            cell: ({ id, note }) => (
              <Button size="small" onClick={() => withdraw.mutate(id)} aria-label={`Take back the invitation ${note}`}>
                Take it back
              </Button>
            ),
          },
        ]}
      />
    </Box>
  );
}

function Keeping() {
  const people = useQuery(peopleQuery);
  const invitations = useQuery(invitationsQuery);
  const collections = useQuery(collectionsQuery);
  const names = useQuery(namesQuery);
  // All at once, so that nothing moves what stands there already.
  const waiting = [people, invitations, collections, names].some(({ isPending }) => isPending);
  const notify = useNotify();
  const [open, setOpen] = useState<'invite' | StoredPerson | null>(null);
  const [link, setLink] = useState<{ readonly says: string; readonly link: LetIn } | null>(null);
  const reset = useMutation({
    mutationFn: (person: StoredPerson) => api<LetIn>(`/people/${person.id}/reset`, { method: 'POST', real: true }),
    onSuccess: (made, { name }) => {
      setLink({ says: `For ${name}, to choose a password anew within a day. It is shown this once.`, link: made });
      return refreshPeople();
    },
    onError: (error) => notify(error.message),
  });
  const forget = useMutation({
    mutationFn: (person: StoredPerson) =>
      api(`/people/${person.id}`, { method: 'DELETE', ifMatch: versionTag(person), real: true }),
    onSuccess: refreshPeople,
    onError: (error) => notify(error.message),
  });
  return (
    <Page
      title="People"
      actions={
        <Button variant="contained" onClick={() => setOpen('invite')}>
          Invite somebody
        </Button>
      }
    >
      {link && <Shown says={link.says} text={linkText(link.link)} onDone={() => setLink(null)} />}
      {waiting ? (
        <Loading what="people" />
      ) : (
        <>
          <QueryGate query={people} what="people">
            {({ items }) => (
              <PeopleTable
                people={items}
                onChange={setOpen}
                onReset={(person) => reset.mutate(person)}
                onForget={(person) => forget.mutate(person)}
              />
            )}
          </QueryGate>
          <QueryGate query={invitations} what="invitations">
            {({ items }) => <Open invitations={items} />}
          </QueryGate>
          <Collections />
        </>
      )}
      {open === 'invite' && (
        <InviteDialog
          onClose={() => setOpen(null)}
          onDone={(made) =>
            setLink({
              says: 'This link lets one person in, within a week. It is shown this once: send it to them.',
              link: made,
            })
          }
        />
      )}
      {open !== null && open !== 'invite' && <PersonDialog person={open} onClose={() => setOpen(null)} />}
    </Page>
  );
}

export function PeoplePage() {
  const me = useMe();
  if (me && me.role !== 'admin')
    return (
      <Page title="People">
        <Alert severity="info">Admins let people in and give them their roles. Ask one of them.</Alert>
      </Page>
    );
  return <Keeping />;
}
