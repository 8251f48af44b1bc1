// Where proof is taken: the rig and the mains chosen on the page, kept while one works.
import type { StoredRig } from '@lastmark/contract/types';
import { type Mains, mainsLabel } from '@lastmark/core/reading';
import { useDraft } from '../../parts/useDraft.ts';
import { useSample, useSupplies } from '../../state/sample.tsx';

export interface ProofPlace {
  readonly rig: StoredRig | undefined;
  readonly mains: Mains;
}

export function useProofPlace() {
  const { rigs, points, setups } = useSample().dossier;
  const kept = useDraft('proof-place', { rigId: '', mains: '' });
  const proof = setups.filter(({ purpose }) => purpose === 'proof').map(({ id }) => id);
  const last = points.findLast(({ setupId }) => setupId !== null && proof.includes(setupId));
  const rig = rigs.find(({ id }) => id === kept.value.rigId) ?? rigs.find(({ id }) => id === last?.rigId) ?? rigs[0];
  const supplies = useSupplies();
  const mains = supplies.find((one) => mainsLabel(one) === kept.value.mains) ??
    last?.mains ??
    supplies.at(-1) ?? { kind: 'ac' as const, volts: 230, hertz: 50 };
  return {
    rig,
    mains,
    supplies: supplies.some((one) => mainsLabel(one) === mainsLabel(mains)) ? supplies : [...supplies, mains],
    choose: (part: { rigId?: string; mains?: string }) => kept.set({ ...kept.value, ...part }),
  };
}
