// Issuing a report, or one that amends another: once issued it is never rewritten.
import type { ReportInput, StoredReport } from '@lastmark/contract/types';
import { LANGUAGE_NAMES, LANGUAGES, type Language } from '@lastmark/core/conclusion';
import { FATES, type Fate } from '@lastmark/core/report';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { useNotify } from '../state/notices.tsx';
import { useSettings } from '../state/settings.tsx';

interface Props {
  readonly sampleId: string;
  /** The one it amends; null for a first report. */
  readonly amends: StoredReport | null;
  readonly onClose: () => void;
}

interface Form {
  readonly person: string;
  readonly language: Language;
  readonly kind: 'correction' | 'follow-up';
  readonly fate: Fate;
  readonly reason: string;
}

export function IssueDialog({ sampleId, amends, onClose }: Props) {
  const { person, reportLanguage, change } = useSettings();
  const notify = useNotify();
  const [id] = useState(ulid);
  const form = useTyped<Form>({
    person,
    language: amends?.language ?? reportLanguage,
    kind: 'correction',
    fate: 'held up well',
    reason: '',
  });
  const { control, values } = form;
  const issue = async () => {
    const head = { id, language: values.language, person: values.person.trim() };
    const amending = { ...head, amends: amends?.id ?? '', reason: values.reason.trim() };
    const report: ReportInput = !amends
      ? { kind: 'first', ...head }
      : values.kind === 'follow-up'
        ? { kind: 'follow-up', ...amending, fate: values.fate }
        : { kind: 'correction', ...amending };
    const { code } = await api<StoredReport>(`/samples/${sampleId}/reports`, { method: 'POST', body: { report } });
    change({ person: head.person, reportLanguage: head.language });
    await queryClient.invalidateQueries({ queryKey: ['reports'] });
    notify(`Issued as ${code}.`);
  };
  const ready = values.person.trim() !== '' && (!amends || values.reason.trim() !== '');
  return (
    <FormDialog
      title={amends ? `Amend ${amends.code}` : 'Issue the report'}
      form={form}
      onSave={issue}
      onClose={onClose}
      action="Issue"
      ready={ready}
    >
      {amends && (
        <>
          <ChoiceInput
            control={control}
            name="kind"
            label="What it is"
            options={[
              { value: 'correction', label: 'a correction: figures or words changed' },
              { value: 'follow-up', label: 'a follow-up: what became of the sample' },
            ]}
          />
          {values.kind === 'follow-up' && (
            <ChoiceInput control={control} name="fate" label="The sample" options={FATES} />
          )}
          <TextInput
            control={control}
            name="reason"
            label="What changed, and why"
            max={1000}
            required
            more={{ multiline: true, minRows: 2 }}
          />
        </>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '2fr 1fr', gap: 1.5 }}>
        <TextInput control={control} name="person" label="Issued by" max={80} required />
        <ChoiceInput
          control={control}
          name="language"
          label="In"
          options={LANGUAGES.map((value) => ({ value, label: LANGUAGE_NAMES[value] }))}
        />
      </Box>
      <Typography variant="body2" color="text.secondary">
        {amends
          ? 'The forerunner stays as it is and says that it was amended. Figures that changed are named by themselves.'
          : 'Once issued it stays as it is, with a code it is known by. What changes later is an amendment.'}
      </Typography>
    </FormDialog>
  );
}
