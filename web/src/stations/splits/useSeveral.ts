// Devices among several chargers, worked out by a worker of its own; the newest question wins.
import type { SampleDossier } from '@lastmark/contract/types';
import type { PlugDevice, PlugSource } from '@lastmark/core/split';
import { useQuery } from '@tanstack/react-query';
import { toJudge } from '../../state/sample.tsx';
import { usePlugWork } from '../../state/usePlugWork.ts';

export function useSeveral(
  own: { readonly id: string; readonly mass: number | null; readonly source: PlugSource },
  others: readonly SampleDossier[],
  devices: readonly PlugDevice[],
  /** When what is known of the others was fetched. */
  asOf: readonly number[],
) {
  const work = usePlugWork();
  const asked = others.length > 0 && devices.length > 0;
  const query = useQuery({
    queryKey: ['several chargers', own, others.map(({ sample }) => sample.id), asOf, devices],
    enabled: asked,
    gcTime: 0,
    retry: false,
    placeholderData: (before) => before,
    queryFn: () =>
      work.several(
        own,
        others.map((one) => ({ id: one.sample.id, dossier: toJudge(one) })),
        devices,
      ),
  });
  return { result: asked ? (query.data ?? null) : null, error: query.error?.message ?? null };
}
