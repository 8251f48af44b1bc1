// The wording of one sentence: its figures stand in braces and follow the evidence; or words of one's own.
import {
  type ConclusionLine,
  LANGUAGE_NAMES,
  type Language,
  placesOf,
  SENTENCES,
  sayLine,
  wordingOf,
  wordingRefusal,
} from '@lastmark/core/conclusion';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef } from 'react';
import { ulid } from 'ulid';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { PhrasePicker } from './PhrasePicker.tsx';

export interface Worded {
  /** Place of the line; null for a new one. */
  readonly at: number | null;
  /** Null for new words of one's own. */
  readonly line: ConclusionLine | null;
}

interface Props {
  readonly worded: Worded;
  readonly language: Language;
  readonly onKeep: (line: ConclusionLine) => Promise<unknown>;
  readonly onClose: () => void;
}

export function WordingDialog({ worded: { line }, language, onKeep, onClose }: Props) {
  const own = line === null || line.kind === 'own';
  const form = useTyped({ text: line === null ? '' : (wordingOf(line, language) ?? '') });
  const { control, values, set } = form;
  const field = useRef<HTMLTextAreaElement>(null);
  const figures =
    line?.kind === 'sentence' ? Object.fromEntries(line.seen.map(({ name, words }) => [name, words])) : {};
  const refusal = own ? null : wordingRefusal(values.text, figures);
  const insert = (name: string) => {
    const { selectionStart: from = values.text.length, selectionEnd: to = from } = field.current ?? {};
    set({ text: `${values.text.slice(0, from)}{${name}}${values.text.slice(to)}` });
    field.current?.focus();
  };
  const next = (): ConclusionLine => {
    const text = values.text.trim();
    if (line === null) return { kind: 'own', id: ulid(), text: { [language]: text } };
    if (line.kind === 'own') return { ...line, text: { ...line.text, [language]: text } };
    const { [language]: _, ...others } = line.text;
    return { ...line, text: text === SENTENCES[language][line.sentence] ? others : { ...others, [language]: text } };
  };
  return (
    <FormDialog
      title={line === null ? 'Add own words' : own ? 'Own words' : 'Word the sentence'}
      form={form}
      onSave={() => onKeep(next())}
      onClose={onClose}
      action="Keep"
      ready={own ? values.text.trim() !== '' : refusal === null}
      width="md"
    >
      <TextInput
        control={control}
        name="text"
        label={`In ${LANGUAGE_NAMES[language]}`}
        max={1200}
        more={{
          multiline: true,
          minRows: 3,
          autoFocus: true,
          inputRef: field,
          error: refusal !== null,
          helperText: refusal ?? (own ? 'Marked as own words in every report.' : ' '),
        }}
      />
      <PhrasePicker
        language={language}
        sentence={line?.kind === 'sentence' ? line.sentence : null}
        onTake={(text) => set({ text })}
      />
      {line?.kind === 'sentence' && (
        <>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, alignItems: 'center' }}>
            <Typography variant="body2">Figures:</Typography>
            {Object.entries(figures).map(([name, words]) => (
              <Button key={name} size="small" variant="outlined" onClick={() => insert(name)} title={words}>
                {`{${name}}`} {words.length > 30 ? `${words.slice(0, 29)}…` : words}
              </Button>
            ))}
            {placesOf(SENTENCES[language][line.sentence]).length > 0 && (
              <Button size="small" onClick={() => set({ text: SENTENCES[language][line.sentence] })}>
                As drafted
              </Button>
            )}
          </Box>
          <Typography lang={language} sx={{ fontSize: 16 }} aria-live="polite">
            {refusal === null && sayLine({ ...line, text: { [language]: values.text } }, language)}
          </Typography>
        </>
      )}
    </FormDialog>
  );
}
