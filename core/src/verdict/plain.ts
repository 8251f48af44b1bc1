// Stations that conclude nothing of their own: what is entered, and what everything comes to.
import { worstOf } from '../evidence/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import type { Dossier } from './types.ts';

export const intakeStation: Station<'intake', Pick<Dossier, 'sample'>, object, null> = {
  ...aboutStation('intake'),
  reads: ['sample'],
  needs: [],
  conclude: () => null,
  progress(_result, { sample }) {
    const entered = [sample.ports.length > 0, sample.mass !== null, sample.prices.length > 0];
    return { done: entered.filter(Boolean).length, total: entered.length, worst: null };
  },
};

export const claimsStation: Station<'claims', Pick<Dossier, 'claims'>, object, null> = {
  ...aboutStation('claims'),
  reads: ['claims'],
  needs: [],
  conclude: () => null,
  progress: (_result, { claims }) => ({ done: claims.length, total: Math.max(claims.length, 1), worst: null }),
};

export const verdictStation: Station<'verdict', Pick<Dossier, 'claims'>, object, null> = {
  ...aboutStation('verdict'),
  reads: ['claims'],
  needs: [],
  conclude: () => null,
  progress: (_result, { claims }, _settles, all) => ({
    done: all.filter((state) => state !== 'not tested').length,
    total: Math.max(claims.length, 1),
    worst: worstOf(all),
  }),
};
