// What people say of a sample: notes and questions about it, its claims and its reports, with answers.
import type { Remark, RemarkInput } from '@lastmark/contract/together';
import { describePromise } from '@lastmark/core/claim';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ulid } from 'ulid';
import { namesQuery, remarksQuery, sayRemark } from '../api/remarks.ts';
import { useMe } from '../api/who.ts';
import { FormInPlace } from '../parts/form/FormInPlace.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { momentText } from '../parts/moment.ts';
import { isOpenQuestion, type Thread, threadsOf } from '../parts/remarkWords.ts';
import { reportsQuery } from '../reports/queries.ts';
import { useSample } from '../state/sample.tsx';

const NOBODY = 'nobody in particular';

/** What a remark may be about, as people call it. */
function useAbouts(): readonly { readonly value: string; readonly label: string }[] {
  const { dossier } = useSample();
  const { data } = useQuery(reportsQuery(dossier.sample.id));
  return [
    { value: `sample ${dossier.sample.id}`, label: 'the sample' },
    ...dossier.claims.map(({ id, promise }) => ({ value: `claim ${id}`, label: describePromise(promise) })),
    ...(data?.items ?? []).map(({ id, code }) => ({ value: `report ${id}`, label: `report ${code}` })),
  ];
}

function SayForm({ question, onClose }: { readonly question: Remark | null; readonly onClose: () => void }) {
  const { dossier } = useSample();
  const { id: sampleId } = dossier.sample;
  const abouts = useAbouts();
  const me = useMe();
  const { data: names } = useQuery({ ...namesQuery, enabled: me !== null });
  const others = (names?.items ?? []).filter(({ id }) => id !== me?.id);
  const form = useTyped(
    { id: ulid(), about: `sample ${sampleId}`, kind: 'note', text: '', mention: '' },
    `remark-${sampleId}-${question?.id ?? 'new'}`,
  );
  const { control, values } = form;
  const save = async ({ id, about, kind, text, mention }: typeof values) => {
    const [what = 'sample', aboutId = sampleId] = about.split(' ');
    await sayRemark(sampleId, {
      id,
      about: question?.about ?? (what as RemarkInput['about']),
      aboutId: question?.aboutId ?? aboutId,
      kind: question ? 'answer' : (kind as RemarkInput['kind']),
      text: text.trim(),
      mentions: mention ? [mention] : question?.author ? [question.author] : [],
      answers: question?.id ?? null,
    });
  };
  return (
    <FormInPlace
      title={question ? 'Answer the question' : 'Say something'}
      form={form}
      action={question ? 'Answer' : 'Say it'}
      ready={values.text.trim() !== ''}
      onSave={save}
      onClose={onClose}
    >
      {!question && (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(180px, 1fr))', gap: 1.5 }}>
          <ChoiceInput control={control} name="about" label="About" options={abouts} />
          <ChoiceInput
            control={control}
            name="kind"
            label="It is"
            options={[
              { value: 'note', label: 'a note' },
              { value: 'question', label: 'a question' },
            ]}
          />
          {/* There whoever else is known by then: fields that move from under a finger are not pressed. */}
          {me && (
            <ChoiceInput
              control={control}
              name="mention"
              label="For"
              options={[{ value: '', label: NOBODY }, ...others.map(({ id, name }) => ({ value: id, label: name }))]}
            />
          )}
        </Box>
      )}
      <TextInput
        control={control}
        name="text"
        label={question ? 'Answer' : 'What there is to say'}
        max={2000}
        required
        more={{ multiline: true, minRows: 2, autoFocus: true }}
      />
    </FormInPlace>
  );
}

function Said({ remark, about }: { readonly remark: Remark; readonly about: string | null }) {
  return (
    <>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
        {remark.who}, {momentText(remark.madeAt)}
        {about && ` · about ${about}`}
      </Box>
      <Box sx={{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}>{remark.text}</Box>
    </>
  );
}

function ThreadItem({ thread, onAnswer }: { readonly thread: Thread; readonly onAnswer: (question: Remark) => void }) {
  const { remark, answers } = thread;
  const abouts = useAbouts();
  const about = abouts.find(({ value }) => value === `${remark.about} ${remark.aboutId}`)?.label ?? remark.about;
  const open = isOpenQuestion(thread);
  return (
    <Box component="li" sx={{ py: 1, borderTop: 1, borderColor: 'divider', '&:first-of-type': { borderTop: 0 } }}>
      {open && <Box sx={{ color: 'warning.main', fontWeight: 600 }}>◆ Question</Box>}
      <Said remark={remark} about={remark.about === 'sample' ? null : about} />
      {answers.map((answer) => (
        <Box key={answer.id} sx={{ mt: 0.75, pl: 2, borderLeft: 3, borderColor: 'divider' }}>
          <Said remark={answer} about={null} />
        </Box>
      ))}
      {remark.kind === 'question' && (
        <Button size="small" onClick={() => onAnswer(remark)} aria-label={`Answer: ${remark.text.slice(0, 60)}`}>
          {open ? 'Answer' : 'Answer once more'}
        </Button>
      )}
    </Box>
  );
}

export function Remarks({ sampleId }: { readonly sampleId: string }) {
  const { data } = useQuery(remarksQuery(sampleId));
  const [open, setOpen] = useState<Remark | 'new' | null>(null);
  const threads = threadsOf(data?.items ?? []);
  return (
    <Box component="section" aria-label="Remarks" sx={{ mb: 2.5 }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 0.75 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Remarks
        </Typography>
        <Button variant="outlined" onClick={() => setOpen('new')}>
          Say something
        </Button>
      </Box>
      {open !== null && (
        <SayForm
          key={open === 'new' ? 'new' : open.id}
          question={open === 'new' ? null : open}
          onClose={() => setOpen(null)}
        />
      )}
      {threads.length > 0 ? (
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, maxWidth: 860 }}>
          {threads.map((thread) => (
            <ThreadItem key={thread.remark.id} thread={thread} onAnswer={setOpen} />
          ))}
        </Box>
      ) : (
        <Typography color="text.secondary">
          {data ? 'Nobody said anything. A question stands at Today until it is answered.' : ' '}
        </Typography>
      )}
    </Box>
  );
}
