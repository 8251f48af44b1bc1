// A step is left out with a reason, which the record keeps.
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';

interface Props {
  readonly title: string;
  readonly heading?: string;
  readonly label?: string;
  readonly action?: string;
  readonly onSkip: (reason: string) => void;
  readonly onClose: () => void;
}

export function SkipDialog(props: Props) {
  const { title, heading = 'Leave out', label = 'Reason', action = 'Leave it out', onSkip, onClose } = props;
  const form = useTyped({ reason: '' });
  return (
    <FormDialog
      title={`${heading}: ${title}`}
      form={form}
      onSave={({ reason }) => onSkip(reason.trim())}
      onClose={onClose}
      action={action}
      ready={form.values.reason.trim() !== ''}
    >
      <TextInput control={form.control} name="reason" label={label} max={200} required more={{ autoFocus: true }} />
    </FormDialog>
  );
}
