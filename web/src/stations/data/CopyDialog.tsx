// Copies of one kind: what was copied, which way, over which computer, and how long each took.
import type { StoredCableRun } from '@lastmark/contract/types';
import { DIRECTIONS } from '@lastmark/core/cable';
import { rateWords, typedBytes, typedSeconds } from '@lastmark/core/copy';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { ulid } from 'ulid';
import { type CableFootForm, CableFormFoot, WHOLE } from '../../cables/CableFormFoot.tsx';
import { countIn, unread } from '../../cables/typed.ts';
import { useAddCopies } from '../../cables/useCableRuns.ts';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { takenOf, toTaken } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';
import { LINKS, linkOf, linkValue } from './copyForm.ts';

interface Form extends CableFootForm {
  readonly mix: string;
  readonly direction: (typeof DIRECTIONS)[number];
  readonly size: string;
  /** Times of repeats, with blanks or semicolons between them. */
  readonly times: string;
  readonly host: string;
  readonly link: string;
  readonly hostLink: string;
  readonly errors: string;
  readonly fellBack: 'no' | 'yes';
  /** Ids of the copies, so that sent again they count once. */
  readonly ids: readonly string[];
}

interface Props {
  readonly run: StoredCableRun | null;
  readonly onClose: () => void;
}

const sizeText = (bytes: number): string => (bytes % 1e6 === 0 ? `${bytes / 1e9} GB` : `${bytes} bytes`);

export function CopyDialog({ run, onClose }: Props) {
  const { dossier, verdict } = useSample();
  const corrected = run?.kind === 'copy' ? run : null;
  const last = dossier.cableRuns.findLast((one) => one.kind === 'copy');
  const from = corrected ?? last ?? null;
  const form = useTyped<Form>(
    {
      mix: from?.mix ?? 'one file of 8 GB',
      direction: from?.direction ?? 'to the device',
      size: from ? sizeText(from.bytes) : '8 GB',
      times: corrected ? `${corrected.seconds} s` : '',
      host: from?.host ?? '',
      link: linkValue(corrected?.link ?? null),
      hostLink: linkValue(from?.hostLink ?? null),
      errors: String(corrected?.errors ?? 0),
      fellBack: corrected?.fellBack ? 'yes' : 'no',
      bends: String(corrected?.bends ?? verdict.results.bends.done),
      note: corrected?.note ?? '',
      taken: corrected ? toTaken(corrected.takenAt) : '',
      ids: Array.from({ length: 20 }, () => ulid()),
    },
    corrected ? undefined : `copy-${dossier.sample.id}`,
  );
  const { control, values } = form;
  const add = useAddCopies(corrected);
  const bytes = typedBytes(values.size);
  const parts = values.times.split(/[;\n]|\s{2,}|,\s|(?<=\d)\s+(?=\d)/).filter((part) => part.trim() !== '');
  const times = parts.map((part) => typedSeconds(part));
  const errors = countIn(values.errors);
  const bends = countIn(values.bends);
  const ready =
    times.length > 0 &&
    times.length <= (corrected ? 1 : values.ids.length) &&
    [bytes, errors, bends, ...times].every(Number.isFinite) &&
    values.mix.trim() !== '' &&
    values.host.trim() !== '';
  const rates = [bytes, ...times].every(Number.isFinite)
    ? times.map((seconds) => rateWords((bytes * 8) / seconds))
    : [];
  const save = () =>
    add(
      times.map((seconds, at) => ({
        id: values.ids[at] ?? ulid(),
        mix: values.mix.trim(),
        direction: values.direction,
        bytes,
        seconds,
        host: values.host.trim(),
        link: linkOf(values.link),
        hostLink: linkOf(values.hostLink),
        // Failures are told once for all of them.
        errors: at === 0 ? errors : 0,
        fellBack: at === 0 && values.fellBack === 'yes',
        bends,
        note: values.note.trim(),
      })),
      takenOf(values.taken),
    );
  return (
    <FormDialog
      title={corrected ? 'Correct the copy' : 'Enter copies'}
      form={form}
      onSave={save}
      onClose={onClose}
      action="Keep"
      ready={ready}
      width="md"
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1.4fr 1fr 1fr', gap: 1.5 }}>
        <TextInput control={control} name="mix" label="Files" max={80} required />
        <ChoiceInput control={control} name="direction" label="Copied" options={DIRECTIONS} />
        <TextInput
          control={control}
          name="size"
          label="Size, GB"
          max={30}
          required
          more={unread(values.size, bytes, 'A size, as 8 GB or 700 MB.')}
        />
      </Box>
      <TextInput
        control={control}
        name="times"
        label={corrected ? 'Time, s' : 'Times, s; one a copy'}
        max={200}
        required
        more={{
          autoFocus: true,
          placeholder: '41.2 40.8 43.0, or 0:41; 0:43',
          error: times.some(Number.isNaN),
          helperText: times.some(Number.isNaN)
            ? `“${parts[times.findIndex(Number.isNaN)]?.trim()}” is no time: type 41.2, or 0:41.`
            : rates.length > 0
              ? rates.join(' · ')
              : 'Empty the cache between copies: a second copy may come from memory.',
        }}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1.4fr 1fr 1fr', gap: 1.5 }}>
        <TextInput control={control} name="host" label="Computer, drive and ports" max={120} required />
        <ChoiceInput control={control} name="link" label="Link the host told" options={LINKS} />
        <ChoiceInput control={control} name="hostLink" label="Its link over a better cable" options={LINKS} />
        <TextInput
          control={control}
          name="errors"
          label="Copies not the same"
          max={8}
          more={unread(values.errors, errors, WHOLE)}
        />
        <ChoiceInput control={control} name="fellBack" label="Fell back to a slower link" options={['no', 'yes']} />
      </Box>
      <CableFormFoot control={control} taken={values.taken} />
      {!ready && (
        <Typography variant="body2" color="text.secondary">
          Not all there yet: size, times and the computer are needed.
        </Typography>
      )}
    </FormDialog>
  );
}
