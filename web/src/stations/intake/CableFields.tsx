// The intake of what sits in a line: its ends, length, and how it is made.
import { type CableFacts, cableWords, ENDS, RELIEFS } from '@lastmark/core/cable';
import { ELEMENT_KINDS } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { CableFace } from '../../parts/CableFace.tsx';
import { Choice } from '../../parts/fields.tsx';
import type { CableText } from './form.ts';
import { Section } from './IntakeFields.tsx';

interface Props {
  readonly cable: CableText;
  readonly errorOf: (path: string) => string | undefined;
  readonly onChange: (cable: CableText) => void;
  readonly mass: ReactNode;
}

const STIFF: readonly { value: CableText['stiff']; label: string }[] = [
  { value: '', label: 'not measured' },
  { value: 'droop', label: 'how far it droops' },
  { value: 'bend radius', label: 'radius it bends to' },
];

export function CableFields({ cable, errorOf, onChange, mass }: Props) {
  const set = (part: Partial<CableText>) => onChange({ ...cable, ...part });
  const text = (name: 'length' | 'over' | 'droop' | 'radius' | 'pack', label: string, path: string) => (
    <TextField
      label={label}
      value={cable[name]}
      error={errorOf(path) !== undefined}
      helperText={errorOf(path) ?? ' '}
      onChange={(event) => set({ [name]: event.target.value })}
      slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
    />
  );
  const drawn: CableFacts = {
    form: cable.form,
    ends: [cable.near, cable.far],
    length: null,
    braid: cable.braid,
    strainRelief: cable.strainRelief,
    stiffness: null,
    pack: 1,
  };
  return (
    <Section title="What sits in the line">
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'center', mb: 1.5 }}>
        <CableFace cable={drawn} width={260} />
        <Typography variant="body2" color="text.secondary">
          {cableWords(drawn)}. What it promises goes to Claims: watts, data rate, bends.
        </Typography>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(190px, 1fr))', gap: 1.5 }}>
        <Choice label="It is a" value={cable.form} options={ELEMENT_KINDS} onChange={(form) => set({ form })} />
        <Choice label="At the charger" value={cable.near} options={ENDS} onChange={(near) => set({ near })} />
        <Choice label="At the device" value={cable.far} options={ENDS} onChange={(far) => set({ far })} />
        <Choice
          label="Strain relief"
          value={cable.strainRelief}
          options={RELIEFS}
          onChange={(strainRelief) => set({ strainRelief })}
        />
        {text('length', 'Length, m', 'model.cable.length')}
        {mass}
        {text('pack', 'How many in a pack', 'model.cable.pack')}
        <FormControlLabel
          control={<Checkbox checked={cable.braid} onChange={(event) => set({ braid: event.target.checked })} />}
          label="Braided"
        />
        <Choice label="Stiffness by" value={cable.stiff} options={STIFF} onChange={(stiff) => set({ stiff })} />
        {cable.stiff === 'droop' && text('over', 'Free length, mm', 'model.cable.stiffness.over')}
        {cable.stiff === 'droop' && text('droop', 'Droop, mm', 'model.cable.stiffness.droop')}
        {cable.stiff === 'bend radius' && text('radius', 'Radius, mm', 'model.cable.stiffness.radius')}
      </Box>
    </Section>
  );
}
