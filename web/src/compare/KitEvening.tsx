// An evening simulated with what there is, and with the one that would replace it: when each device of the bench is full.
import type { SetMember } from '@lastmark/contract/types';
import type { KitDevice } from '@lastmark/core/split';
import { MOST_CHARGERS, MOST_TOGETHER, plugDevice } from '@lastmark/core/split';
import Typography from '@mui/material/Typography';
import { useQueries, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { devicesQuery, dossierQuery } from '../api/queries.ts';
import { Choice } from '../parts/fields.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { toJudge } from '../state/sample.tsx';
import { usePlugWork } from '../state/usePlugWork.ts';
import { sampleTitle } from './views.ts';

const HOURS = ['4', '8', '12'] as const;
/** Level every device comes with. */
const FROM = 0.2;

interface Props {
  readonly kit: readonly SetMember[];
  readonly one: SetMember;
}

interface Line {
  readonly id: string;
  readonly name: string;
  readonly kit: KitDevice | undefined;
  readonly one: KitDevice | undefined;
}

const hourWords = (seconds: number): string => `full in ${(seconds / 3600).toFixed(1)} h`;

function fareWords(own: KitDevice | undefined): string {
  if (!own) return '';
  if (own.unknown) return 'not measured';
  if (own.charger === null) return 'waits for a port';
  if (own.fullAt !== null) return hourWords(own.fullAt);
  return own.level === null ? 'runs' : `${Math.round(own.level * 100)} % at the end`;
}

export function KitEvening({ kit, one }: Props) {
  const [hours, setHours] = useState<(typeof HOURS)[number]>('8');
  const work = usePlugWork();
  const devices = useQuery(devicesQuery);
  const chargers = [...kit.filter(({ kind }) => kind !== 'cable').slice(0, MOST_CHARGERS), one];
  const found = useQueries({ queries: chargers.map(({ id }) => dossierQuery(id)) });
  const loaded = found.flatMap(({ data }) => data ?? []);
  const wanting = (devices.data?.items ?? [])
    .slice(0, MOST_TOGETHER)
    .map((device) => ({ ...plugDevice(device), level: FROM }));
  const ready = loaded.length === chargers.length && wanting.length > 0;
  const { data, error } = useQuery({
    queryKey: [
      'kit evening',
      chargers.map(({ id }) => id),
      found.map(({ dataUpdatedAt }) => dataUpdatedAt),
      wanting,
      hours,
    ],
    enabled: ready,
    gcTime: 0,
    retry: false,
    queryFn: async () => {
      const all = loaded.map((dossier) => ({ id: dossier.sample.id, dossier: toJudge(dossier) }));
      const seconds = Number(hours) * 3600;
      return {
        kit: await work.evenings(all.slice(0, -1), wanting, seconds),
        one: await work.evenings(all.slice(-1), wanting, seconds),
      };
    },
  });
  const nameOf = (own: KitDevice | undefined): string => {
    const place = chargers.find(({ id }) => id === own?.charger);
    return place && kit.length > 1 ? ` at ${place.serial || place.model}` : '';
  };
  const lines = wanting.map(
    ({ id, name }): Line => ({
      id,
      name,
      kit: data?.kit.find((own) => own.id === id),
      one: data?.one.find((own) => own.id === id),
    }),
  );
  if (devices.data?.items.length === 0)
    return <Typography color="text.secondary">Add your devices at Bench to see an evening with either.</Typography>;
  return (
    <section aria-labelledby="kit-evening">
      <Typography variant="h2" id="kit-evening" sx={{ mt: 3, mb: 1 }}>
        An evening with either
      </Typography>
      <Choice
        label="Hours"
        value={hours}
        options={HOURS}
        onChange={setHours}
        more={{ fullWidth: false, sx: { width: 120, mb: 1 } }}
      />
      {error && <Typography color="error">{error.message}</Typography>}
      <QuietTable<Line>
        label="An evening with either"
        rows={lines}
        rowKey={({ id }) => id}
        exception={({ one: own, kit: before }) => own?.charger === null && before?.charger !== null}
        columns={[
          { head: 'Device', cell: ({ name }) => name },
          {
            head: 'What there is',
            cell: ({ kit: own }) => `${fareWords(own)}${nameOf(own)}`,
            empty: 'being worked out',
          },
          { head: 'The one', cell: ({ one: own }) => fareWords(own), empty: 'being worked out' },
        ]}
      />
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        Every device comes with 20 % and hangs where it is best for all. {sampleTitle(one)} is taken by what was
        measured, and by its label where no combination was.
      </Typography>
    </section>
  );
}
