// Instrument profiles: those that ship, and those this bench made.
import type { InstrumentProfileInput, StoredInstrument, StoredInstrumentProfile } from '@lastmark/contract';
import { BUILT_IN, FOLLOWED, type InstrumentProfile, profileProblems } from '@lastmark/core/instrument';
import { eq } from 'drizzle-orm';
import type { Database, Queries } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { instrumentProfiles, instruments } from '../db/schema.ts';
import { notFound, refused } from '../http/problem.ts';
import { etagOf, requireMatch } from '../http/versions.ts';
import { requireFree } from '../leases/leases.ts';

/** One that was stored wrong has no commands, and keeps no other from being listed. */
const toInput = ({
  commands,
  replies,
  examples,
  channels,
  wire,
  ...rest
}: InstrumentProfile): InstrumentProfileInput => ({
  ...rest,
  commands: Object.entries(commands ?? {}).map(([action, command]) => {
    const reply = replies?.[action];
    return { action, command: String(command), ...(reply === undefined ? {} : { reply }) };
  }),
  ...(examples ? { examples: [...examples] } : {}),
  ...(channels ? { channels: [...channels] } : {}),
  ...(wire ? { wire } : {}),
});

const toProfile = ({
  title,
  class: kind,
  commands,
  examples,
  channels,
  wire,
}: InstrumentProfileInput): InstrumentProfile => {
  const replies = commands.flatMap(({ action, reply }) => (reply === undefined ? [] : [[action, reply] as const]));
  return {
    title,
    class: kind,
    commands: Object.fromEntries(commands.map(({ action, command }) => [action, command])),
    ...(replies.length > 0 ? { replies: Object.fromEntries(replies) } : {}),
    ...(examples && examples.length > 0 ? { examples } : {}),
    ...(channels && channels.length > 0 ? { channels } : {}),
    ...(wire ? { wire } : {}),
  };
};

const shipped =
  (way: string) =>
  (profile: InstrumentProfile): StoredInstrumentProfile => ({
    ...toInput(profile),
    id: `${way}-${profile.class.toLowerCase().replaceAll(' ', '-')}`,
    builtIn: true,
    version: 1,
  });

const SHIPPED: readonly StoredInstrumentProfile[] = [
  ...BUILT_IN.map(shipped('built-in')),
  ...FOLLOWED.map(shipped('file')),
];

export async function listProfiles(db: Queries): Promise<StoredInstrumentProfile[]> {
  const rows = await db.select().from(instrumentProfiles).orderBy(instrumentProfiles.id);
  return [
    ...SHIPPED,
    ...rows.map(({ id, profile, version }) => ({ ...toInput(profile), id, builtIn: false, version })),
  ];
}

/** The profile an instrument is driven by; undefined when it has none, or one of another class. */
export function profileOf(
  profiles: readonly StoredInstrumentProfile[],
  instrument: Pick<StoredInstrument, 'profileId' | 'class'>,
): InstrumentProfile | undefined {
  const found = profiles.find(({ id, class: kind }) => id === instrument.profileId && kind === instrument.class);
  return found && toProfile(found);
}

function checked(input: InstrumentProfileInput): InstrumentProfile {
  const profile = toProfile(input);
  if (Object.keys(profile.commands).length !== input.commands.length)
    throw refused('commands', 'An action stands once in a profile.');
  const [problem] = profileProblems(profile);
  if (problem) throw refused('commands', problem);
  return profile;
}

export async function createProfile(db: Database, input: InstrumentProfileInput): Promise<StoredInstrumentProfile> {
  const id = newId();
  await db.insert(instrumentProfiles).values({ id, profile: checked(input) });
  return { ...input, id, builtIn: false, version: 1 };
}

export async function changeProfile(
  db: Database,
  id: string,
  input: InstrumentProfileInput,
  seen: string | null,
): Promise<StoredInstrumentProfile> {
  if (SHIPPED.some((one) => one.id === id))
    throw refused('profileId', 'This profile ships with Lastmark. Copy it, then change the copy.');
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(instrumentProfiles).where(eq(instrumentProfiles.id, id)).for('update');
    if (!row) throw notFound('profile');
    requireMatch(seen, etagOf(row.version), 'profile');
    for (const driven of await tx.select().from(instruments).where(eq(instruments.profileId, id)))
      await requireFree(tx, driven, 'change its profile');
    const version = row.version + 1;
    await tx
      .update(instrumentProfiles)
      .set({ profile: checked(input), version })
      .where(eq(instrumentProfiles.id, id));
    return { ...input, id, builtIn: false, version };
  });
}
