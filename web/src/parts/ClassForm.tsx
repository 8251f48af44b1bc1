// Overrides a derived nameplate class, with the reason that stays with it.
import { NAMEPLATE_CLASSES, type NameplateClass } from '@lastmark/core/limits';
import Typography from '@mui/material/Typography';
import { FormInPlace } from './form/FormInPlace.tsx';
import { ChoiceInput, TextInput } from './form/inputs.tsx';
import { useTyped } from './form/useTyped.ts';

export interface ClassChoice {
  readonly nameplateClass: NameplateClass;
  readonly reason: string;
}

interface Form {
  chosen: NameplateClass | 'derived';
  reason: string;
}

interface Props {
  readonly derived: { readonly nameplateClass: NameplateClass; readonly why: string };
  readonly chosen: ClassChoice | null;
  /** Where the reason is shown. */
  readonly stays: string;
  /** @param choice null takes the derived one */
  readonly onSave: (choice: ClassChoice | null) => Promise<void>;
  readonly onClose: () => void;
}

export function ClassForm({ derived, chosen: before, stays, onSave, onClose }: Props) {
  const form = useTyped<Form>({ chosen: before?.nameplateClass ?? 'derived', reason: before?.reason ?? '' });
  const { control, values } = form;
  const own = values.chosen !== 'derived';
  return (
    <FormInPlace
      title="Nameplate class"
      form={form}
      onSave={({ chosen, reason }) =>
        onSave(chosen === 'derived' ? null : { nameplateClass: chosen, reason: reason.trim() })
      }
      onClose={onClose}
      action="Save"
      ready={!own || values.reason.trim() !== ''}
    >
      <Typography>{derived.why}</Typography>
      <ChoiceInput
        control={control}
        name="chosen"
        label="Judged as"
        more={{ autoFocus: true }}
        options={[
          { value: 'derived', label: `derived: ${derived.nameplateClass}` },
          ...NAMEPLATE_CLASSES.map((one) => ({ value: one, label: one })),
        ]}
      />
      {own && <TextInput control={control} name="reason" label="Why" max={300} required more={{ helperText: stays }} />}
    </FormInPlace>
  );
}
