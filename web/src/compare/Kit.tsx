// What one charger would replace: sums of a kit beside the one; keeping what one has is an answer too.
import type { ComparisonBody, SetMember } from '@lastmark/contract/types';
import { type KitAdvice, type KitPiece, type KitSum, kitAdvice, kitSum } from '@lastmark/core/compare';
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { QuietTable } from '../parts/QuietTable.tsx';
import { KitEvening } from './KitEvening.tsx';
import { setQuery } from './queries.ts';
import { currencyOf, type MeasureView, sampleTitle, viewsOf } from './views.ts';

interface Props {
  readonly body: ComparisonBody;
  readonly members: readonly SetMember[];
}

/** What a kit is summed up by, whatever the comparison shows. */
const KIT_MEASURES = ['mass', 'volume', 'price', 'idle'] as const;

function pieceOf(member: SetMember, views: readonly MeasureView[]): KitPiece {
  const of = (id: string) => views.find((view) => view.id === id);
  const value = (id: string) => of(id)?.byId.get(member.id)?.value ?? null;
  const priceView = of('price');
  return {
    id: member.id,
    title: sampleTitle(member),
    mass: value('mass'),
    volume: value('volume'),
    price: value('price'),
    currency: priceView ? currencyOf(priceView) : null,
    idle: value('idle'),
    sockets: member.kind === 'cable' ? 0 : 1,
  };
}

interface Line {
  readonly name: string;
  readonly of: (sum: KitSum) => number | null;
  readonly say: (value: number) => string;
}

const linesOf = (currency: string): readonly Line[] => [
  { name: 'Mass', of: ({ mass }) => mass, say: (value) => `${Math.round(value * 1000)} g` },
  { name: 'Volume', of: ({ volume }) => volume, say: (value) => `${Math.round(value * 1e6)} cm³` },
  { name: 'Price', of: ({ price }) => price, say: (value) => `${currency} ${value.toFixed(2)}`.trim() },
  { name: 'Sockets', of: ({ sockets }) => sockets, say: String },
  { name: 'Idle a year', of: ({ idleYear }) => idleYear, say: (value) => `${value.toFixed(2)} kWh` },
];

/** What it comes to, in a sentence. */
const ADVICE: Readonly<Record<KitAdvice, string>> = {
  replace:
    'The one is lighter and draws less. Whether its ports serve all devices at once says Where to plug at Splits.',
  keep: 'Keep what you have: the one is neither lighter nor draws less.',
  either: 'The one is better in mass or in what it draws, and worse in the other.',
  unknown: 'Not decided: mass or idle of something is not known.',
};

export function Kit({ body, members }: Props) {
  const measures = KIT_MEASURES.map(
    (measure) => body.measures.find((one) => one.measure === measure) ?? { measure, condition: null },
  );
  const { data } = useQuery(setQuery(body.rule, measures));
  const views = data ? viewsOf({ ...body, measures, own: [] }, data, []) : [];
  const [kit, setKit] = useState<readonly SetMember[]>([]);
  const [one, setOne] = useState<SetMember | null>(null);
  const [kitTotal, oneTotal] = [
    kitSum(kit.map((member) => pieceOf(member, views))),
    kitSum(one ? [pieceOf(one, views)] : []),
  ];
  const price = views.find(({ id }) => id === 'price');
  const missing = [...kitTotal.missing, ...oneTotal.missing];
  const chosen = kit.length > 0 && one !== null;
  const options = [...members];
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '2fr 1fr' }, gap: 1.5, mb: 1.5 }}>
        <Autocomplete
          multiple
          size="small"
          options={options.filter(({ id }) => id !== one?.id)}
          value={kit as SetMember[]}
          getOptionLabel={sampleTitle}
          getOptionKey={({ id }) => id}
          onChange={(_event, all) => setKit(all)}
          renderInput={(parts) => (
            <TextField {...parts} label="What there is" placeholder={kit.length === 0 ? 'Chargers and cables' : ''} />
          )}
        />
        <Autocomplete
          size="small"
          options={options.filter(({ id }) => !kit.some((piece) => piece.id === id))}
          value={one}
          getOptionLabel={sampleTitle}
          getOptionKey={({ id }) => id}
          onChange={(_event, next) => setOne(next)}
          renderInput={(parts) => <TextField {...parts} label="What would replace it" />}
        />
      </Box>
      {chosen ? (
        <>
          <Typography sx={{ mb: 1, fontWeight: 600 }}>{ADVICE[kitAdvice(kitTotal, oneTotal)]}</Typography>
          <QuietTable<Line>
            label="The kit"
            rows={linesOf(price ? currencyOf(price) : '')}
            rowKey={({ name }) => name}
            columns={[
              { head: '', cell: ({ name }) => name },
              { head: 'What there is', cell: ({ of, say }) => told(of(kitTotal), say) },
              { head: 'The one', cell: ({ of, say }) => told(of(oneTotal), say) },
              {
                head: 'Difference',
                cell: ({ of, say }) => {
                  const [a, b] = [of(kitTotal), of(oneTotal)];
                  return a === null || b === null ? 'not known' : `${b < a ? '−' : '+'}${say(Math.abs(b - a))}`;
                },
              },
            ]}
          />
          {missing.length > 0 && (
            <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
              Not known: {missing.join(', ')}.
            </Typography>
          )}
          <KitEvening kit={kit} one={one} />
        </>
      ) : (
        <Typography color="text.secondary">Choose what there is, and what would replace it.</Typography>
      )}
    </>
  );
}

const told = (value: number | null, say: (value: number) => string): string =>
  value === null ? 'not known' : say(value);
