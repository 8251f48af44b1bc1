// Issuing a report, or one that amends another: once issued it is never rewritten.
import type { ReportInput, StoredReport } from '@lastmark/contract/types';
import { LANGUAGE_NAMES, LANGUAGES, type Language } from '@lastmark/core/conclusion';
import { FATES, type Fate, type LeavableId, MOST_OTHERS } from '@lastmark/core/report';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { apiUrl } from '../api/world.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import type { Chosen } from '../parts/SampleField.tsx';
import { useNotify } from '../state/notices.tsx';
import { useSettings } from '../state/settings.tsx';
import { SectionChoice } from './SectionChoice.tsx';

interface Props {
  readonly sampleId: string;
  readonly kind: string;
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
  readonly saw: 'unstated' | 'saw' | 'did not';
  readonly leaves: readonly LeavableId[];
  readonly others: readonly Chosen[];
}

const TAG_LENGTH = 6;
/** A sample of the forerunner, by its tag: what is printed on its label. */
const byTag = (id: string, kind: string): Chosen => ({ id, name: id.slice(-TAG_LENGTH), kind: kind as Chosen['kind'] });

const draftAddress = (sampleId: string, { language, leaves, others }: Form): string => {
  const query = new URLSearchParams({ language });
  if (leaves.length > 0) query.set('leaves', leaves.join(','));
  if (others.length > 0) query.set('otherSamples', others.map(({ id }) => id).join(','));
  return apiUrl(`/samples/${sampleId}/report.pdf?${query}`);
};

export function IssueDialog({ sampleId, kind, amends, onClose }: Props) {
  const { person, reportLanguage, change } = useSettings();
  const notify = useNotify();
  const [id] = useState(ulid);
  const form = useTyped<Form>({
    person,
    language: amends?.language ?? reportLanguage,
    kind: 'correction',
    fate: 'held up well',
    reason: '',
    saw: 'unstated',
    leaves: amends?.leaves ?? [],
    others: (amends?.otherSamples ?? []).map((other) => byTag(other, kind)),
  });
  const { control, values, set } = form;
  const issue = async () => {
    const head = {
      id,
      language: values.language,
      person: values.person.trim(),
      leaves: [...values.leaves],
      otherSamples: values.others.map((other) => other.id),
      ...(values.saw === 'unstated' ? {} : { makerSaw: values.saw === 'saw' }),
    };
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
  const ready =
    values.person.trim() !== '' && values.others.length <= MOST_OTHERS && (!amends || values.reason.trim() !== '');
  return (
    <FormDialog
      title={amends ? `Amend ${amends.code}` : 'Issue the report'}
      form={form}
      onSave={issue}
      onClose={onClose}
      action="Issue"
      ready={ready}
      width="md"
      more={
        <Button href={draftAddress(sampleId, values)} target="_blank" sx={{ mr: 'auto' }}>
          Look at it as a draft
        </Button>
      }
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
      <Box sx={{ display: 'grid', gridTemplateColumns: '3fr 2fr 3fr', gap: 1.5 }}>
        <TextInput control={control} name="person" label="Issued by" max={80} required />
        <ChoiceInput
          control={control}
          name="language"
          label="In"
          options={LANGUAGES.map((value) => ({ value, label: LANGUAGE_NAMES[value] }))}
        />
        <ChoiceInput
          control={control}
          name="saw"
          label="The maker, before"
          options={[
            { value: 'unstated', label: 'nothing is said' },
            { value: 'saw', label: 'saw the text' },
            { value: 'did not', label: 'did not see it' },
          ]}
        />
      </Box>
      <SectionChoice kind={kind} leaves={values.leaves} others={values.others} sampleId={sampleId} onChange={set} />
      {values.others.length > MOST_OTHERS && (
        <Typography color="error">At most {MOST_OTHERS} other samples stand in one report.</Typography>
      )}
      <Typography variant="body2" color="text.secondary">
        {amends
          ? 'The forerunner stays as it is and says that it was amended. Figures that changed are named by themselves.'
          : 'Once issued it stays as it is, with a code it is known by. What changes later is an amendment.'}
      </Typography>
    </FormDialog>
  );
}
