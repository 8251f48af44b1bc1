// What idle and loss mean in use: a year by hours, a small store off the grid, a vehicle battery.
import {
  ampHoursADay,
  batteryDays,
  drainAmps,
  type StatePower,
  sunShare,
  USUAL_DAY,
  usageYear,
} from '@lastmark/core/idle';
import { fixed, parseDecimal } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useDraft } from '../../parts/useDraft.ts';
import { useSample } from '../../state/sample.tsx';

const USUAL = {
  off: String(USUAL_DAY.off),
  idle: String(USUAL_DAY.idle),
  light: String(USUAL_DAY.light),
  active: String(USUAL_DAY.active),
  store: '12',
  inverter: '85',
  inverterIdle: '5',
  solar: '600',
  battery: '60',
  falls: '50',
};
type Form = typeof USUAL;

const LABELS: Readonly<Record<keyof Form, string>> = {
  off: 'Off, h a day',
  idle: 'Idle, h a day',
  light: 'Light load, h a day',
  active: 'Full load, h a day',
  store: 'Store, V',
  inverter: 'Inverter efficiency, %',
  inverterIdle: 'Inverter itself, W',
  solar: 'Daily solar, Wh',
  battery: 'Vehicle battery, Ah',
  falls: 'falls to, %',
};

const value = (text: string): number => parseDecimal(text);

/** What a calculation says, or why it cannot. */
function said(work: () => string): string {
  try {
    return work();
  } catch (error) {
    return error instanceof RangeError ? error.message : 'Give numbers.';
  }
}

export function UsePanel() {
  const { dossier, verdict } = useSample();
  const { value: form, set } = useDraft<Form>('idle-use', USUAL);
  const idle = verdict.results.idle.draws.find(({ attached }) => attached === 'nothing');
  if (!idle) return null;
  const watts = idle.below ?? idle.watts.value;
  // Below the meter's floor nothing more is known than that.
  const most = idle.below === null ? '' : 'at most ';
  const least = idle.below === null ? '' : 'at least ';
  const { tariff, currency } = dossier.profile;
  const curve = verdict.results.efficiency.series
    .flatMap(({ byMains }) => byMains)
    .find(({ mains }) => mainsLabel(mains) === mainsLabel(idle.mains));
  const at = (load: number): StatePower | null => {
    const found = curve?.loads.find((one) => Math.abs(one.load - load) < 0.001);
    return found ? { input: found.input.value, output: found.output.value } : null;
  };
  const light = at(0.1);
  const active = at(1);
  const isCar = idle.mains.kind === 'dc';
  const field = (key: keyof Form) => (
    <TextField
      key={key}
      label={LABELS[key]}
      value={form[key]}
      onChange={(event) => set({ ...form, [key]: event.target.value })}
      slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
    />
  );
  const row = (keys: readonly (keyof Form)[], sentence: string) => (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, 165px)', gap: 1, alignItems: 'center', mb: 1.75 }}
    >
      {keys.map(field)}
      <Typography sx={{ gridColumn: '1 / -1', fontSize: 18 }}>
        {keys.every((key) => Number.isFinite(value(form[key]))) ? sentence : 'Give numbers.'}
      </Typography>
    </Box>
  );
  const year = said(() => {
    if (!light || !active) return 'Measure 10 % and 100 % at this supply first: a year of use needs both.';
    const day = { off: value(form.off), idle: value(form.idle), light: value(form.light), active: value(form.active) };
    const { taken, lost, idlePart } = usageYear(day, watts, light, active);
    return `${most}${fixed(taken, 1)} kWh a year (${fixed(taken * tariff, 2)} ${currency}), ${fixed(lost, 1)} kWh of it lost; idle is ${most}${fixed(idlePart * 100, 0)} % of the loss.`;
  });
  const store = said(() => {
    const inverter = value(form.inverter) / 100;
    const a = ampHoursADay(watts, value(form.store), inverter, value(form.inverterIdle));
    const share = sunShare(a, value(form.store), value(form.solar));
    return `${most}${fixed(a, 2)} Ah a day from the store, ${fixed(share * 100, 1)} % of the day’s sun.`;
  });
  const vehicle = said(() => {
    const amps = drainAmps(watts, idle.mains.volts);
    return `${most}${fixed(amps * 1000, 0)} mA: down to ${form.falls} % in ${least}${fixed(batteryDays(value(form.battery), amps, 1, value(form.falls) / 100), 0)} days, its own discharge not counted.`;
  });
  return (
    <Box component="section" aria-label="In use" sx={{ mt: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        In use, {mainsLabel(idle.mains)}
      </Typography>
      {row(['off', 'idle', 'light', 'active'], year)}
      {isCar ? row(['battery', 'falls'], vehicle) : row(['store', 'inverter', 'inverterIdle', 'solar'], store)}
    </Box>
  );
}
