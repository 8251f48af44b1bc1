// Commands typed at the console, the traffic of an instrument, and every load off.
import { ScpiError } from '@lastmark/bench/scpi';
import type { CommandAnswer, InstrumentTraffic, LoadsOffAnswer, StoredInstrument } from '@lastmark/contract';
import { commandFor } from '@lastmark/core/instrument';
import { listInstruments } from '../bench/store.ts';
import type { Queries } from '../db/database.ts';
import { conflict, notFound, refused } from '../http/problem.ts';
import { holdAll, listLeases } from '../runner/rows.ts';
import type { Links } from './links.ts';
import { listProfiles, profileOf } from './profiles.ts';

const SHOWN_TRAFFIC = 300;

async function instrumentOf(db: Queries, id: string): Promise<StoredInstrument> {
  const found = (await listInstruments(db)).find((one) => one.id === id);
  if (!found) throw notFound('instrument');
  return found;
}

/** Send one command. A query waits for its answer; anything else is followed by a look at the error queue. */
export async function sendCommand(db: Queries, links: Links, id: string, command: string): Promise<CommandAnswer> {
  if (/[\r\n]/.test(command)) throw refused('command', 'One command at a time, on one line.');
  const instrument = await instrumentOf(db, id);
  const lease = command.includes('?')
    ? undefined
    : (await listLeases(db)).find(({ instrumentId }) => instrumentId === id);
  if (lease)
    throw conflict(
      `"${instrument.name}" belongs to ${lease.person}'s run "${lease.title}". Questions are allowed; to set it, hold or stop the run.`,
    );
  const client = await links.ready(instrument);
  try {
    const reply = command.includes('?') ? await client.query(command) : null;
    if (reply === null) await client.confirm(command);
    return { reply, state: client.state, items: client.traffic.slice(-SHOWN_TRAFFIC) };
  } catch (error) {
    if (error instanceof ScpiError) throw refused('command', error.message);
    throw error;
  }
}

/** What went both ways lately. An instrument nobody talked to yet is connected by asking. */
export async function trafficOf(db: Queries, links: Links, id: string): Promise<InstrumentTraffic> {
  const client = links.of(await instrumentOf(db, id));
  return { state: client.state, items: client.traffic.slice(-SHOWN_TRAFFIC) };
}

/** Every load with an address is switched off, ahead of whatever waits. It never stops at the first that fails. */
export async function loadsOff(db: Queries, links: Links): Promise<LoadsOffAnswer> {
  links.countOff();
  const loads = (await listInstruments(db)).filter((one) => one.class === 'DC load' && one.address !== null);
  const profiles = await listProfiles(db);
  const items = await Promise.all(
    loads.map(async (load) => {
      const told = { instrumentId: load.id, name: load.name };
      try {
        const profile = profileOf(profiles, load);
        if (!profile)
          return { ...told, sent: false, detail: 'It has no profile, so nobody knows how to switch it off.' };
        const client = await links.ready(load);
        await client.write(commandFor(profile, 'off'), true);
        return { ...told, sent: true, detail: 'off' };
      } catch (error) {
        return { ...told, sent: false, detail: error instanceof Error ? error.message : 'failed' };
      }
    }),
  );
  // After the wire, not before it: what the loads do matters more than what is written down.
  await holdAll(db);
  return { items };
}
