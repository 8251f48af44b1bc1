// The choices of method that hold for every sample.
import { profileInput } from '@lastmark/contract/schemas';
import type { StoredProfile } from '@lastmark/contract/types';
import { validate } from '@lastmark/contract/validate';
import { ASSUMED_EFFICIENCY } from '@lastmark/core/proof';
import { formatPlain, parseDecimal } from '@lastmark/core/quantity';
import { MAINS_CHOICES, type Mains, mainsLabel } from '@lastmark/core/reading';
import type { Profile } from '@lastmark/core/verdict';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { Choice, QuantityField, typedSi } from '../parts/fields.tsx';
import { fromLimitText, LIMIT_FIELDS, toLimitText } from '../parts/limitText.ts';
import { useNotify } from '../state/notices.tsx';

const CAR = {
  id: 'car',
  title: '13.8 V and 27.6 V DC (car)',
  mains: [
    { kind: 'dc', volts: 13.8 },
    { kind: 'dc', volts: 27.6 },
  ] as readonly Mains[],
};
const CHOICES = [...MAINS_CHOICES, CAR];

const sameMains = (a: readonly Mains[], b: readonly Mains[]): boolean =>
  a.map(mainsLabel).join() === b.map(mainsLabel).join();

export function ProfileForm({ profile }: { readonly profile: StoredProfile }) {
  const notify = useNotify();
  const [rule, setRule] = useState(profile.rule);
  const [allowance, setAllowance] = useState(formatPlain(profile.allowance, 'efficiency'));
  const [mainsId, setMainsId] = useState(CHOICES.find(({ mains }) => sameMains(mains, profile.mains))?.id ?? 'own');
  const [tariff, setTariff] = useState(String(profile.tariff));
  const [currency, setCurrency] = useState(profile.currency);
  const [tolerance, setTolerance] = useState(
    profile.tolerance === null ? '' : formatPlain(profile.tolerance, 'efficiency'),
  );
  const [continuous, setContinuous] = useState(formatPlain(profile.continuous, 'duration'));
  const [overOn, setOverOn] = useState<'on' | 'off'>(profile.overRating.on ? 'on' : 'off');
  const [overStep, setOverStep] = useState(formatPlain(profile.overRating.step, 'efficiency'));
  const [moreAs, setMoreAs] = useState(profile.more.as);
  const [margin, setMargin] = useState(formatPlain(profile.more.margin, 'efficiency'));
  const assumed = profile.assumedEfficiency ?? ASSUMED_EFFICIENCY;
  const [lowest, setLowest] = useState(formatPlain(assumed.low, 'efficiency'));
  const [highest, setHighest] = useState(formatPlain(assumed.high, 'efficiency'));
  const [limits, setLimits] = useState(() => toLimitText(profile.limits));
  const save = useMutation({
    mutationFn: async () => {
      const mains = CHOICES.find(({ id }) => id === mainsId)?.mains ?? profile.mains;
      const input = {
        rule,
        allowance: typedSi(allowance, 'efficiency') ?? 0,
        mains,
        tariff: parseDecimal(tariff),
        currency: currency.trim(),
        limitSetIds: profile.limitSetIds,
        tolerance: typedSi(tolerance, 'efficiency'),
        continuous: typedSi(continuous, 'duration') ?? 0,
        overRating: { ...profile.overRating, on: overOn === 'on', step: typedSi(overStep, 'efficiency') ?? 0 },
        signalModes: profile.signalModes,
        more: { as: moreAs, margin: typedSi(margin, 'efficiency') ?? 0 },
        limits: fromLimitText(limits),
        assumedEfficiency: {
          low: typedSi(lowest, 'efficiency') ?? Number.NaN,
          high: typedSi(highest, 'efficiency') ?? Number.NaN,
        },
      };
      const checked = validate<Profile>(profileInput, input);
      if (!checked.ok) throw new Error(checked.errors.map(({ message }) => message).join(' · '));
      return api<StoredProfile>('/profile', { method: 'PUT', body: checked.value, ifMatch: versionTag(profile) });
    },
    onSuccess: async () => {
      await refreshAll();
      notify('Saved. Every sample is judged anew.');
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <Box
      component="form"
      onSubmit={submit}
      noValidate
      sx={{ p: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', gap: 1.5 }}>
        <Choice
          label="Mains"
          value={mainsId}
          options={[
            ...CHOICES.map(({ id, title }) => ({ value: id, label: title })),
            ...(mainsId === 'own' ? [{ value: 'own', label: profile.mains.map(mainsLabel).join(' and ') }] : []),
          ]}
          onChange={setMainsId}
        />
        <Choice
          label="Decision rule"
          value={rule}
          options={[
            { value: 'guarded', label: 'guarded: value ± U must clear' },
            { value: 'simple', label: 'simple: the value alone' },
          ]}
          onChange={setRule}
        />
        <QuantityField
          label="A power counts as reached within, %"
          quantity="efficiency"
          value={allowance}
          onChange={setAllowance}
        />
        <TextField label="Price of a kWh" value={tariff} onChange={(event) => setTariff(event.target.value)} />
        <TextField
          label="Currency"
          value={currency}
          onChange={(event) => setCurrency(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 3 } }}
        />
        <QuantityField
          label="Own voltage tolerance, ± %"
          quantity="efficiency"
          value={tolerance}
          onChange={setTolerance}
        />
        <QuantityField
          label="Counts as continuous from, min"
          quantity="duration"
          value={continuous}
          onChange={setContinuous}
        />
        <Choice
          label="Over the rating"
          value={overOn}
          options={[
            { value: 'off', label: 'off: stop at the rating' },
            { value: 'on', label: 'on: a short search for the cut-off' },
          ]}
          onChange={setOverOn}
        />
        <QuantityField label="Steps over the rating, %" quantity="efficiency" value={overStep} onChange={setOverStep} />
        <Choice
          label="More than promised"
          value={moreAs}
          options={[
            { value: 'stated', label: 'stated, no judgement' },
            { value: 'headroom', label: 'headroom: a virtue' },
            { value: 'hazard', label: 'a hazard to what hangs on it' },
          ]}
          onChange={setMoreAs}
        />
        <QuantityField label="Counts as more from, %" quantity="efficiency" value={margin} onChange={setMargin} />
        <QuantityField
          label="Efficiency where none was measured: from, %"
          quantity="efficiency"
          value={lowest}
          onChange={setLowest}
        />
        <QuantityField
          label="Efficiency where none was measured: to, %"
          quantity="efficiency"
          value={highest}
          onChange={setHighest}
        />
        {LIMIT_FIELDS.map(({ key, label, quantity }) => (
          <QuantityField
            key={key}
            label={`Loads off above: ${label.toLowerCase()}`}
            quantity={quantity}
            value={limits[key]}
            onChange={(typed) => setLimits({ ...limits, [key]: typed })}
          />
        ))}
        <Button type="submit" variant="contained" disabled={save.isPending} sx={{ height: 40 }}>
          Save
        </Button>
      </Box>
      {save.error && (
        <Alert severity="error" sx={{ mt: 1.5 }}>
          {save.error.message}
        </Alert>
      )}
    </Box>
  );
}
