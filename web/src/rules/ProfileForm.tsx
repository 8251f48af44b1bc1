// The choices of method that hold for every sample.
import { profileInput } from '@lastmark/contract/schemas';
import type { StoredProfile } from '@lastmark/contract/types';
import { validate } from '@lastmark/contract/validate';
import { BEND_COUNTS } from '@lastmark/core/bends';
import { ASSUMED_EFFICIENCY } from '@lastmark/core/proof';
import { formatPlain, parseMoney, type QuantityId } from '@lastmark/core/quantity';
import { MAINS_CHOICES, type Mains, mainsLabel } from '@lastmark/core/reading';
import type { Profile } from '@lastmark/core/verdict';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { typedSi } from '../parts/fields.tsx';
import { FormSection } from '../parts/form/FormSection.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { fromLimitText, LIMIT_FIELDS, toLimitText } from '../parts/limitText.ts';
import { useNotify } from '../state/notices.tsx';
import { BEND_FIELDS, fromBendText, toBendText } from './bendText.ts';
import { fromSafetyText, SAFETY_CHOICES, toSafetyText } from './safetyText.ts';

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

const percent = (value: number): string => formatPlain(value, 'efficiency');

function textOf(profile: StoredProfile) {
  const assumed = profile.assumedEfficiency ?? ASSUMED_EFFICIENCY;
  return {
    rule: profile.rule as string,
    allowance: percent(profile.allowance),
    mains: CHOICES.find(({ mains }) => sameMains(mains, profile.mains))?.id ?? 'own',
    tariff: String(profile.tariff),
    currency: profile.currency,
    tolerance: profile.tolerance === null ? '' : percent(profile.tolerance),
    continuous: formatPlain(profile.continuous, 'duration'),
    over: profile.overRating.on ? 'on' : 'off',
    overStep: percent(profile.overRating.step),
    moreAs: profile.more.as as string,
    margin: percent(profile.more.margin),
    lowest: percent(assumed.low),
    highest: percent(assumed.high),
    rippleVolts: profile.ripple?.volts == null ? '' : formatPlain(profile.ripple.volts, 'voltage', 'mV'),
    ripplePart: profile.ripple?.part == null ? '' : percent(profile.ripple.part),
    rippleUnloaded: profile.ripple?.unloaded === false ? 'no' : 'yes',
    touch: profile.touch == null ? '' : String(profile.touch),
    ...toSafetyText(profile.safety),
    ...toBendText(profile.bends),
    ...toLimitText(profile.limits),
  };
}

type ProfileText = ReturnType<typeof textOf>;

/** Where in the form what was refused stands. */
const FIELD_OF: Readonly<Record<string, keyof ProfileText>> = {
  allowance: 'allowance',
  tariff: 'tariff',
  currency: 'currency',
  tolerance: 'tolerance',
  continuous: 'continuous',
  'overRating.step': 'overStep',
  'more.margin': 'margin',
  assumedEfficiency: 'lowest',
  'assumedEfficiency.low': 'lowest',
  'assumedEfficiency.high': 'highest',
  'ripple.volts': 'rippleVolts',
  'ripple.part': 'ripplePart',
  touch: 'touch',
  'safety.touch': 'safetyTouch',
  'limits.hottest': 'hottest',
  'limits.volts': 'volts',
  'limits.amps': 'amps',
  'limits.watts': 'watts',
  ...BEND_FIELDS,
};

/** What is sent. NaN for what cannot be read, which the schema refuses in its own words. */
const inputOf = (text: ProfileText, profile: StoredProfile): Profile => ({
  rule: text.rule as Profile['rule'],
  allowance: typedSi(text.allowance, 'efficiency') ?? 0,
  mains: CHOICES.find(({ id }) => id === text.mains)?.mains ?? profile.mains,
  tariff: parseMoney(text.tariff, true).amount,
  currency: text.currency.trim().toUpperCase(),
  limitSetIds: profile.limitSetIds,
  tolerance: typedSi(text.tolerance, 'efficiency'),
  continuous: typedSi(text.continuous, 'duration') ?? 0,
  overRating: { ...profile.overRating, on: text.over === 'on', step: typedSi(text.overStep, 'efficiency') ?? 0 },
  signalModes: profile.signalModes,
  more: { as: text.moreAs as Profile['more']['as'], margin: typedSi(text.margin, 'efficiency') ?? 0 },
  ripple: rippleOf(text),
  touch: text.touch.trim() === '' ? null : Number(text.touch.replace(',', '.')),
  safety: fromSafetyText(text),
  bends: fromBendText(text),
  limits: fromLimitText(text),
  assumedEfficiency: {
    low: typedSi(text.lowest, 'efficiency') ?? Number.NaN,
    high: typedSi(text.highest, 'efficiency') ?? Number.NaN,
  },
});

/** What ripple may be; nothing where neither is set. */
function rippleOf(text: ProfileText): Profile['ripple'] {
  const volts = typedSi(text.rippleVolts, 'voltage');
  const part = typedSi(text.ripplePart, 'efficiency');
  return volts === null && part === null ? null : { volts, part, unloaded: text.rippleUnloaded === 'yes' };
}

export function ProfileForm({ profile }: { readonly profile: StoredProfile }) {
  const notify = useNotify();
  const form = useTyped<ProfileText>(textOf(profile));
  /** What stood there when the form was filled: a newer save is not overwritten unseen. */
  const [began, setBegan] = useState(profile);
  const { control, setError } = form;
  const save = useMutation({
    mutationFn: async (text: ProfileText) => {
      const checked = validate<Profile>(profileInput, inputOf(text, began));
      if (checked.ok)
        return api<StoredProfile>('/profile', { method: 'PUT', body: checked.value, ifMatch: versionTag(began) });
      checked.errors.forEach(({ path, message }, index) => {
        const field = FIELD_OF[path];
        if (field) setError(field, { message }, { shouldFocus: index === 0 });
      });
      throw new Error(checked.errors.map(({ message }) => message).join(' · '));
    },
    onSuccess: async (saved) => {
      setBegan(saved);
      await refreshAll();
      notify('Saved. Every sample is judged anew.');
    },
  });
  const quantity = (name: keyof ProfileText, label: string, of: QuantityId) => (
    <QuantityInput control={control} name={name} label={label} quantity={of} />
  );
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        form.clearErrors();
        void form.handleSubmit((text) => save.mutate(text))(event);
      }}
      noValidate
      sx={{ p: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}
    >
      <FormSection title="How it is judged" hint="Which readings settle a promise.">
        <ChoiceInput
          control={control}
          name="rule"
          label="Decision rule"
          options={[
            { value: 'guarded', label: 'guarded: U must clear too' },
            { value: 'simple', label: 'simple: the value alone' },
          ]}
        />
        {quantity('allowance', 'A power may miss by, %', 'efficiency')}
        {quantity('tolerance', 'Own voltage tolerance, ± %', 'efficiency')}
        {quantity('rippleVolts', 'Ripple at most, with mV', 'voltage')}
        {quantity('ripplePart', 'and at most, % of the level', 'efficiency')}
        <ChoiceInput
          control={control}
          name="rippleUnloaded"
          label="Ripple without load"
          options={[
            { value: 'yes', label: 'counts' },
            { value: 'no', label: 'does not count' },
          ]}
        />
        <TextInput control={control} name="touch" label="Surface at most, °C at 25 °C" max={6} />
        <ChoiceInput control={control} name="safetySets" label="Touch current and earth by" options={SAFETY_CHOICES} />
        <QuantityInput
          control={control}
          name="safetyTouch"
          label="Touch current at most, µA"
          quantity="current"
          usual="µA"
        />
        {quantity('continuous', 'Continuous from, min', 'duration')}
        <ChoiceInput
          control={control}
          name="moreAs"
          label="More than promised"
          options={[
            { value: 'stated', label: 'stated, no judgement' },
            { value: 'headroom', label: 'headroom: a virtue' },
            { value: 'hazard', label: 'a hazard to what hangs on it' },
          ]}
        />
        {quantity('margin', 'Counts as more from, %', 'efficiency')}
      </FormSection>
      <FormSection title="Where it is measured" hint="Mains of a complete result, and what a kWh costs there.">
        <ChoiceInput
          control={control}
          name="mains"
          label="Mains"
          options={[
            ...CHOICES.map(({ id, title }) => ({ value: id, label: title })),
            ...(form.values.mains === 'own'
              ? [{ value: 'own', label: profile.mains.map(mainsLabel).join(' and ') }]
              : []),
          ]}
          more={{ sx: { gridColumn: { sm: 'span 2' } } }}
        />
        <TextInput control={control} name="tariff" label="Price of a kWh" max={20} more={{ helperText: ' ' }} />
        <TextInput control={control} name="currency" label="Currency" max={3} more={{ helperText: ' ' }} />
      </FormSection>
      <FormSection
        title="Read at the socket only"
        hint="Efficiency taken for a charger whose own was never measured; what follows from it stays an interval."
      >
        {quantity('lowest', 'From, %', 'efficiency')}
        {quantity('highest', 'To, %', 'efficiency')}
      </FormSection>
      <FormSection title="Over the rating" hint="Can destroy a sample. Never with a real device attached.">
        <ChoiceInput
          control={control}
          name="over"
          label="Search for the cut-off"
          options={[
            { value: 'off', label: 'off: stop at the rating' },
            { value: 'on', label: 'on: steps of a few seconds' },
          ]}
        />
        {quantity('overStep', 'In steps of, %', 'efficiency')}
      </FormSection>
      <FormSection title="Bending cables" hint="To the maker’s count and a margin more, or the same for all.">
        <ChoiceInput control={control} name="bendTo" label="How often" options={BEND_COUNTS} />
        {quantity('bendMargin', 'Margin, %', 'efficiency')}
        <TextInput control={control} name="bendCount" label="Bends not by a claim" max={12} />
        <TextInput control={control} name="bendLooks" label="Looks on the way" max={4} />
        <TextInput control={control} name="bendAngle" label="Each way, °" max={8} />
        {quantity('bendRadius', 'Radius, mm', 'length')}
        <TextInput control={control} name="bendTension" label="Weight, N" max={8} />
        <TextInput control={control} name="bendRate" label="Bends a minute" max={8} />
      </FormSection>
      <FormSection title="Loads off above" hint="Every run stops there. Empty: no limit of that kind.">
        {LIMIT_FIELDS.map(({ key, label, quantity: of }) => (
          <QuantityInput key={key} control={control} name={key} label={label} quantity={of} />
        ))}
      </FormSection>
      {save.error && (
        <Alert severity="error" sx={{ mb: 1.5 }}>
          {save.error.message}
        </Alert>
      )}
      <Button type="submit" variant="contained" disabled={save.isPending}>
        Save the method
      </Button>
    </Box>
  );
}
