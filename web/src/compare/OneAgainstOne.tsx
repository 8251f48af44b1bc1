// One against one: a bridge of differences, each with its uncertainty, the better side in words.
import type { SetMember } from '@lastmark/contract/types';
import { stepBetween } from '@lastmark/core/compare';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { BarsChart } from '../parts/BarsChart.tsx';
import { Choice } from '../parts/fields.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { type MeasureView, sampleTitle, words } from './views.ts';

interface Props {
  readonly views: readonly MeasureView[];
  readonly members: readonly SetMember[];
  readonly first: string | null;
  readonly second: string | null;
  readonly onPick: (pair: { first?: string; second?: string }) => void;
}

interface Line {
  readonly view: MeasureView;
  readonly a: string;
  readonly b: string;
  readonly difference: string;
  readonly part: number | null;
  readonly spread: number | null;
  readonly better: string;
  readonly told: boolean;
}

/** Most samples a list of choices has; beyond, the table marks them. */
const MOST_CHOICES = 400;

export function OneAgainstOne({ views, members, first, second, onPick }: Props) {
  const options = members.slice(0, MOST_CHOICES).map((member) => ({ value: member.id, label: sampleTitle(member) }));
  const a = members.find(({ id }) => id === first) ?? members[0];
  const b = members.find(({ id }) => id === second && id !== a?.id) ?? members.find(({ id }) => id !== a?.id);
  if (!a || !b) return <Typography color="text.secondary">Two samples are needed.</Typography>;
  const lines = views.flatMap((view): Line[] => {
    const [one, other] = [view.byId.get(a.id), view.byId.get(b.id)];
    if (!one || !other) return [];
    const step = stepBetween(one, other, view.better);
    const base = Math.abs(one.value);
    return [
      {
        view,
        a: words(view, one),
        b: words(view, other),
        difference: step
          ? words(view, {
              value: step.value,
              u: step.expanded === null ? null : step.expanded / 2,
              below: false,
            })
          : 'one is only known to be below',
        part: step?.part ?? null,
        spread: step && step.expanded !== null && base > 0 ? step.expanded / base : null,
        better: step?.better
          ? step.better === 'first'
            ? a.model
            : b.model
          : view.better === null
            ? ''
            : 'not told apart',
        told: step?.better != null,
      },
    ];
  });
  const drawn = lines.filter(({ part }) => part !== null);
  const lacking = views.filter(({ byId }) => !byId.has(a.id) || !byId.has(b.id));
  return (
    <>
      <Box
        sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 1.5, mb: 1.5, maxWidth: 900 }}
      >
        <Choice label="One" value={a.id} options={options} onChange={(id) => onPick({ first: id })} />
        <Choice label="Against" value={b.id} options={options} onChange={(id) => onPick({ second: id })} />
      </Box>
      {drawn.length > 0 && (
        <BarsChart
          caption={`${b.model} against ${a.model}: by how much it differs`}
          title={`Difference, % of ${a.model}`}
          lines={drawn.map(({ view, part, spread, difference, better, told }) => ({
            name: view.title,
            value: Math.abs((part ?? 0) * 100),
            ...(spread === null
              ? {}
              : {
                  known: [
                    Math.max(0, (Math.abs(part ?? 0) - spread) * 100),
                    (Math.abs(part ?? 0) + spread) * 100,
                  ] as const,
                }),
            words: `${difference}${better ? `: ${told ? `${better} is better` : better}` : ''}`,
          }))}
          table={[
            ['measure', 'condition', a.model, b.model, 'difference', 'part_of_first'],
            ...lines.map(({ view, a: va, b: vb, difference, part }) => [
              view.title,
              view.condition,
              va,
              vb,
              difference,
              part,
            ]),
          ]}
        />
      )}
      <Box sx={{ mt: 1.5 }}>
        <QuietTable<Line>
          label="Differences"
          rows={lines}
          rowKey={({ view }) => view.id}
          columns={[
            { head: 'Measure', cell: ({ view }) => view.title },
            { head: 'Under', cell: ({ view }) => view.condition || '–' },
            { head: a.model, cell: (line) => line.a },
            { head: b.model, cell: (line) => line.b },
            { head: 'Difference', cell: ({ difference }) => difference },
            { head: 'Better', cell: ({ better, told }) => (told ? <strong>{better}</strong> : better) },
          ]}
        />
      </Box>
      {lacking.length > 0 && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
          Not compared, since one of them lacks it under that condition: {lacking.map(({ title }) => title).join(', ')}.
        </Typography>
      )}
    </>
  );
}
