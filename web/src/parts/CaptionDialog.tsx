// What a picture shows, and whether it stands in the report.
import type { AttachmentInfo } from '@lastmark/contract/types';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { api } from '../api/client.ts';
import { apiUrl } from '../api/world.ts';
import { FormDialog } from './form/FormDialog.tsx';
import { TextInput } from './form/inputs.tsx';
import { useTyped } from './form/useTyped.ts';

interface Props {
  readonly file: AttachmentInfo;
  readonly onClose: () => void;
  readonly onKept: () => Promise<unknown>;
}

export function CaptionDialog({ file, onClose, onKept }: Props) {
  const form = useTyped({ caption: file.caption, inReport: file.inReport });
  const { control, values, set } = form;
  const keep = async () => {
    const body = { caption: values.caption.trim(), inReport: values.inReport };
    await api<AttachmentInfo>(`/attachments/${file.id}`, { method: 'PUT', body });
    await onKept();
  };
  return (
    <FormDialog title={file.name} form={form} onSave={keep} onClose={onClose} action="Keep">
      {file.hasThumbnail && (
        <img src={apiUrl(`/attachments/${file.id}/thumbnail`)} alt="" style={{ maxWidth: 240, maxHeight: 240 }} />
      )}
      <TextInput control={control} name="caption" label="What it shows" max={200} more={{ autoFocus: true }} />
      <FormControlLabel
        control={<Checkbox checked={values.inReport} onChange={(event) => set({ inReport: event.target.checked })} />}
        label="Stands in the report"
      />
    </FormDialog>
  );
}
