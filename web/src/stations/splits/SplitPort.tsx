// One port of a combination as it is typed: what it gave, what happened to it, and the device that took it.
import type { StoredDevice } from '@lastmark/contract/types';
import { parseAmps, parseQuantity } from '@lastmark/core/quantity';
import type { ShareDevice } from '@lastmark/core/run';
import { RETURNS, type Return } from '@lastmark/core/split';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { AmpsField, Choice, QuantityField, typedSi } from '../../parts/fields.tsx';

export interface PortText {
  readonly volts: string;
  readonly amps: string;
  readonly load: 'all it offers' | 'a little';
  readonly happened: 'not watched' | 'stayed on' | 'dropped';
  readonly seconds: string;
  readonly back: Return;
  readonly deviceId: string;
  readonly charge: string;
  readonly tries: string;
}

export const BLANK: PortText = {
  volts: '',
  amps: '',
  load: 'all it offers',
  happened: 'not watched',
  seconds: '',
  back: 'same level',
  deviceId: '',
  charge: '',
  tries: '',
};

const MOST_TRIES = 50;

/** Amps, from amps or from the watts an inline meter shows; null when empty, NaN when it cannot be read. */
export function ampsOf({ amps, volts }: Pick<PortText, 'amps' | 'volts'>): number | null {
  if (amps.trim() === '') return null;
  const parsed = parseAmps(amps, typedSi(volts, 'voltage'));
  return parsed.ok ? parsed.value : Number.NaN;
}

/** Seconds unless a unit is typed; null when empty. */
export function secondsOf(text: string): number | null {
  if (text.trim() === '') return null;
  const parsed = parseQuantity(text, 'duration', 's');
  return parsed.ok ? parsed.value : Number.NaN;
}

/** A count; null when empty, NaN for what is none. */
function triesOf(text: string): number | null {
  if (text.trim() === '') return null;
  const count = Number(text);
  return Number.isInteger(count) && count >= 1 && count <= MOST_TRIES ? count : Number.NaN;
}

/** The device of a port; null for none that was named. */
export const deviceOf = ({ deviceId, charge, tries }: PortText): ShareDevice | null =>
  deviceId === '' ? null : { deviceId, charge: typedSi(charge, 'efficiency'), tries: triesOf(tries) };

interface Props {
  readonly port: string;
  readonly text: PortText;
  readonly onChange: (part: Partial<PortText>) => void;
  /** What it was watched for; null for the port that came last. */
  readonly watched: string | null;
  /** Devices of the bench; null where loads take it. */
  readonly devices: readonly StoredDevice[] | null;
}

export function SplitPort({ port, text, onChange, watched, devices }: Props) {
  const wrongTries = Number.isNaN(triesOf(text.tries));
  return (
    <Box
      role="group"
      aria-label={port}
      sx={{
        display: 'grid',
        gridTemplateColumns: '60px 110px 110px 140px 140px 100px 130px',
        columnGap: 1,
        alignItems: 'start',
      }}
    >
      <Typography sx={{ fontWeight: 600, pt: 1 }}>{port}</Typography>
      <QuantityField
        label={`${port}, V`}
        quantity="voltage"
        value={text.volts}
        onChange={(volts) => onChange({ volts })}
      />
      <AmpsField
        label={`${port}, A`}
        volts={typedSi(text.volts, 'voltage')}
        value={text.amps}
        onChange={(amps) => onChange({ amps })}
      />
      <Choice
        label="Loaded with"
        value={text.load}
        options={['all it offers', 'a little']}
        onChange={(load) => onChange({ load })}
      />
      {watched && (
        <Choice
          label={watched}
          value={text.happened}
          options={['not watched', 'stayed on', 'dropped']}
          onChange={(happened) => onChange({ happened })}
        />
      )}
      {watched && text.happened === 'dropped' && (
        <>
          <QuantityField
            label="for, s"
            quantity="duration"
            value={text.seconds}
            onChange={(seconds) => onChange({ seconds })}
          />
          <Choice label="then" value={text.back} options={RETURNS} onChange={(back) => onChange({ back })} />
        </>
      )}
      {devices && (
        <Box
          sx={{
            gridColumn: '2 / -1',
            display: 'grid',
            gridTemplateColumns: 'minmax(0, 1fr) 150px 170px',
            columnGap: 1,
          }}
        >
          <Choice
            label={`Device on ${port}`}
            value={text.deviceId}
            options={[
              { value: '', label: devices.length > 0 ? 'not named' : 'none at Bench yet' },
              ...devices.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChange={(deviceId) => onChange({ deviceId })}
          />
          <QuantityField
            label="Its battery, %"
            quantity="efficiency"
            value={text.charge}
            onChange={(charge) => onChange({ charge })}
          />
          <TextField
            label="Tries until it started"
            value={text.tries}
            error={wrongTries}
            helperText={wrongTries ? `A count from 1 to ${MOST_TRIES}.` : ' '}
            onChange={(event) => onChange({ tries: event.target.value })}
            slotProps={{ htmlInput: { inputMode: 'numeric', autoComplete: 'off' } }}
          />
        </Box>
      )}
    </Box>
  );
}
