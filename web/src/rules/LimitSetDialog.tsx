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
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, lazy, Suspense, useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { Choice } from '../parts/fields.tsx';
import { Loading } from '../parts/QueryGate.tsx';
import { useDraft } from '../parts/useDraft.ts';
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
  const draft = useDraft<SetText>(`limit-set ${change ? from.id : 'new'}`, {
    ...toText(from),
    title: change ? from.title : `${from.title}, our copy`,
  });
  const { value: form } = draft;
  const set = (next: SetText) => {
    if (read.ok) setDrawn(read.set);
    draft.set(next);
  };
  const [adding, setAdding] = useState<{ quantity: LimitedQuantity; nameplateClass: NameplateClass }>({
    quantity: 'average-efficiency',
    nameplateClass: 'basic',
  });
  const [shown, setShown] = useState<LimitedQuantity>('average-efficiency');
  const read = fromText(form);
  // What could be read last stays drawn while a number is half typed.
  const [drawn, setDrawn] = useState<LimitSetInput | null>(read.ok ? read.set : null);
  const good = read.ok ? read.set : drawn;
  const problems = read.ok ? limitSetProblems(read.set) : read.problems;
  const tests = good ? limitTests(good) : [];
  const save = useMutation({
    mutationFn: () => {
      if (!read.ok) throw new Error(read.problems.join(' '));
      return change
        ? api(`/limit-sets/${from.id}`, { method: 'PUT', body: read.set, ifMatch: versionTag(from) })
        : api('/limit-sets', { method: 'POST', body: read.set });
    },
    onSuccess: async () => {
      draft.clear();
      await refreshAll();
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  const text = (key: 'title' | 'jurisdiction' | 'source' | 'note' | 'lowAmps', label: string, wide = false) => (
    <TextField
      label={label}
      value={form[key]}
      onChange={(event) => set({ ...form, [key]: event.target.value })}
      sx={wide ? { gridColumn: 'span 2' } : {}}
    />
  );
  const day = (key: 'checked' | 'validFrom' | 'validTo', label: string) => (
    <TextField
      label={label}
      placeholder="2028-12-31"
      value={form[key]}
      onChange={(event) => set({ ...form, [key]: event.target.value })}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 10 } }}
    />
  );
  const there = form.formulas.some(
    ({ quantity, nameplateClass }) => quantity === adding.quantity && nameplateClass === adding.nameplateClass,
  );
  return (
    <Dialog open onClose={onClose} maxWidth="lg" fullWidth aria-labelledby="limit-set-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="limit-set-title">{change ? `Change ${from.title}` : 'A limit set of your own'}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2, '&&': { pt: 1 } }}>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, minmax(0, 1fr))', gap: 1.5 }}>
            {text('title', 'Title')}
            {text('jurisdiction', 'Jurisdiction')}
            {text('source', 'Text it comes from', true)}
            {day('checked', 'Compared with that text on')}
            {day('validFrom', 'In force from')}
            {day('validTo', 'In force until (empty: open)')}
            <Choice
              label="Verdict at"
              value={mainsLabel(form.mains)}
              options={[...new Set([...SUPPLIES, form.mains].map(mainsLabel))]}
              onChange={(label) =>
                set({
                  ...form,
                  mains: [...SUPPLIES, form.mains].find((one) => mainsLabel(one) === label) ?? form.mains,
                })
              }
            />
            <Choice
              label="Procedure"
              value={form.procedureId}
              options={PROCEDURES.map(({ id, title }) => ({ value: id, label: title }))}
              onChange={(procedureId) => set({ ...form, procedureId })}
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
              {form.formulas.map((formula, index) => (
                <FormulaEditor
                  key={`${formula.quantity} ${formula.nameplateClass}`}
                  formula={formula}
                  tests={tests.filter(
                    ({ test }) => test.quantity === formula.quantity && test.nameplateClass === formula.nameplateClass,
                  )}
                  onChange={(next) =>
                    set({ ...form, formulas: form.formulas.map((one, at) => (at === index ? next : one)) })
                  }
                  onRemove={() => set({ ...form, formulas: form.formulas.filter((_, at) => at !== index) })}
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
                  onClick={() =>
                    set({ ...form, formulas: [...form.formulas, { ...adding, pieces: [EMPTY_PIECE], worked: '' }] })
                  }
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
                <Suspense fallback={<Loading what="the chart" />}>
                  <LimitChart set={good} quantity={shown} />
                </Suspense>
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
          {save.error && <Alert severity="error">{save.error.message}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button
            onClick={() => {
              draft.clear();
              onClose();
            }}
          >
            Cancel
          </Button>
          <Button type="submit" variant="contained" disabled={save.isPending || problems.length > 0}>
            {change ? 'Save' : 'Add the set'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
