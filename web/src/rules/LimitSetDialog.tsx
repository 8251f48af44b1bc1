// Writes a limit set: where it comes from, since when it holds, and its piecewise formulas, drawn while they are typed.
import type { LimitSetInput, StoredLimitSet } from '@lastmark/contract/types';
import {
  LIMITED_QUANTITIES,
  type LimitedQuantity,
  limitSetProblems,
  limitTests,
  NAMEPLATE_CLASSES,
  type NameplateClass,
  QUANTITY_WORDS,
} from '@lastmark/core/limits';
import { PROCEDURES } from '@lastmark/core/procedure';
import { type Mains, mainsLabel, REGULATORY_PAIR } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { lazy, useEffect, useMemo, useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { Choice } from '../parts/fields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { figureHeight } from '../parts/heights.ts';
import { Later } from '../parts/Later.tsx';
import { FormulaEditor } from './FormulaEditor.tsx';
import { EMPTY_PIECE, fromText, type SetText, toText } from './limitForm.ts';

const LimitChart = lazy(async () => ({ default: (await import('./LimitChart.tsx')).LimitChart }));

const SUPPLIES: readonly Mains[] = [
  ...REGULATORY_PAIR,
  { kind: 'ac', volts: 120, hertz: 60 },
  { kind: 'ac', volts: 100, hertz: 50 },
  { kind: 'dc', volts: 13.8 },
];

interface Props {
  /** The set to change, or to copy from. */
  readonly from: StoredLimitSet;
  readonly change: boolean;
  readonly onClose: () => void;
}

export function LimitSetDialog({ from, change, onClose }: Props) {
  const form = useTyped<SetText>(
    { ...toText(from), title: change ? from.title : `${from.title}, our copy` },
    `limit-set ${change ? from.id : 'new'}`,
  );
  const { control, values, set } = form;
  const [adding, setAdding] = useState<{ quantity: LimitedQuantity; nameplateClass: NameplateClass }>({
    quantity: 'average-efficiency',
    nameplateClass: 'basic',
  });
  const [shown, setShown] = useState<LimitedQuantity>('average-efficiency');
  const read = useMemo(() => fromText(values), [values]);
  // What could be read last stays drawn while a number is half typed.
  const [drawn, setDrawn] = useState<LimitSetInput | null>(null);
  useEffect(() => {
    if (read.ok) setDrawn(read.set);
  }, [read]);
  const good = read.ok ? read.set : drawn;
  const problems = read.ok ? limitSetProblems(read.set) : read.problems;
  const tests = good ? limitTests(good) : [];
  const save = async () => {
    if (!read.ok) throw new Error(read.problems.join(' '));
    await (change
      ? api(`/limit-sets/${from.id}`, { method: 'PUT', body: read.set, ifMatch: versionTag(from) })
      : api('/limit-sets', { method: 'POST', body: read.set }));
    await refreshAll();
  };
  const text = (name: 'title' | 'jurisdiction' | 'source' | 'note' | 'lowAmps', label: string, wide = false) => (
    <TextInput
      control={control}
      name={name}
      label={label}
      max={400}
      more={wide ? { sx: { gridColumn: 'span 2' } } : {}}
    />
  );
  const day = (name: 'checked' | 'validFrom' | 'validTo', label: string) => (
    <TextInput
      control={control}
      name={name}
      label={label}
      max={40}
      more={{ placeholder: '2028-12-31', slotProps: { inputLabel: { shrink: true } } }}
    />
  );
  const supplies = [...SUPPLIES, values.mains];
  const there = values.formulas.some(
    ({ quantity, nameplateClass }) => quantity === adding.quantity && nameplateClass === adding.nameplateClass,
  );
  return (
    <FormDialog
      title={change ? `Change ${from.title}` : 'A limit set of your own'}
      form={form}
      onSave={save}
      onClose={onClose}
      action={change ? 'Save' : 'Add the set'}
      ready={problems.length === 0}
      width="lg"
      sx={{ gap: 2 }}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, minmax(0, 1fr))', gap: 1.5 }}>
        {text('title', 'Title')}
        {text('jurisdiction', 'Jurisdiction')}
        {text('source', 'Text it comes from', true)}
        {day('checked', 'Compared with that text on')}
        {day('validFrom', 'In force from')}
        {day('validTo', 'In force until (empty: open)')}
        <Choice
          label="Verdict at"
          value={mainsLabel(values.mains)}
          options={[...new Set(supplies.map(mainsLabel))]}
          onChange={(label) => set({ mains: supplies.find((one) => mainsLabel(one) === label) ?? values.mains })}
        />
        <ChoiceInput
          control={control}
          name="procedureId"
          label="Procedure"
          options={PROCEDURES.map(({ id, title }) => ({ value: id, label: title }))}
          more={{ sx: { gridColumn: 'span 2' } }}
        />
        {text('lowAmps', 'Adaptive at 5 V, 100 % is, A')}
        {text('note', 'Note')}
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'minmax(0, 1.5fr) minmax(0, 1fr)',
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gap: 1.5 }}>
          {values.formulas.map((formula, index) => (
            <FormulaEditor
              key={`${formula.quantity} ${formula.nameplateClass}`}
              formula={formula}
              tests={tests.filter(
                ({ test }) => test.quantity === formula.quantity && test.nameplateClass === formula.nameplateClass,
              )}
              onChange={(next) => set({ formulas: values.formulas.map((one, at) => (at === index ? next : one)) })}
              onRemove={() => set({ formulas: values.formulas.filter((_, at) => at !== index) })}
            />
          ))}
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
            <Choice
              label="Quantity"
              value={adding.quantity}
              options={LIMITED_QUANTITIES.map((one) => ({ value: one, label: QUANTITY_WORDS[one] }))}
              onChange={(quantity) => setAdding({ ...adding, quantity })}
              more={{ size: 'small', sx: { width: 250 } }}
            />
            <Choice
              label="Class"
              value={adding.nameplateClass}
              options={NAMEPLATE_CLASSES}
              onChange={(nameplateClass) => setAdding({ ...adding, nameplateClass })}
              more={{ size: 'small', sx: { width: 160 } }}
            />
            <Button
              disabled={there}
              onClick={() => set({ formulas: [...values.formulas, { ...adding, pieces: [EMPTY_PIECE], worked: '' }] })}
            >
              Add a formula
            </Button>
          </Box>
        </Box>
        <Box sx={{ position: 'sticky', top: 0 }}>
          <Choice
            label="Drawn"
            value={shown}
            options={LIMITED_QUANTITIES.map((one) => ({ value: one, label: QUANTITY_WORDS[one] }))}
            onChange={setShown}
            more={{ size: 'small', fullWidth: true, sx: { mb: 1 } }}
          />
          {good && (
            <Later what="the chart" height={figureHeight(220)}>
              <LimitChart set={good} quantity={shown} />
            </Later>
          )}
          {problems.length > 0 && (
            <Alert severity="warning" sx={{ mt: 1 }}>
              {problems.map((problem) => (
                <div key={problem}>{problem}</div>
              ))}
            </Alert>
          )}
        </Box>
      </Box>
    </FormDialog>
  );
}
