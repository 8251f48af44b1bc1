// The choices of method.
import type { StoredProfile } from '@lastmark/contract';
import { LIMIT_SETS } from '@lastmark/core/limits';
import { limitsRefusal } from '@lastmark/core/plan';
import { ZERO_CELSIUS } from '@lastmark/core/quantity';
import { REGULATORY_PAIR } from '@lastmark/core/reading';
import type { Profile } from '@lastmark/core/verdict';
import { eq } from 'drizzle-orm';
import { listInstruments } from '../bench/store.ts';
import { changedForAll } from '../changes/changes.ts';
import type { Database, Queries } from '../db/database.ts';
import { profiles } from '../db/schema.ts';
import { refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { listLimitSets } from '../limit-sets/store.ts';

const ID = 'bench';

/** What holds until someone chooses otherwise. */
export const DEFAULT_PROFILE: Profile = {
  rule: 'guarded',
  allowance: 0.02,
  mains: REGULATORY_PAIR,
  tariff: 0.32,
  currency: 'EUR',
  limitSetIds: LIMIT_SETS.map(({ id }) => id),
  tolerance: null,
  continuous: 3600,
  overRating: { on: false, step: 0.03, seconds: 3 },
  more: { as: 'stated', margin: 0.05 },
  limits: { hottest: ZERO_CELSIUS + 90, volts: null, amps: null, watts: null },
  signalModes: [],
};

export async function getProfile(db: Queries): Promise<StoredProfile> {
  const [row] = await db.select().from(profiles).where(eq(profiles.id, ID));
  return row ? { ...DEFAULT_PROFILE, ...row.settings, version: row.version } : { ...DEFAULT_PROFILE, version: 0 };
}

/** Change the choices; every sample is judged anew when next looked at. */
export async function updateProfile(db: Database, settings: Profile, seen: string | null): Promise<StoredProfile> {
  const sets = await listLimitSets(db);
  const unknown = settings.limitSetIds.find((id) => !sets.some((set) => set.id === id));
  if (unknown !== undefined) throw refused('limitSetIds', `There is no limit set "${unknown}".`);
  const above = limitsRefusal(settings.limits, await listInstruments(db));
  if (above) throw refused('limits', above);
  return db.transaction(async (tx) => {
    // Whoever saves at the same moment waits here, and finds the other version; what is read below is read after that.
    await tx.select({ id: profiles.id }).from(profiles).where(eq(profiles.id, ID)).for('update');
    const current = await getProfile(tx);
    requireMatch(seen, etagOf(current.version), 'profile');
    const version = current.version + 1;
    await tx
      .insert(profiles)
      .values({ id: ID, settings, version })
      .onDuplicateKeyUpdate({ set: { settings, version } });
    await changedForAll(tx, 'profile');
    return { ...settings, version };
  });
}
