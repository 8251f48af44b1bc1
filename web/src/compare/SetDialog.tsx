// The rule of a set, the measures with their one condition each, and measures of one's own.
import type { ComparisonBody, OwnMeasure, SetAnswer, WantedMeasure } from '@lastmark/contract/types';
import { type ByRule, EVERYTHING, type SetRule } from '@lastmark/core/compare';
import { MEASURES, measureAbout } from '@lastmark/core/measure';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { methodsQuery } from '../methods/queries.ts';
import { Choice } from '../parts/fields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { type Chosen, SamplesField } from '../parts/SampleField.tsx';
import { sampleTitle } from './views.ts';

const KINDS = ['wall', 'desktop', 'car', 'cable'] as const;

interface Form {
  readonly title: string;
  readonly note: string;
  readonly by: 'rule' | 'picked';
  readonly kinds: readonly string[];
  readonly wattsFrom: string;
  readonly wattsTo: string;
  readonly portsFrom: string;
  readonly portsTo: string;
  readonly since: string;
  readonly label: string;
  /** Id of a method; empty for any. */
  readonly method: string;
  readonly oneUnit: boolean;
  readonly picks: readonly { readonly chosen: Chosen; readonly reason: string }[];
  readonly measures: readonly WantedMeasure[];
  readonly own: readonly OwnMeasure[];
}

const shown = (value: number | null): string => (value === null ? '' : String(value));
/** A number as typed; null where nothing is, NaN where it is none. */
const read = (text: string): number | null => (text.trim() === '' ? null : Number(text.trim().replace(',', '.')));

function formOf({ title, note, rule, measures, own }: ComparisonBody, set: SetAnswer): Form {
  const asked: ByRule = rule.kind === 'rule' ? rule : EVERYTHING;
  const titles = new Map(set.members.map((member) => [member.id, member]));
  return {
    title,
    note,
    by: rule.kind,
    kinds: asked.kinds,
    wattsFrom: shown(asked.watts.from),
    wattsTo: shown(asked.watts.to),
    portsFrom: shown(asked.ports.from),
    portsTo: shown(asked.ports.to),
    since: asked.since ?? '',
    label: asked.label ?? '',
    method: asked.method ?? '',
    oneUnit: asked.oneUnit,
    picks:
      rule.kind === 'rule'
        ? []
        : rule.picks.map(({ id, reason }) => {
            const member = titles.get(id);
            return {
              reason,
              chosen: { id, name: member ? sampleTitle(member) : id.slice(-6), kind: member?.kind ?? 'wall' },
            };
          }),
    measures,
    own,
  };
}

function ruleOf(form: Form): SetRule {
  if (form.by === 'picked')
    return {
      kind: 'picked',
      picks: form.picks.map(({ chosen, reason }) => ({ id: chosen.id, reason: reason.trim() })),
    };
  return {
    kind: 'rule',
    kinds: form.kinds,
    watts: { from: read(form.wattsFrom), to: read(form.wattsTo) },
    ports: { from: read(form.portsFrom), to: read(form.portsTo) },
    since: form.since.trim() === '' ? null : form.since.trim(),
    method: form.method === '' ? null : form.method,
    label: form.label.trim() === '' ? null : form.label.trim(),
    oneUnit: form.oneUnit,
  };
}

/** What keeps it from being taken over; null for nothing. */
function problemOf(form: Form): string | null {
  if (form.title.trim() === '') return 'A title is missing.';
  if ([form.wattsFrom, form.wattsTo, form.portsFrom, form.portsTo].some((text) => Number.isNaN(read(text))))
    return 'Nameplate and ports are numbers, such as 45 and 3.';
  if (form.since.trim() !== '' && !/^\d{4}-\d{2}-\d{2}$/.test(form.since.trim()))
    return 'A day is written as 2026-03-02.';
  if (form.measures.length === 0) return 'Choose one measure at least.';
  return null;
}

/** A measure with its one condition, and how many of the set have a value under it. */
function MeasureLine({
  wanted,
  set,
  title,
  onCondition,
  onRemove,
}: {
  readonly wanted: WantedMeasure;
  readonly set: SetAnswer;
  readonly title: string;
  readonly onCondition: (condition: string | null) => void;
  readonly onRemove: () => void;
}) {
  const shared = set.conditions.find(({ measure }) => measure === wanted.measure)?.shared ?? [];
  const own = wanted.measure.startsWith('own-');
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '200px minmax(0, 1fr) auto', gap: 1, alignItems: 'center' }}>
      <Typography>{title}</Typography>
      {own ? (
        <Typography variant="body2" color="text.secondary">
          under the conditions of its measures
        </Typography>
      ) : (
        <Choice
          label="Under"
          value={wanted.condition ?? ''}
          options={[
            {
              value: '',
              label: shared[0]
                ? `what most share: ${shared[0].condition || 'no condition'} (${shared[0].count})`
                : 'what most share',
            },
            ...shared.map(({ condition, count }) => ({
              value: condition === '' ? ' ' : condition,
              label: `${condition || 'no condition'}: ${count} of ${set.members.length}`,
            })),
            ...(wanted.condition && !shared.some(({ condition }) => condition === wanted.condition)
              ? [
                  {
                    value: wanted.condition,
                    label: `${wanted.condition}: ${set.pending ? 'being worked out' : 'nobody here'}`,
                  },
                ]
              : []),
          ]}
          onChange={(condition) => onCondition(condition === '' ? null : condition.trim())}
        />
      )}
      <Button size="small" onClick={onRemove} aria-label={`Remove ${title}`}>
        Remove
      </Button>
    </Box>
  );
}

/** A formula over measures, refused in words before it is taken. */
function OwnForm({
  onAdd,
  known,
}: {
  readonly onAdd: (own: OwnMeasure) => void;
  readonly known: readonly OwnMeasure[];
}) {
  const [title, setTitle] = useState('');
  const [formula, setFormula] = useState('');
  const [better, setBetter] = useState<'less' | 'more'>('less');
  const [refusal, setRefusal] = useState('');
  const add = async () => {
    const { formulaOf } = await import('@lastmark/core/formula');
    const told = formulaOf(formula);
    if ('refusal' in told) return setRefusal(told.refusal);
    const name = title
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 20);
    const id = `own-${name || 'measure'}`;
    onAdd({
      id: known.some((one) => one.id === id) ? `${id}-${known.length + 1}` : id,
      title: title.trim(),
      formula,
      better,
    });
    setTitle('');
    setFormula('');
    return setRefusal('');
  };
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 2fr 110px auto', gap: 1, alignItems: 'start' }}>
      <TextField
        label="Own measure"
        value={title}
        onChange={(event) => setTitle(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 60 } }}
      />
      <TextField
        label="Formula"
        placeholder="idle / watts"
        value={formula}
        onChange={(event) => setFormula(event.target.value)}
        error={refusal !== ''}
        helperText={refusal || 'Over measures in one word: fullLoadLoss, massPerWatt …'}
        slotProps={{ htmlInput: { maxLength: 200, spellCheck: false } }}
      />
      <Choice label="Better" value={better} options={['less', 'more']} onChange={setBetter} />
      <Button onClick={add} disabled={title.trim() === '' || formula.trim() === ''} sx={{ minHeight: 40 }}>
        Add
      </Button>
    </Box>
  );
}

interface Props {
  readonly body: ComparisonBody;
  readonly set: SetAnswer;
  readonly onClose: () => void;
  readonly onChange: (body: ComparisonBody) => void;
}

export function SetDialog({ body, set, onClose, onChange }: Props) {
  const { data: methods } = useQuery(methodsQuery);
  const form = useTyped<Form>(formOf(body, set));
  const { control, values, set: put } = form;
  const problem = problemOf(values);
  const picked = useMemo(() => values.picks.map(({ chosen }) => chosen), [values.picks]);
  const save = () => {
    const own = values.own.filter(({ id }) => values.measures.some(({ measure }) => measure === id));
    onChange({
      title: values.title.trim(),
      note: values.note.trim(),
      rule: ruleOf(values),
      measures: [...values.measures],
      own,
      weights: body.weights.filter(({ measure }) => values.measures.some((one) => one.measure === measure)),
    });
  };
  const titleOf = (measure: string) =>
    values.own.find(({ id }) => id === measure)?.title ?? measureAbout(measure).title;
  const left = MEASURES.filter(({ id }) => !values.measures.some(({ measure }) => measure === id));
  const setMeasure = (at: number, part: Partial<WantedMeasure> | null) =>
    put({
      measures: values.measures.flatMap((one, index) => (index === at ? (part ? [{ ...one, ...part }] : []) : [one])),
    });
  return (
    <FormDialog
      title="Set and measures"
      form={form}
      onSave={save}
      onClose={onClose}
      action="Take over"
      ready={problem === null}
      width="md"
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <TextInput control={control} name="title" label="Title" max={80} required />
        <ChoiceInput
          control={control}
          name="by"
          label="Samples"
          options={[
            { value: 'rule', label: 'by a rule' },
            { value: 'picked', label: 'picked by hand' },
          ]}
        />
      </Box>
      <TextInput control={control} name="note" label="Note" max={1000} />
      {values.by === 'rule' ? (
        <Box component="fieldset" sx={{ border: 0, p: 0, m: 0, display: 'grid', gap: 1.5 }}>
          <Box sx={{ display: 'flex', flexWrap: 'wrap' }}>
            {KINDS.map((kind) => (
              <FormControlLabel
                key={kind}
                label={kind}
                control={
                  <Checkbox
                    checked={values.kinds.includes(kind)}
                    onChange={(_event, stands) =>
                      put({ kinds: stands ? [...values.kinds, kind] : values.kinds.filter((one) => one !== kind) })
                    }
                  />
                }
              />
            ))}
            <FormControlLabel
              label="at most one unit a model"
              control={<Checkbox checked={values.oneUnit} onChange={(_event, one) => put({ oneUnit: one })} />}
            />
          </Box>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(120px, 1fr))', gap: 1.5 }}>
            <TextInput control={control} name="wattsFrom" label="Watts from" max={8} />
            <TextInput control={control} name="wattsTo" label="Watts to" max={8} />
            <TextInput control={control} name="portsFrom" label="Ports from" max={4} />
            <TextInput control={control} name="portsTo" label="Ports to" max={4} />
            <TextInput
              control={control}
              name="since"
              label="Bought since"
              max={10}
              more={{ placeholder: '2026-01-31' }}
            />
            <TextInput control={control} name="label" label="Label" max={40} />
            <ChoiceInput
              control={control}
              name="method"
              label="Tested by"
              options={[
                { value: '', label: 'any method' },
                ...(methods?.items ?? []).map(({ id, method }) => ({ value: id, label: method.title })),
              ]}
            />
          </Box>
        </Box>
      ) : (
        <>
          <SamplesField
            label="Samples"
            chosen={picked}
            onChoose={(all) =>
              put({
                picks: all.map(
                  (chosen) => values.picks.find((one) => one.chosen.id === chosen.id) ?? { chosen, reason: '' },
                ),
              })
            }
          />
          {values.picks.map(({ chosen, reason }, at) => (
            <TextField
              key={chosen.id}
              label={`Why ${chosen.name}`}
              value={reason}
              onChange={(event) =>
                put({
                  picks: values.picks.map((one, index) =>
                    index === at ? { ...one, reason: event.target.value } : one,
                  ),
                })
              }
              slotProps={{ htmlInput: { maxLength: 200 } }}
            />
          ))}
        </>
      )}
      <Typography sx={{ fontWeight: 600 }}>Measures, each under one condition for all</Typography>
      {values.measures.map((wanted, at) => (
        <MeasureLine
          key={wanted.measure}
          wanted={wanted}
          set={set}
          title={titleOf(wanted.measure)}
          onCondition={(condition) => setMeasure(at, { condition })}
          onRemove={() => setMeasure(at, null)}
        />
      ))}
      <Choice
        label="Add a measure"
        value=""
        options={[{ value: '', label: 'choose' }, ...left.map(({ id, title }) => ({ value: id, label: title }))]}
        onChange={(measure) => measure !== '' && put({ measures: [...values.measures, { measure, condition: null }] })}
        more={{ sx: { maxWidth: 320 } }}
      />
      <OwnForm
        known={values.own}
        onAdd={(own) =>
          put({ own: [...values.own, own], measures: [...values.measures, { measure: own.id, condition: null }] })
        }
      />
      {problem && <Alert severity="warning">{problem}</Alert>}
    </FormDialog>
  );
}
