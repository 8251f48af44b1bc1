// What a run needs before its first step: its row, its rig with the instruments, and who drives and listens.
import type { SheetRun, StoredInstrument, StoredInstrumentProfile, StoredRig } from '@lastmark/contract';
import { LIVE_ACTION, USUAL_WIRE } from '@lastmark/core/instrument';
import { loadedPlaces } from '@lastmark/core/plan';
import { listInstruments, listRigs } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import type { Links } from '../links/links.ts';
import { listProfiles, profileOf } from '../links/profiles.ts';
import { getSample } from '../samples/store.ts';
import { type Permission, RigDriver } from './driver.ts';
import { Looks } from './looks.ts';
import { getRun, instrumentsOf } from './rows.ts';
import { Fault } from './turns.ts';

export interface Ready {
  readonly run: SheetRun;
  readonly rig: StoredRig;
  readonly own: readonly StoredInstrument[];
  readonly ports: readonly string[];
  /** The sample sits in the line: what feeds it is the rig's. */
  readonly inLine: boolean;
  readonly looks: Looks;
  readonly driver: RigDriver;
  /** Instruments that should tell numbers; ids. */
  readonly telling: readonly string[];
}

/** How long each instrument may take over a reply, ms. */
const patienceOf = (own: readonly StoredInstrument[], profiles: readonly StoredInstrumentProfile[]) =>
  new Map(own.map((one) => [one.id, 1000 * (profileOf(profiles, one)?.wire ?? USUAL_WIRE).patience]));

/** @throws Fault when the rig is gone */
export async function prepare(
  { db, links }: { readonly db: Database; readonly links: Links },
  runId: string,
  permission: Permission,
): Promise<Ready> {
  const run = await getRun(db, runId);
  const rig = (await listRigs(db)).find(({ id }) => id === run.rigId);
  if (!rig) throw new Fault('The rig of this run is not on the bench any more.');
  const own = instrumentsOf(rig, await listInstruments(db));
  const { model } = await getSample(db, run.sample.id);
  const ports = loadedPlaces(model);
  const profiles = await listProfiles(db);
  const needed = new Set([...Object.values(rig.meters), rig.drives?.load]);
  return {
    run,
    rig,
    own,
    ports,
    inLine: model.kind === 'cable',
    looks: new Looks(rig, own, ports, Date.now, patienceOf(own, profiles)),
    driver: new RigDriver(links, rig, own, profiles, ports, permission),
    telling: own
      .filter(({ id, address, class: kind }) => address !== null && needed.has(id) && kind in LIVE_ACTION)
      .map(({ id }) => id),
  };
}
