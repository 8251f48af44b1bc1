// A step beyond the rating of the line: refused, unless someone gives a reason that stays with the reading.
import Typography from '@mui/material/Typography';
import { Caution } from '../../parts/Caution.tsx';
import { FormInPlace } from '../../parts/form/FormInPlace.tsx';
import { TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';

interface Props {
  readonly step: string;
  readonly refusal: string;
  readonly onGive: (reason: string) => void;
  readonly onClose: () => void;
}

export function ReasonForm({ step, refusal, onGive, onClose }: Props) {
  const form = useTyped({ reason: '' });
  return (
    <FormInPlace
      title={`Beyond the line: ${step}`}
      form={form}
      onSave={({ reason }) => onGive(reason.trim())}
      onClose={onClose}
      action="Go beyond"
      ready={form.values.reason.trim() !== ''}
    >
      <Typography sx={{ fontWeight: 600 }}>Beyond the line: {step}</Typography>
      <Typography>{refusal}</Typography>
      <Caution
        line="A line carrying more than it is rated for heats, first at the plugs. Keep it to seconds and stay beside it."
        more="Lay it open, not coiled or covered; stop at smell, smoke or softening. Take a line that carries the current if there is one."
      />
      <TextInput
        control={form.control}
        name="reason"
        label="Reason"
        max={300}
        required
        more={{ autoFocus: true, helperText: 'It is kept with the reading and shown with the result.' }}
      />
    </FormInPlace>
  );
}
