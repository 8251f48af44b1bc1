// The stations in the order of the work. A new station is one folder and one line here.
import type { StationId } from '@lastmark/core/verdict';
import type { ComponentType } from 'react';

export interface Station {
  readonly id: StationId;
  readonly title: string;
  /** The page, fetched when first visited. */
  readonly page: () => Promise<ComponentType>;
}

export const STATIONS: readonly Station[] = [
  { id: 'intake', title: 'Intake', page: async () => (await import('./intake/IntakePage.tsx')).IntakePage },
  { id: 'claims', title: 'Claims', page: async () => (await import('./claims/ClaimsPage.tsx')).ClaimsPage },
  { id: 'read-out', title: 'Read-out', page: async () => (await import('./read-out/ReadOutPage.tsx')).ReadOutPage },
  { id: 'proof', title: 'Proof', page: async () => (await import('./proof/ProofPage.tsx')).ProofPage },
  { id: 'splits', title: 'Splits', page: async () => (await import('./splits/SplitsPage.tsx')).SplitsPage },
  { id: 'idle', title: 'Idle', page: async () => (await import('./idle/IdlePage.tsx')).IdlePage },
  {
    id: 'efficiency',
    title: 'Efficiency',
    page: async () => (await import('./efficiency/EfficiencyPage.tsx')).EfficiencyPage,
  },
  { id: 'verdict', title: 'Verdict', page: async () => (await import('./verdict/VerdictPage.tsx')).VerdictPage },
];
