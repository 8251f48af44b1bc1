// The entry of the sample at hand: rows show what is known, cells are stored one after the other.

import type { Point } from '@lastmark/core/reading';
import { readingAt } from '@lastmark/core/reading';
import { useRef, useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { dossierQuery, queryClient, refreshSample, takePoints } from '../api/queries.ts';
import { useDossierNow } from '../state/sample.tsx';
import { useSettings } from '../state/settings.tsx';
import { createEntry, type PointKey, type Target } from './entry.ts';
import { parseTaken } from './taken.ts';

export type { PointKey, Target } from './entry.ts';

export function useEntry() {
  const dossier = useDossierNow();
  const sampleId = dossier.sample.id;
  const typedAs = useRef('');
  typedAs.current = useSettings().typedAs;
  const [entry] = useState(() =>
    createEntry({
      known: () => queryClient.getQueryData(dossierQuery(sampleId).queryKey) ?? dossier,
      store: async (point) => {
        const { points } = await api<{ points: Point[] }>(`/samples/${sampleId}/readings`, {
          method: 'POST',
          body: { points: [point] },
        });
        return points;
      },
      outdated: () => refreshSample(sampleId),
      stored: async (points, made) => {
        takePoints(sampleId, points);
        // A first reading makes its proof step; the page must know it before it can show the reading.
        if (made) await refreshSample(sampleId);
        void queryClient.invalidateQueries({ queryKey: ['samples'] });
      },
      newId: ulid,
      now: () => {
        const read = parseTaken(typedAs.current, new Date());
        if ('reason' in read) throw new Error(`What is typed was taken: ${read.reason}`);
        return read.at;
      },
    }),
  );
  const pointOf = (key: PointKey): Point | undefined => entry.pointOf(dossier, key);
  const typedAt = (key: PointKey, { quantity, place, port }: Target): string => {
    const point = pointOf(key);
    return point ? (readingAt(point, quantity, place, port)?.typed ?? '') : '';
  };
  return { pointOf, typedAt, commit: entry.commit, repeat: entry.repeat };
}
