// The bench: instruments, their profiles, rigs, devices.
import type { InstrumentProfile } from '@lastmark/core/instrument';
import type { Ratings } from '@lastmark/core/plan';
import type { Device } from '@lastmark/core/proof';
import type { Sees } from '@lastmark/core/read-out';
import type { Instrument, LineElement, PointPlace, Probe, RigDrives } from '@lastmark/core/reading';
import { type AnyMySqlColumn, double, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { jsonColumn, ulidColumn } from '../columns.ts';

export const instruments = mysqlTable('instruments', {
  id: ulidColumn('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  /** The bench it stands on, as the copy of the server beside that is told (`LASTMARK_BENCH`); empty where there is one bench. */
  bench: varchar('bench', { length: 40 }).notNull().default(''),
  class: varchar('class', { length: 40 }).notNull(),
  firmware: varchar('firmware', { length: 40 }).notNull(),
  calibrationDue: varchar('calibration_due', { length: 10 }),
  calibratedOn: varchar('calibrated_on', { length: 10 }),
  sees: jsonColumn<Sees>('sees'),
  /** Where it answers, as `parseAddress` reads it; null for one that is read by eye. */
  address: varchar('address', { length: 240 }),
  profileId: varchar('profile_id', { length: 60 }),
  specs: jsonColumn<Instrument['specs']>('specs').notNull(),
  ratings: jsonColumn<Ratings>('ratings'),
  version: int('version').notNull().default(1),
});

/** A column that names an instrument. */
export const instrumentRef = (name: string) =>
  ulidColumn(name)
    .notNull()
    .references((): AnyMySqlColumn => instruments.id);

/** Profiles a bench made: actions of a class, and the strings that carry them out. */
export const instrumentProfiles = mysqlTable('instrument_profiles', {
  id: ulidColumn('id').primaryKey(),
  profile: jsonColumn<InstrumentProfile>('profile').notNull(),
  version: int('version').notNull().default(1),
});

export const rigs = mysqlTable('rigs', {
  id: ulidColumn('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  mainsMeterId: instrumentRef('mains_meter_id'),
  /** Null on a rig that reads at the socket only. */
  outputVoltsMeterId: ulidColumn('output_volts_meter_id').references((): AnyMySqlColumn => instruments.id),
  outputAmpsMeterId: ulidColumn('output_amps_meter_id').references((): AnyMySqlColumn => instruments.id),
  loadEndMeterId: ulidColumn('load_end_meter_id').references((): AnyMySqlColumn => instruments.id),
  elements: jsonColumn<readonly LineElement[]>('elements'),
  outputPlace: varchar('output_place', { length: 10 }).$type<'port' | 'load-end'>().notNull(),
  leadOhms: double('lead_ohms').notNull(),
  leadUOhms: double('lead_u_ohms').notNull(),
  drives: jsonColumn<RigDrives>('drives'),
  probe: jsonColumn<Probe>('probe'),
  spots: jsonColumn<readonly PointPlace[]>('spots'),
  note: varchar('note', { length: 400 }).notNull(),
  version: int('version').notNull().default(1),
});

/** Real devices that serve as loads. */
export const devices = mysqlTable('devices', {
  id: ulidColumn('id').primaryKey(),
  facts: jsonColumn<Omit<Device, 'id'>>('facts').notNull(),
  version: int('version').notNull().default(1),
});
