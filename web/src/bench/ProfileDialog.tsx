// A profile: the command of every action of a class. What ships is copied; a copy is changed.
import type { InstrumentProfileInput, StoredInstrumentProfile } from '@lastmark/contract/types';
import { ACTIONS, profileProblems } from '@lastmark/core/instrument';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';

interface Form {
  title: string;
  commands: Record<string, string>;
}

interface Props {
  readonly profile: StoredInstrumentProfile;
  readonly onClose: () => void;
}

export function ProfileDialog({ profile, onClose }: Props) {
  const form = useTyped<Form>({
    title: profile.builtIn ? `${profile.title}, copy` : profile.title,
    commands: Object.fromEntries(profile.commands.map(({ action, command }) => [action, command])),
  });
  const { control, set } = form;
  const { title, commands } = form.values;
  const filled = Object.fromEntries(Object.entries(commands).filter(([, command]) => command.trim() !== ''));
  const problems = profileProblems({ title, class: profile.class, commands: filled });
  const save = async () => {
    const body: InstrumentProfileInput = {
      title: title.trim(),
      class: profile.class,
      commands: Object.entries(filled).map(([action, command]) => ({ action, command: command.trim() })),
    };
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
      ready={problems.length === 0 && title.trim() !== ''}
    >
      <TextInput control={control} name="title" label="Name" max={80} required />
      <Typography variant="body2" color="text.secondary">
        Values stand in braces, in SI: CURR {'{amps}'}. Leave an action empty that the instrument cannot do.
      </Typography>
      {Object.entries(ACTIONS[profile.class]).map(([action, shape]) => (
        <Box key={action} sx={{ display: 'grid', gridTemplateColumns: '1fr 1.2fr', gap: 1, alignItems: 'center' }}>
          <span>
            {shape.title}
            {shape.takes.length > 0 && (
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {' '}
                {shape.takes.map((name) => `{${name}}`).join(' ')}
              </Box>
            )}
          </span>
          <TextField
            value={commands[action] ?? ''}
            onChange={(event) => set({ commands: { ...commands, [action]: event.target.value } })}
            slotProps={{
              htmlInput: { 'aria-label': `Command to ${shape.title}`, maxLength: 200, spellCheck: false },
            }}
          />
        </Box>
      ))}
      {problems.map((problem) => (
        <Alert key={problem} severity="warning">
          {problem}
        </Alert>
      ))}
    </FormDialog>
  );
}
