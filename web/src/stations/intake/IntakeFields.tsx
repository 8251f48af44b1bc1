// The fields of the intake: what all units share, then what is this unit's own.
import { MARKS, OBTAINED, PLUG_FORMS, SAMPLE_KINDS } from '@lastmark/contract/schemas';
import type { FieldError } from '@lastmark/contract/validate';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Choice, QuantityField } from '../../parts/fields.tsx';
import { CableFields } from './CableFields.tsx';
import { formMessage, type IntakeForm } from './form.ts';
import { PortList } from './PortList.tsx';
import { PriceList } from './PriceList.tsx';

interface Props {
  readonly form: IntakeForm;
  readonly errors: readonly FieldError[];
  readonly onChange: (form: IntakeForm) => void;
}

export function Section({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box
      component="fieldset"
      sx={{ m: 0, mb: 3, p: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}
    >
      <Typography component="legend" variant="h3" sx={{ px: 1 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

const row = (columns: string) => ({ display: 'grid', gridTemplateColumns: columns, gap: 1.5, alignItems: 'start' });

function ModelFields({ form, errors, onChange }: Props) {
  const { model } = form;
  const set = (part: Partial<IntakeForm['model']>) => onChange({ ...form, model: { ...model, ...part } });
  const errorOf = (path: string) => {
    const found = errors.find((error) => error.path === path);
    return found && formMessage(found);
  };
  const text = (name: 'maker' | 'model' | 'inputRating', label: string, required = false) => (
    <TextField
      label={label}
      required={required}
      // Who takes in a charger begins to type at once.
      autoFocus={name === 'maker' && model.maker === '' && model.model === ''}
      value={model[name]}
      error={errorOf(`model.${name}`) !== undefined}
      helperText={errorOf(`model.${name}`) ?? ' '}
      onChange={(event) => set({ [name]: event.target.value })}
    />
  );
  const quantity = (name: 'length' | 'width' | 'height' | 'mass', label: string) => (
    <QuantityField
      label={label}
      quantity={name === 'mass' ? 'mass' : 'length'}
      value={model[name]}
      error={errorOf(`model.${name}`)}
      onChange={(value) => set({ [name]: value })}
    />
  );
  const tick = (name: 'withPlug' | 'plugEarthed' | 'plugBlocksNeighbour', label: string) => (
    <FormControlLabel
      control={<Checkbox checked={model[name]} onChange={(event) => set({ [name]: event.target.checked })} />}
      label={label}
    />
  );
  return (
    <>
      <Section title="What it is (all units)">
        <Box sx={row('1fr 1.4fr 140px')}>
          {text('maker', 'Maker', true)}
          {text('model', 'Model', true)}
          <Choice label="Kind" value={model.kind} options={SAMPLE_KINDS} onChange={(kind) => set({ kind })} />
        </Box>
        {model.kind !== 'cable' && text('inputRating', 'Input rating as printed')}
      </Section>
      {model.kind === 'cable' && (
        <CableFields
          cable={model.cable}
          errorOf={errorOf}
          onChange={(cable) => set({ cable })}
          mass={quantity('mass', 'Mass, g')}
        />
      )}
      {model.kind !== 'cable' && (
        <Section title="Ports, in physical order">
          <PortList
            ports={model.ports}
            errorOf={(index) =>
              errorOf(`model.ports[${index}].label`) ??
              (index === model.ports.length - 1 ? errorOf('model.ports') : undefined)
            }
            onChange={(ports) => set({ ports })}
          />
        </Section>
      )}
      {model.kind !== 'cable' && (
        <Section title="Size, mass, plug, marks">
          <Box sx={row('repeat(4, 1fr)')}>
            {quantity('length', 'Length, mm')}
            {quantity('width', 'Width, mm')}
            {quantity('height', 'Height, mm')}
            {quantity('mass', 'Mass, g')}
          </Box>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 2 }}>
            <Choice
              label="Plug"
              value={model.plugForm}
              options={PLUG_FORMS}
              onChange={(plugForm) => set({ plugForm })}
              more={{ sx: { width: 180 } }}
            />
            {tick('withPlug', 'Size and mass with plug')}
            {tick('plugEarthed', 'Earthed')}
            {tick('plugBlocksNeighbour', 'Blocks the next socket')}
          </Box>
          <Box
            role="group"
            aria-label="Marks on the label"
            sx={{ mt: 1, display: 'flex', flexWrap: 'wrap', columnGap: 2 }}
          >
            {MARKS.map((mark) => (
              <FormControlLabel
                key={mark}
                label={mark}
                control={
                  <Checkbox
                    checked={model.marks.includes(mark)}
                    onChange={(event) =>
                      set({
                        marks: MARKS.filter((one) => (one === mark ? event.target.checked : model.marks.includes(one))),
                      })
                    }
                  />
                }
              />
            ))}
          </Box>
          <Typography variant="body2" color="text.secondary">
            A mark seen is stated, not verified.
          </Typography>
        </Section>
      )}
      <Section title="Prices">
        <PriceList
          prices={model.prices}
          errorOf={(index, field) => errorOf(`model.prices[${index}].${field}`)}
          onChange={(prices) => set({ prices })}
        />
      </Section>
    </>
  );
}

export function UnitFields({ form, onChange }: Pick<Props, 'form' | 'onChange'>) {
  const { unit } = form;
  const set = (part: Partial<IntakeForm['unit']>) => onChange({ ...form, unit: { ...unit, ...part } });
  const text = (
    name: 'revision' | 'serial' | 'dateCode' | 'disclosure' | 'notes',
    label: string,
    max: number,
    lines = 1,
  ) => (
    <TextField
      label={label}
      value={unit[name]}
      multiline={lines > 1}
      minRows={lines}
      onChange={(event) => set({ [name]: event.target.value })}
      slotProps={{ htmlInput: { maxLength: max } }}
    />
  );
  return (
    <Section title="This unit">
      <Box sx={{ ...row('1fr 1fr 1fr 150px'), mb: 1.5 }}>
        {text('serial', 'Serial', 80)}
        {text('revision', 'Revision', 60)}
        {text('dateCode', 'Date code', 40)}
        <Choice label="Obtained" value={unit.obtained} options={OBTAINED} onChange={(obtained) => set({ obtained })} />
      </Box>
      <Box sx={{ display: 'grid', gap: 1.5 }}>
        {unit.obtained === 'lent' && (
          <TextField
            label="Goes back by"
            value={unit.returnBy ?? ''}
            placeholder="2026-12-31"
            onChange={(event) => set({ returnBy: event.target.value === '' ? null : event.target.value })}
            slotProps={{ htmlInput: { maxLength: 10 }, inputLabel: { shrink: true } }}
            sx={{ width: 200 }}
          />
        )}
        {text('disclosure', 'Who gains by this test (printed on the sheet)', 400)}
        {text('notes', 'Notes', 4000, 2)}
      </Box>
    </Section>
  );
}

export function IntakeFields(props: Props) {
  return (
    <>
      <ModelFields {...props} />
      <UnitFields {...props} />
    </>
  );
}
