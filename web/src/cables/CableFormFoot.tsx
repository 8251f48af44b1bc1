// What the form of everything done with a cable ends with: how often it was bent before, a note, when.
import Box from '@mui/material/Box';
import { type Control, type FieldValues, useWatch } from 'react-hook-form';
import { TextInput } from '../parts/form/inputs.tsx';
import { TakenInput } from '../parts/TakenInput.tsx';
import { countIn, unread } from './typed.ts';

export interface CableFootForm {
  readonly bends: string;
  readonly note: string;
  /** When it was done, as typed; empty for now. */
  readonly taken: string;
}

export const WHOLE = 'A whole number, as 2000.';

interface Props<Form extends CableFootForm & FieldValues> {
  readonly control: Control<Form>;
  readonly taken: string;
}

export function CableFormFoot<Form extends CableFootForm & FieldValues>({ control, taken }: Props<Form>) {
  // Every form of a cable has this foot, whatever else it has.
  const own = control as unknown as Control<CableFootForm>;
  const bends = useWatch({ control: own, name: 'bends' });
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '130px minmax(0, 1fr) 220px', gap: 1.5 }}>
      <TextInput control={own} name="bends" label="Bends before" max={12} more={unread(bends, countIn(bends), WHOLE)} />
      <TextInput control={own} name="note" label="Note" max={400} />
      <TakenInput control={own} taken={taken} />
    </Box>
  );
}
