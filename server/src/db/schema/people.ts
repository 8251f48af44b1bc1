// People, what lets them in, and what they did.
import type { Role } from '@lastmark/contract';
import {
  bigint,
  boolean,
  index,
  int,
  mediumtext,
  mysqlTable,
  primaryKey,
  unique,
  varchar,
} from 'drizzle-orm/mysql-core';
import { momentColumn, ulidColumn } from '../columns.ts';

/** SHA-256 as hex: what is kept of a secret that is long enough not to be guessed. */
const digestColumn = (name: string) => varchar(name, { length: 64 });
const roleColumn = () => varchar('role', { length: 10 }).$type<Role>().notNull();

export const people = mysqlTable('people', {
  id: ulidColumn('id').primaryKey(),
  /** What they sign in with, small letters. */
  signIn: varchar('sign_in', { length: 120 }).notNull().unique(),
  name: varchar('name', { length: 60 }).notNull(),
  role: roleColumn(),
  /** Argon2id of the password; null for whom only the lab's provider lets in. */
  password: varchar('password', { length: 200 }),
  /** Secret of the second factor, base32; null without one. */
  factor: varchar('factor', { length: 64 }),
  /** One that was begun and is not confirmed. */
  nextFactor: varchar('next_factor', { length: 64 }),
  /** Last time step a code was taken of: none is taken twice. */
  factorStep: int('factor_step').notNull().default(0),
  /** How the lab's provider names them: issuer and subject. */
  provided: varchar('provided', { length: 300 }).unique(),
  disabled: boolean('disabled').notNull().default(false),
  /** From outside the lab. */
  guest: boolean('guest').notNull().default(false),
  seenAt: momentColumn('seen_at'),
  createdAt: momentColumn('created_at').notNull(),
  version: int('version').notNull().default(1),
});

export const sessions = mysqlTable(
  'sessions',
  {
    /** Digest of the secret the browser has. */
    digest: digestColumn('digest').primaryKey(),
    id: ulidColumn('id').notNull().unique(),
    personId: ulidColumn('person_id')
      .notNull()
      .references(() => people.id),
    madeAt: momentColumn('made_at').notNull(),
    seenAt: momentColumn('seen_at').notNull(),
    endsAt: momentColumn('ends_at').notNull(),
    address: varchar('address', { length: 64 }).notNull(),
    browser: varchar('browser', { length: 200 }).notNull(),
  },
  (table) => [index('sessions_by_person').on(table.personId), index('sessions_by_end').on(table.endsAt)],
);

export const recoveryCodes = mysqlTable(
  'recovery_codes',
  {
    digest: digestColumn('digest').primaryKey(),
    personId: ulidColumn('person_id')
      .notNull()
      .references(() => people.id),
  },
  (table) => [index('recovery_codes_by_person').on(table.personId)],
);

/** Links that let in once: of an invitation, of the first person, or to choose a password anew. */
export const invitations = mysqlTable('invitations', {
  digest: digestColumn('digest').primaryKey(),
  id: ulidColumn('id').notNull().unique(),
  kind: varchar('kind', { length: 8 }).$type<'first' | 'invited' | 'reset'>().notNull(),
  role: roleColumn(),
  guest: boolean('guest').notNull().default(false),
  note: varchar('note', { length: 80 }).notNull(),
  /** Whose password is chosen anew. */
  personId: ulidColumn('person_id').references(() => people.id),
  madeBy: varchar('made_by', { length: 60 }),
  endsAt: momentColumn('ends_at').notNull(),
});

export const accessTokens = mysqlTable(
  'access_tokens',
  {
    digest: digestColumn('digest').primaryKey(),
    id: ulidColumn('id').notNull().unique(),
    personId: ulidColumn('person_id')
      .notNull()
      .references(() => people.id),
    name: varchar('name', { length: 60 }).notNull(),
    role: roleColumn(),
    madeAt: momentColumn('made_at').notNull(),
    endsAt: momentColumn('ends_at').notNull(),
    seenAt: momentColumn('seen_at'),
  },
  (table) => [index('access_tokens_by_person').on(table.personId)],
);

/** Tries to come in that went wrong, and those under way: counted by name and address. */
export const signInTries = mysqlTable(
  'sign_in_tries',
  {
    id: ulidColumn('id').primaryKey(),
    account: varchar('account', { length: 120 }).notNull(),
    address: varchar('address', { length: 64 }).notNull(),
    at: momentColumn('at').notNull(),
  },
  (table) => [
    index('sign_in_tries_by_account').on(table.account, table.at),
    index('sign_in_tries_by_address').on(table.address, table.at),
  ],
);

/** What all copies of the server must know alike and nobody else. */
export const labSecrets = mysqlTable('lab_secrets', {
  name: varchar('name', { length: 40 }).primaryKey(),
  value: varchar('value', { length: 200 }).notNull(),
});

/** Who did what when. Only ever added; `sealed` alone is set later, by whoever chains it. */
export const logEntries = mysqlTable(
  'log_entries',
  {
    id: ulidColumn('id').primaryKey(),
    at: momentColumn('at').notNull(),
    personId: ulidColumn('person_id'),
    who: varchar('who', { length: 80 }).notNull(),
    through: varchar('through', { length: 8 }).notNull(),
    keyId: ulidColumn('key_id'),
    operation: varchar('operation', { length: 40 }).notNull(),
    subject: varchar('subject', { length: 64 }),
    sampleId: ulidColumn('sample_id'),
    /** JSON as it was sent, without secrets and shortened. */
    body: mediumtext('body'),
    whole: boolean('whole').notNull().default(true),
    request: varchar('request', { length: 64 }),
    /** What was undone by it: an entry. */
    undoes: ulidColumn('undoes'),
    sealed: boolean('sealed').notNull().default(false),
  },
  (table) => [
    index('log_entries_by_seal').on(table.sealed, table.id),
    index('log_entries_by_person').on(table.personId, table.id),
    index('log_entries_by_sample').on(table.sampleId, table.id),
    index('log_entries_by_subject').on(table.subject, table.id),
    index('log_entries_by_time').on(table.at),
    index('log_entries_by_operation').on(table.operation, table.id),
  ],
);

/** What an entry is found by. */
export const logThings = mysqlTable(
  'log_things',
  {
    thingId: ulidColumn('thing_id').notNull(),
    entryId: ulidColumn('entry_id').notNull(),
  },
  (table) => [primaryKey({ columns: [table.thingId, table.entryId] })],
);

/** The chain: each seal holds the entry and the seal before it. */
export const logSeals = mysqlTable(
  'log_seals',
  {
    place: bigint('place', { mode: 'number' }).primaryKey(),
    entryId: ulidColumn('entry_id').notNull(),
    seal: digestColumn('seal').notNull(),
  },
  (table) => [unique('log_seals_by_entry').on(table.entryId)],
);
