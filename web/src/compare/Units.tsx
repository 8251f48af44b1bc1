// Units of a model as a population: spread between them, what they say of the next, and one that is not like the others.
import type { SetAnswer, SetMember } from '@lastmark/contract/types';
import { fatesOf, populationOf } from '@lastmark/core/compare';
import { formatProbability } from '@lastmark/core/quantity';
import { survivalSays } from '@lastmark/core/survival';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Choice } from '../parts/fields.tsx';
import { type MeasureView, plainWords, sampleTitle, spreadWords, words } from './views.ts';

interface Props {
  /** What was told of units after their reports. */
  readonly fates: SetAnswer['fates'];
  readonly views: readonly MeasureView[];
  readonly members: readonly SetMember[];
  readonly modelId: string | null;
  readonly onModel: (id: string) => void;
}

function Population({ view, units }: { readonly view: MeasureView; readonly units: readonly SetMember[] }) {
  const values = units.flatMap(({ id, group }) => {
    const own = view.byId.get(id);
    return own ? [{ id, value: own.value, u: own.u, group }] : [];
  });
  const told = populationOf(values, view.better);
  if (!told) return null;
  const plain = (value: number) => plainWords(view, value);
  const { count, mean, spread, within, between, bound, factor, odd, groups } = told;
  return (
    <Box component="li" sx={{ borderBottom: 1, borderColor: 'divider', py: 1 }}>
      <Typography sx={{ fontWeight: 600 }}>
        {view.title}
        <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary' }}>
          {view.condition && ` · ${view.condition}`}
        </Box>
      </Typography>
      {odd.map(({ id, probability }) => {
        const unit = units.find((one) => one.id === id);
        const own = view.byId.get(id);
        return (
          <Typography key={id} sx={{ color: 'error.main', fontWeight: 600 }}>
            ▼ {unit && sampleTitle(unit)} is not like the others: {own && words(view, own)} (by chance{' '}
            {formatProbability(probability)}). One bad unit, not the model.
          </Typography>
        );
      })}
      <Typography>
        {count === 1 ? 'One unit' : `${count} units`}, mean {plain(mean)}
        {spread !== null && `, spread ${spreadWords(view, spread)}`}
        {within !== null && spread !== null && `, of which the reading makes ${spreadWords(view, within)}`}
        {between !== null && `, between units ${spreadWords(view, between)}`}.
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {bound === null || factor === null
          ? 'One unit says nothing of the next.'
          : view.better === null || spread === 0
            ? ''
            : `With 95 % confidence nine of ten units are ${view.better === 'more' ? 'above' : 'below'} ${plain(bound)} (mean ${view.better === 'more' ? '−' : '+'} ${factor.toFixed(2)} × spread)${count <= 3 ? `: ${count === 2 ? 'two' : 'three'} units say little` : ''}.`}
      </Typography>
      {groups.length > 0 && (
        <Typography variant="body2">
          {groups.map(({ group, count: own, mean: middle }) => `${group}: ${plain(middle)} of ${own}`).join(' · ')}
        </Typography>
      )}
    </Box>
  );
}

/** How long units last, from what was told of them months later. */
function Lasting({ fates, units }: { readonly fates: SetAnswer['fates']; readonly units: readonly SetMember[] }) {
  const ids = new Set(units.map(({ id }) => id));
  const own = fatesOf(fates.filter(({ id }) => ids.has(id)));
  const silent = units.length - own.length;
  return (
    <Box component="li" sx={{ borderBottom: 1, borderColor: 'divider', py: 1 }}>
      <Typography sx={{ fontWeight: 600 }}>What became of them</Typography>
      <Typography>
        {own.length === 0
          ? 'Nobody followed one up yet: amend its report after some months.'
          : survivalSays(own, 'days')}
        {own.length > 0 && silent > 0 && ` Of ${silent === 1 ? 'one' : silent} nobody knows.`}
      </Typography>
    </Box>
  );
}

export function Units({ fates, views, members, modelId, onModel }: Props) {
  const models = new Map<string, SetMember[]>();
  for (const member of members) {
    const own = models.get(member.modelId);
    if (own) own.push(member);
    else models.set(member.modelId, [member]);
  }
  const several = [...models].filter(([, units]) => units.length > 1).sort((a, b) => b[1].length - a[1].length);
  const [id, units] = several.find(([key]) => key === modelId) ?? several[0] ?? [];
  if (!id || !units)
    return (
      <Typography color="text.secondary">
        No model has two units in this set. Where the set takes one unit a model, let it take all of them.
      </Typography>
    );
  return (
    <>
      <Choice
        label="Model"
        value={id}
        options={several.map(([key, all]) => ({
          value: key,
          label: `${all[0]?.maker} ${all[0]?.model}: ${all.length} units`,
        }))}
        onChange={onModel}
        more={{ sx: { minWidth: 320, mb: 1 } }}
      />
      <Box component="ul" aria-label="Units" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {views
          .filter(({ byId }) => units.some((unit) => byId.has(unit.id)))
          .map((view) => (
            <Population key={view.id} view={view} units={units} />
          ))}
        <Lasting fates={fates} units={units} />
      </Box>
    </>
  );
}
