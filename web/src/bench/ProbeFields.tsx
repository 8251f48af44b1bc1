// How ripple is probed on a rig: asked once, and stands beside every figure.
import type { Probe } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Control, FieldPath, FieldValues } from 'react-hook-form';
import { typedSi } from '../parts/fields.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';

export interface ProbeText {
  tip: string;
  capacitors: string;
  /** MHz */
  bandwidth: string;
  coupling: Probe['coupling'];
  attenuation: string;
  floor: string;
  floorRms: string;
}

const MEGA = 1e6;
const millivolts = (volts: number | null | undefined): string =>
  volts === null || volts === undefined ? '' : `${Number((volts * 1000).toPrecision(4))} mV`;

export const toProbeText = (probe: Probe | null | undefined): ProbeText => ({
  tip: probe?.tip ?? '',
  capacitors: probe?.capacitors ?? '',
  bandwidth: probe?.bandwidth ? String(probe.bandwidth / MEGA) : '',
  coupling: probe?.coupling ?? 'AC',
  attenuation: String(probe?.attenuation ?? 1),
  floor: millivolts(probe?.floor),
  floorRms: millivolts(probe?.floorRms),
});

const number = (text: string): number | null => (text.trim() === '' ? null : Number(text.replace(',', '.')));

/** Null where nothing is stated. */
export function fromProbeText({
  tip,
  capacitors,
  bandwidth,
  coupling,
  attenuation,
  floor,
  floorRms,
}: ProbeText): Probe | null {
  const stated = [tip, capacitors, bandwidth, floor, floorRms].some((text) => text.trim() !== '');
  if (!stated) return null;
  const megahertz = number(bandwidth);
  return {
    tip: tip.trim(),
    capacitors: capacitors.trim(),
    bandwidth: megahertz === null ? null : megahertz * MEGA,
    coupling,
    attenuation: number(attenuation) ?? 1,
    floor: typedSi(floor, 'voltage'),
    floorRms: typedSi(floorRms, 'voltage'),
  };
}

export function ProbeFields<Form extends FieldValues & { probe: ProbeText }>({
  control,
}: {
  readonly control: Control<Form>;
}) {
  const at = (name: keyof ProbeText) => `probe.${name}` as FieldPath<Form>;
  return (
    <Box component="details" sx={{ border: 1, borderColor: 'divider', borderRadius: 1, px: 1.5, py: 1 }}>
      <Box component="summary" sx={{ cursor: 'pointer', fontWeight: 600 }}>
        Probe for ripple
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5, mt: 1.5 }}>
        <TextInput
          control={control}
          name={at('tip')}
          label="Tip"
          max={80}
          more={{ placeholder: 'tip and barrel, 2 cm' }}
        />
        <TextInput
          control={control}
          name={at('capacitors')}
          label="Capacitors at it"
          max={80}
          more={{ placeholder: '0.1 µF ‖ 10 µF' }}
        />
        <TextInput
          control={control}
          name={at('bandwidth')}
          label="Bandwidth, MHz"
          max={12}
          more={{ placeholder: '20' }}
        />
        <ChoiceInput control={control} name={at('coupling')} label="Coupling" options={['AC', 'DC']} />
        <TextInput control={control} name={at('attenuation')} label="Attenuation, ×" max={8} />
        <span />
        <QuantityInput control={control} name={at('floor')} label="Floor p-p, with mV" quantity="voltage" />
        <QuantityInput control={control} name={at('floorRms')} label="Floor rms, with mV" quantity="voltage" />
      </Box>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        The floor is what the scope shows with the probe shorted at the port.
      </Typography>
    </Box>
  );
}
