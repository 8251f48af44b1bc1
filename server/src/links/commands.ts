// Commands typed at the console, and the traffic of an instrument.
import { ScpiError } from '@lastmark/bench/scpi';
import type { CommandAnswer, InstrumentTraffic, StoredInstrument } from '@lastmark/contract';
import { lineProblem, onlyAsks, unitsOf } from '@lastmark/core/instrument';
import { listInstruments } from '../bench/store.ts';
import type { Database, Queries } from '../db/database.ts';
import { notFound, refused } from '../http/problem.ts';
import { requireFree } from '../leases/leases.ts';
import type { ConsoleLoads } from './console-loads.ts';
import type { Links } from './links.ts';
import { listProfiles, profileOf } from './profiles.ts';

const SHOWN_TRAFFIC = 300;

async function instrumentOf(db: Queries, id: string): Promise<StoredInstrument> {
  const found = (await listInstruments(db)).find((one) => one.id === id);
  if (!found) throw notFound('instrument');
  return found;
}

/**
 * Send one line to an instrument that no run holds. It is taken apart before it is judged: what only asks switches
 * nothing on. A line that asks waits for its answer; anything else is followed by a look at the error queue.
 */
export async function sendCommand(
  db: Database,
  links: Links,
  consoleLoads: ConsoleLoads,
  id: string,
  command: string,
): Promise<CommandAnswer> {
  const problem = lineProblem(command);
  if (problem) throw refused('command', problem);
  const units = unitsOf(command);
  if (units.length === 0) throw refused('command', 'There is no command in this line.');
  if (units.filter(({ asks }) => asks).length > 1)
    throw refused('command', 'One question a line: send them one after the other.');
  const instrument = await instrumentOf(db, id);
  const asks = onlyAsks(command);
  // Even a question takes the run's time, and one without an answer its connection: beside a run the console reads along.
  await requireFree(db, instrument, asks ? 'ask it' : 'set it');
  const answer = (reply: string | null): CommandAnswer => {
    const { state, traffic } = links.of(instrument);
    return { reply, state, items: traffic.slice(-SHOWN_TRAFFIC) };
  };
  try {
    const client = await links.ready(instrument);
    if (!asks && instrument.class === 'DC load') {
      const profile = profileOf(await listProfiles(db), instrument);
      if (profile) await consoleLoads.take({ instrument, profile });
    }
    // Connecting took its time; a run may have begun meanwhile.
    await requireFree(db, instrument, asks ? 'ask it' : 'set it');
    if (units.some((unit) => unit.asks)) return answer(await client.query(command));
    await client.confirm(command);
    return answer(null);
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
