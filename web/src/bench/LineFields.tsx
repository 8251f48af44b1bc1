// What sits in the line between port and load, in order, each with its rating and where that comes from.
import { formatPlain } from '@lastmark/core/quantity';
import { ELEMENT_KINDS, type LineElement, RATING_BASES } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Choice, QuantityField, typedSi } from '../parts/fields.tsx';
import { calibratedWords, ShelfElement } from './ShelfElement.tsx';

export interface ElementText extends Pick<LineElement, 'sampleId' | 'calibrated'> {
  readonly kind: LineElement['kind'];
  readonly name: string;
  readonly amps: string;
  readonly volts: string;
  readonly basis: LineElement['basis'];
}

export const toElementText = ({ amps, volts, ...rest }: LineElement): ElementText => ({
  ...rest,
  amps: amps === null ? '' : formatPlain(amps, 'current'),
  volts: volts === null ? '' : formatPlain(volts, 'voltage'),
});

export const fromElementText = ({ amps, volts, name, ...rest }: ElementText): LineElement => ({
  ...rest,
  name: name.trim(),
  amps: typedSi(amps, 'current'),
  volts: typedSi(volts, 'voltage'),
});

const NEW: ElementText = { kind: 'cable', name: '', amps: '', volts: '', basis: 'not stated' };

interface Props {
  readonly elements: readonly ElementText[];
  readonly onChange: (elements: readonly ElementText[]) => void;
}

export function LineFields({ elements, onChange }: Props) {
  const set = (index: number, part: Partial<ElementText>) =>
    onChange(elements.map((one, at) => (at === index ? { ...one, ...part } : one)));
  return (
    <Box role="group" aria-label="In the line, from the port">
      <Typography variant="h3">In the line, from the port</Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
        Every cable, adapter, data blocker and meter. A step beyond a rating is refused; nothing stated counts as 3 A at
        20 V.
      </Typography>
      {elements.map((element, index) => (
        <Box
          // biome-ignore lint/suspicious/noArrayIndexKey: elements have no identity but their place
          key={index}
          sx={{ display: 'grid', gridTemplateColumns: '130px 1fr 84px 84px 130px auto', gap: 1, mb: 1 }}
        >
          <Choice label="What" value={element.kind} options={ELEMENT_KINDS} onChange={(kind) => set(index, { kind })} />
          <TextField
            label="Name"
            required
            value={element.name}
            onChange={(event) => set(index, { name: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 60 } }}
          />
          <QuantityField
            label="Rated A"
            quantity="current"
            value={element.amps}
            onChange={(amps) => set(index, { amps })}
          />
          <QuantityField
            label="Rated V"
            quantity="voltage"
            value={element.volts}
            onChange={(volts) => set(index, { volts })}
          />
          <Choice
            label="Rated by"
            value={element.basis}
            options={RATING_BASES}
            onChange={(basis) => set(index, { basis })}
          />
          <Button
            size="small"
            aria-label={`Remove ${element.name || element.kind} from the line`}
            onClick={() => onChange(elements.filter((_, at) => at !== index))}
          >
            Remove
          </Button>
          {element.calibrated && (
            <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1', mt: -0.5 }}>
              From the shelf: {calibratedWords(element)}.
            </Typography>
          )}
        </Box>
      ))}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'start' }}>
        <Button
          size="small"
          variant="outlined"
          onClick={() => onChange([...elements, NEW])}
          disabled={elements.length >= 12}
        >
          Add to the line
        </Button>
        <ShelfElement onAdd={(element) => onChange([...elements, element])} />
      </Box>
    </Box>
  );
}
