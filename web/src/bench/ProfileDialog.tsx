// A profile: the command of every action of a class, and how its replies are read. What ships is copied; a copy is changed.
import type { StoredInstrumentProfile } from '@lastmark/contract/types';
import { ACTIONS, fieldsOfAction, LINE_ENDS, profileProblems } from '@lastmark/core/instrument';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { type ProfileFormValues, profileForm, profileFrom, profileInput, tried } from './profileForm.ts';

/** What was understood of an example, and what was not. */
export function Understood({ read }: { readonly read: ReturnType<typeof tried> }) {
  if (!read) return null;
  return (
    <Box role="status" sx={{ fontSize: 13, overflowWrap: 'anywhere' }}>
      {read.reads && <span>Understood: {read.reads}. </span>}
      {read.problems.length > 0 && (
        <Box component="span" sx={{ color: 'error.main', fontWeight: 600 }}>
          Not understood: {read.problems.join(' ')}
        </Box>
      )}
    </Box>
  );
}

interface LineProps {
  readonly label: string;
  readonly hint?: string;
  readonly value: string;
  readonly most: number;
  readonly multiline?: boolean;
  readonly onChange: (value: string) => void;
}

const Line = ({ label, hint = '', value, most, multiline = false, onChange }: LineProps) => (
  <TextField
    value={value}
    multiline={multiline}
    placeholder={hint}
    onChange={(event) => onChange(event.target.value)}
    slotProps={{ htmlInput: { 'aria-label': label, maxLength: most, spellCheck: false } }}
  />
);

interface Props {
  readonly profile: StoredInstrumentProfile;
  readonly onClose: () => void;
}

export function ProfileDialog({ profile, onClose }: Props) {
  const form = useTyped<ProfileFormValues>(profileForm(profile));
  const { control, set, values } = form;
  const { commands, replies, examples } = values;
  const [patterns, setPatterns] = useState(Object.values(replies).some((reply) => reply !== ''));
  const body = profileInput(profile.class, values);
  const unread = Object.keys(commands).flatMap(
    (action) => tried(replies[action] ?? '', examples[action] ?? '')?.problems ?? [],
  );
  const problems = [...profileProblems(profileFrom(body)), ...unread];
  const save = async () => {
    await (profile.builtIn
      ? api('/instrument-profiles', { method: 'POST', body })
      : api(`/instrument-profiles/${profile.id}`, { method: 'PUT', body, ifMatch: versionTag(profile) }));
    await refreshAll();
  };
  return (
    <FormDialog
      title={`${profile.builtIn ? 'Copy the profile' : 'Change the profile'}: ${profile.class}`}
      form={form}
      onSave={save}
      onClose={onClose}
      action={profile.builtIn ? 'Keep the copy' : 'Save'}
      ready={problems.length === 0 && body.title !== ''}
    >
      <TextInput control={control} name="title" label="Name" max={80} required />
      <Typography variant="body2" color="text.secondary">
        Values stand in braces, in SI: CURR {'{amps}'}. Several lines go one after the other. Leave an action empty that
        the instrument cannot do.
      </Typography>
      <FormControlLabel
        control={<Checkbox checked={patterns} onChange={(event) => setPatterns(event.target.checked)} />}
        label="Its replies are not plain numbers in order"
      />
      {patterns && (
        <Typography variant="body2" color="text.secondary">
          A pattern looks like the reply: U={'{volts}'}, I={'{amps*0.001}'}, *, {'{on:ON=1|OFF=0}'}. What has a key is
          found wherever it stands; units and prefixes are read; * passes over a part.
        </Typography>
      )}
      {Object.entries(ACTIONS[profile.class]).map(([action, shape]) => {
        const fields = fieldsOfAction(profile, action);
        return (
          <Box key={action} sx={{ display: 'grid', gridTemplateColumns: '1fr 1.2fr', gap: 1, alignItems: 'start' }}>
            <Box sx={{ pt: 1 }}>
              {shape.title}
              {shape.takes.length > 0 && (
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {' '}
                  {shape.takes.map((name) => `{${name}}`).join(' ')}
                </Box>
              )}
            </Box>
            <Box sx={{ display: 'grid', gap: 0.5 }}>
              <Line
                label={`Command to ${shape.title}`}
                value={commands[action] ?? ''}
                most={400}
                multiline
                onChange={(command) => set({ commands: { ...commands, [action]: command } })}
              />
              {patterns && fields && (commands[action] ?? '') !== '' && (
                <>
                  <Line
                    label={`Pattern of the reply to ${shape.title}`}
                    hint={`Pattern, where needed: ${fields.map((name) => `{${name}}`).join(' ')}`}
                    value={replies[action] ?? ''}
                    most={200}
                    onChange={(reply) => set({ replies: { ...replies, [action]: reply } })}
                  />
                  {(replies[action] ?? '') !== '' && (
                    <Line
                      label={`Example of the reply to ${shape.title}`}
                      hint="A reply as it came, to try the pattern on"
                      value={examples[action] ?? ''}
                      most={1000}
                      onChange={(example) => set({ examples: { ...examples, [action]: example } })}
                    />
                  )}
                  <Understood read={tried(replies[action] ?? '', examples[action] ?? '')} />
                </>
              )}
            </Box>
          </Box>
        );
      })}
      <Typography variant="h3" sx={{ mt: 1 }}>
        How lines go to it
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <ChoiceInput control={control} name="end" label="A line ends with" options={[...LINE_ENDS]} />
        <TextInput control={control} name="errors" label="Question for its errors, empty for none" max={60} />
        <QuantityInput control={control} name="patience" label="A reply may take, s" quantity="duration" />
        <QuantityInput control={control} name="pause" label="Pause after a command, s" quantity="duration" />
        <TextInput control={control} name="channels" label="Channels, if not called 1, 2, 3" max={200} />
      </Box>
      <Line
        label="Sent once after connecting, a line each"
        hint="Sent once after connecting, a line each"
        value={values.hello}
        most={2000}
        multiline
        onChange={(hello) => set({ hello })}
      />
      {problems.map((problem) => (
        <Alert key={problem} severity="warning">
          {problem}
        </Alert>
      ))}
    </FormDialog>
  );
}
