// Asks an oscilloscope for what it has on the mains side.
import { ScpiError } from '@lastmark/bench/scpi';
import type { StoredInstrument } from '@lastmark/contract';
import type { CaptureKind, Trace } from '@lastmark/core/capture';
import { commandFor, type InstrumentProfile, readAnswer } from '@lastmark/core/instrument';
import { listInstruments } from '../bench/store.ts';
import type { Queries } from '../db/database.ts';
import { notFound, refused } from '../http/problem.ts';
import { requireFree } from '../leases/leases.ts';
import type { Links } from '../links/links.ts';
import { listProfiles, profileOf } from '../links/profiles.ts';

/** Sample rate and length of each kind: ten cycles of the mains, and the first milliseconds. */
const SETTINGS: Readonly<Partial<Record<CaptureKind, { readonly rate: number; readonly points: number }>>> = {
  waveform: { rate: 50_000, points: 12_000 },
  inrush: { rate: 1_000_000, points: 5_000 },
};
/** Inrush is far above the running current, so its counts stand for ten times as much. */
const INRUSH_TIMES = 10;

/** 16-bit samples, little-endian, as SI. */
function samplesOf(bytes: Uint8Array, perCount: number): Float64Array {
  const counts = new Int16Array(bytes.slice().buffer);
  return Float64Array.from(counts, (count) => count * perCount);
}

/** Ripple: twelve periods of twice the mains, fast enough for what switches. */
const RIPPLE = { rate: 2_000_000, points: 240_000 };

/** What a scope has on an output. @throws 422 with the sentence when it cannot be asked or does not answer */
export async function askRipple(
  links: Links,
  scope: StoredInstrument,
  profile: InstrumentProfile,
  channel: number,
): Promise<Trace> {
  const client = await links.ready(scope);
  try {
    if ('channel' in profile.commands) await client.confirm(commandFor(profile, 'channel', { channel }));
    if ('rate' in profile.commands) await client.confirm(commandFor(profile, 'rate', { rate: RIPPLE.rate }));
    const [rate = 0, volts = 0] = readAnswer(
      profile,
      'scale',
      await client.query(commandFor(profile, 'scale')),
    ) as number[];
    if (!(rate > 0)) throw refused('scopeId', `"${scope.name}" does not tell its sample rate.`);
    const bytes = await client.queryBlock(commandFor(profile, 'capture', { points: RIPPLE.points }));
    return { interval: 1 / rate, columns: { volts: samplesOf(bytes, volts) } };
  } catch (error) {
    if (error instanceof ScpiError) throw refused('scopeId', error.message);
    throw error;
  }
}

/** @throws 422 with the sentence when it cannot be asked or does not answer */
export async function askScope(
  links: Links,
  scope: StoredInstrument,
  profile: InstrumentProfile,
  kind: CaptureKind,
): Promise<Trace> {
  const settings = SETTINGS[kind];
  if (!settings) throw refused('scopeId', `A scope takes waveforms and inrush; this is ${kind}.`);
  const client = await links.ready(scope);
  const block = async (action: string) => client.queryBlock(commandFor(profile, action, { points: settings.points }));
  try {
    if ('rate' in profile.commands) await client.confirm(commandFor(profile, 'rate', { rate: settings.rate }));
    const scale = readAnswer(profile, 'mainsScale', await client.query(commandFor(profile, 'mainsScale')));
    const [rate = 0, volts = 0, amps = 0] = scale as number[];
    if (!(rate > 0)) throw refused('scopeId', `"${scope.name}" does not tell its sample rate.`);
    if (kind === 'inrush')
      return { interval: 1 / rate, columns: { amps: samplesOf(await block('inrush'), amps * INRUSH_TIMES) } };
    return {
      interval: 1 / rate,
      columns: {
        volts: samplesOf(await block('mainsVolts'), volts),
        amps: samplesOf(await block('mainsAmps'), amps),
      },
    };
  } catch (error) {
    if (error instanceof ScpiError) throw refused('scopeId', error.message);
    throw error;
  }
}

/** The scope and its profile. @throws 404 or 422 */
export async function scopeOf(
  db: Queries,
  id: string,
  kind: CaptureKind,
): Promise<{ readonly scope: StoredInstrument; readonly profile: InstrumentProfile }> {
  const scope = (await listInstruments(db)).find((one) => one.id === id);
  if (!scope) throw notFound('instrument');
  const profile = profileOf(await listProfiles(db), scope);
  if (scope.class !== 'oscilloscope' || !scope.address || !profile)
    throw refused('scopeId', `"${scope.name}" is no oscilloscope that answers SCPI. Choose one at Bench.`);
  const [action, what] =
    kind === 'ripple' ? (['capture', 'an output'] as const) : (['mainsVolts', 'the mains side'] as const);
  if (!(action in profile.commands))
    throw refused('scopeId', `The profile of "${scope.name}" does not say how to ask for ${what}.`);
  await requireFree(db, scope, 'capture with it');
  return { scope, profile };
}
