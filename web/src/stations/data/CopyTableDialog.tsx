// Copies from a table, pasted or taken from a file; what its lines do not say is said once for all of them.
import { type CopyRun, DIRECTIONS } from '@lastmark/core/cable';
import { rateWords, readCopies } from '@lastmark/core/copy';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { ulid } from 'ulid';
import { type CableFootForm, CableFormFoot } from '../../cables/CableFormFoot.tsx';
import { countIn } from '../../cables/typed.ts';
import { useAddCopies } from '../../cables/useCableRuns.ts';
import { FileButton } from '../../parts/FileButton.tsx';
import { fileText } from '../../parts/fileText.ts';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { takenOf } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';

interface Form extends CableFootForm {
  readonly pasted: string;
  readonly mix: string;
  readonly direction: (typeof DIRECTIONS)[number];
  readonly host: string;
  /** Ids of the copies, so that sent again they count once. */
  readonly ids: readonly string[];
}

/** As many as anyone copies in a day. */
const MOST = 200;

export function CopyTableDialog({ onClose }: { readonly onClose: () => void }) {
  const { dossier, verdict } = useSample();
  const last = dossier.cableRuns.findLast((one): one is CopyRun => one.kind === 'copy');
  const form = useTyped<Form>(
    {
      pasted: '',
      mix: last?.mix ?? 'one file of 8 GB',
      direction: 'to the device',
      host: last?.host ?? '',
      bends: String(verdict.results.bends.done),
      note: '',
      taken: '',
      ids: Array.from({ length: MOST }, () => ulid()),
    },
    `copies-${dossier.sample.id}`,
  );
  const { control, values, set } = form;
  const add = useAddCopies();
  const table = values.pasted.trim() === '' ? null : readCopies(values.pasted);
  const copies = (table?.ok ? table.copies : []).map((one) => ({
    ...one,
    mix: one.mix ?? values.mix.trim(),
    direction: one.direction ?? values.direction,
    host: one.host ?? values.host.trim(),
    note: one.note || values.note.trim(),
  }));
  const bends = countIn(values.bends);
  const ready =
    copies.length > 0 &&
    copies.length <= MOST &&
    Number.isFinite(bends) &&
    copies.every(({ mix, host }) => mix !== '' && host !== '');
  const save = () =>
    add(
      copies.map((one, at) => ({ ...one, bends, id: values.ids[at] ?? ulid() })),
      takenOf(values.taken),
    );
  const help =
    table === null
      ? 'With heads: files, direction, size_GB, time_s or MB/s, host, link, errors. A line a copy.'
      : table.ok
        ? copies.length > MOST
          ? `${copies.length} copies; take ${MOST} at a time.`
          : [`${copies.length} ${copies.length === 1 ? 'copy' : 'copies'}.`, ...table.assumed].join(' ')
        : `Line ${table.line}: ${table.reason}`;
  return (
    <FormDialog
      title="Copies from a table"
      form={form}
      onSave={save}
      onClose={onClose}
      action="Keep"
      ready={ready}
      width="md"
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1.5, alignItems: 'start' }}>
        <TextField
          autoFocus
          multiline
          minRows={4}
          maxRows={8}
          label="Table of copies"
          placeholder={'files; direction; size_GB; time_s; host\none film; to the device; 8; 204.2; laptop, left port'}
          value={values.pasted}
          error={table?.ok === false || copies.length > MOST}
          helperText={help}
          onChange={(event) => set({ pasted: event.target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <FileButton
          label="Table of copies as a file"
          accept=".csv,.tsv,.txt,text/csv"
          onFiles={([file]) => file && void fileText(file).then((pasted) => set({ pasted }))}
          button={{ variant: 'outlined' }}
        >
          Open a file
        </FileButton>
      </Box>
      {copies.length > 0 && (
        <Box sx={{ maxHeight: 220, overflow: 'auto' }}>
          <QuietTable<(typeof copies)[number] & { readonly at: number }>
            label="Copies read"
            rows={copies.slice(0, MOST).map((one, at) => ({ ...one, at }))}
            rowKey={({ at }) => String(at)}
            exception={({ errors, fellBack }) => errors > 0 || fellBack}
            columns={[
              { head: 'Files', cell: ({ mix, direction }) => `${mix}, ${direction}` },
              { head: 'Over', cell: ({ host }) => host, empty: 'say it below' },
              {
                head: 'Size',
                unit: 'GB',
                number: true,
                cell: ({ bytes }) => String(Number((bytes / 1e9).toPrecision(4))),
              },
              { head: 'Took', unit: 's', number: true, cell: ({ seconds }) => seconds.toFixed(1) },
              {
                head: 'Rate',
                number: true,
                cell: ({ bytes, seconds }) => rateWords((bytes * 8) / seconds),
              },
              { head: 'Failed', number: true, cell: ({ errors }) => String(errors) },
            ]}
          />
        </Box>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1.4fr', gap: 1.5 }}>
        <TextInput control={control} name="mix" label="Files, where a line does not say" max={80} />
        <ChoiceInput control={control} name="direction" label="Copied, where it does not say" options={DIRECTIONS} />
        <TextInput control={control} name="host" label="Computer, drive and ports, where it does not say" max={120} />
      </Box>
      <CableFormFoot control={control} taken={values.taken} />
    </FormDialog>
  );
}
