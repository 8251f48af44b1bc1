// The stations' pages. A new station is one folder and one line here; its title and its place come from the core.
import { STATIONS_ABOUT, type StationAbout, type StationId } from '@lastmark/core/station';
import type { ComponentType } from 'react';

export interface Station extends StationAbout {
  readonly id: StationId;
  /** The page, fetched when first visited. */
  readonly page: () => Promise<ComponentType>;
}

const PAGES: Readonly<Record<StationId, Station['page']>> = {
  intake: async () => (await import('./intake/IntakePage.tsx')).IntakePage,
  claims: async () => (await import('./claims/ClaimsPage.tsx')).ClaimsPage,
  'read-out': async () => (await import('./read-out/ReadOutPage.tsx')).ReadOutPage,
  proof: async () => (await import('./proof/ProofPage.tsx')).ProofPage,
  splits: async () => (await import('./splits/SplitsPage.tsx')).SplitsPage,
  devices: async () => (await import('./devices/DevicesPage.tsx')).DevicesPage,
  idle: async () => (await import('./idle/IdlePage.tsx')).IdlePage,
  efficiency: async () => (await import('./efficiency/EfficiencyPage.tsx')).EfficiencyPage,
  ripple: async () => (await import('./ripple/RipplePage.tsx')).RipplePage,
  heat: async () => (await import('./heat/HeatPage.tsx')).HeatPage,
  safety: async () => (await import('./safety/SafetyPage.tsx')).SafetyPage,
  marker: async () => (await import('./marker/MarkerPage.tsx')).MarkerPage,
  resistance: async () => (await import('./resistance/ResistancePage.tsx')).ResistancePage,
  data: async () => (await import('./data/DataPage.tsx')).DataPage,
  bends: async () => (await import('./bends/BendsPage.tsx')).BendsPage,
  verdict: async () => (await import('./verdict/VerdictPage.tsx')).VerdictPage,
};

/** Stations in the order of the work. */
export const STATIONS: readonly Station[] = STATIONS_ABOUT.map((about) => ({ ...about, page: PAGES[about.id] }));
