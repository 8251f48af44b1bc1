// Operations of the bench: instruments, rigs, devices, rules, and the server itself.
import type { DeviceEvidence } from '@lastmark/core/charge';
import type { Profile } from '@lastmark/core/verdict';
import { liveQuery } from './bench-schemas.ts';
import { limitSetInput } from './limit-schemas.ts';
import type { Lease } from './plan-types.ts';
import { deviceInput } from './proof-schemas.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { ColumnMap, Health, Items } from './route-types.ts';
import { commandInput, demoInput, instrumentInput, instrumentProfileInput, profileInput, rigInput } from './schemas.ts';
import type {
  BenchPlace,
  CommandAnswer,
  DemoState,
  DeviceInput,
  InstrumentInput,
  InstrumentProfileInput,
  InstrumentTraffic,
  LimitSetInput,
  LoadsOffAnswer,
  RigInput,
  StoredDevice,
  StoredInstrument,
  StoredInstrumentProfile,
  StoredLimitSet,
  StoredProfile,
  StoredRig,
} from './types.ts';

export const BENCH_ROUTES = {
  health: get('/health', 'Whether server and database work', { answer: is<Health>() }),
  healthLive: get('/health/live', 'Whether the server runs at all; asks nobody else', {
    answer: is<{ status: string }>(),
    needs: 'nobody',
  }),
  healthReady: get('/health/ready', 'Whether it takes requests: its database answers, and it is not stopping', {
    answer: is<{ status: string }>(),
    needs: 'nobody',
  }),
  getMetrics: get('/metrics', 'Figures for a monitoring system, in the Prometheus text format', {
    answers: 'text/plain; version=0.0.4; charset=utf-8',
  }),
  openapi: get('/openapi.json', 'This description', { answer: is<object>() }),
  listInstruments: get('/instruments', 'The instruments of the bench', { answer: is<Items<StoredInstrument>>() }),
  listBenches: get('/benches', 'The benches there are, and whether a server stands beside each', {
    answer: is<Items<BenchPlace>>(),
  }),
  createInstrument: write('post', '/instruments', 'Add an instrument', {
    needs: 'keeper',
    body: of<InstrumentInput>(instrumentInput),
    answer: is<StoredInstrument>(),
  }),
  updateInstrument: write('put', '/instruments/{instrumentId}', 'Change an instrument', {
    needs: 'keeper',
    body: of<InstrumentInput>(instrumentInput),
    ifMatch: true,
    answer: is<StoredInstrument>(),
  }),
  listInstrumentProfiles: get('/instrument-profiles', 'The profiles: what ships, and what this bench made', {
    answer: is<Items<StoredInstrumentProfile>>(),
  }),
  createInstrumentProfile: write('post', '/instrument-profiles', 'Add a profile', {
    needs: 'keeper',
    body: of<InstrumentProfileInput>(instrumentProfileInput),
    answer: is<StoredInstrumentProfile>(),
  }),
  updateInstrumentProfile: write('put', '/instrument-profiles/{profileId}', 'Change a profile', {
    needs: 'keeper',
    body: of<InstrumentProfileInput>(instrumentProfileInput),
    ifMatch: true,
    answer: is<StoredInstrumentProfile>(),
  }),
  sendCommand: write('post', '/instruments/{instrumentId}/commands', 'Send one command, and wait for its answer', {
    body: of<{ command: string }>(commandInput),
    answer: is<CommandAnswer>(),
  }),
  getTraffic: get('/instruments/{instrumentId}/traffic', 'The last lines that went to and came from an instrument', {
    answer: is<InstrumentTraffic>(),
  }),
  live: get('/live', 'Live numbers of connected instruments, as server-sent events', {
    answers: 'text/event-stream',
    query: of<{ fast?: string }>(liveQuery),
  }),
  loadsOff: write('post', '/loads-off', 'Switch every load off, ahead of anything that waits', {
    needs: 'reader',
    answer: is<LoadsOffAnswer>(),
  }),
  listLeases: get('/leases', 'Which instruments a run owns, and whose it is', { answer: is<Items<Lease>>() }),
  listRigs: get('/rigs', 'The rigs of the bench', { answer: is<Items<StoredRig>>() }),
  createRig: write('post', '/rigs', 'Add a rig', {
    needs: 'keeper',
    body: of<RigInput>(rigInput),
    answer: is<StoredRig>(),
  }),
  updateRig: write('put', '/rigs/{rigId}', 'Change a rig', {
    needs: 'keeper',
    body: of<RigInput>(rigInput),
    ifMatch: true,
    answer: is<StoredRig>(),
  }),
  listDevices: get('/devices', 'The devices that serve as loads', { answer: is<Items<StoredDevice>>() }),
  getDeviceEvidence: get('/device-evidence', 'What the chargers on the shelf showed of the devices', {
    answer: is<DeviceEvidence>(),
  }),
  createDevice: write('post', '/devices', 'Add a device', {
    body: of<DeviceInput>(deviceInput),
    answer: is<StoredDevice>(),
  }),
  updateDevice: write('put', '/devices/{deviceId}', 'Change a device', {
    body: of<DeviceInput>(deviceInput),
    ifMatch: true,
    answer: is<StoredDevice>(),
  }),
  getProfile: get('/profile', 'The choices of method', { answer: is<StoredProfile>() }),
  updateProfile: write('put', '/profile', 'Change the choices of method', {
    needs: 'keeper',
    body: of<Profile>(profileInput),
    ifMatch: true,
    answer: is<StoredProfile>(),
  }),
  listLimitSets: get('/limit-sets', 'The limit sets: those that ship, and those of this bench', {
    answer: is<Items<StoredLimitSet>>(),
  }),
  createLimitSet: write('post', '/limit-sets', 'Add a limit set', {
    needs: 'keeper',
    body: of<LimitSetInput>(limitSetInput),
    answer: is<StoredLimitSet>(),
  }),
  updateLimitSet: write('put', '/limit-sets/{limitSetId}', 'Change a limit set of this bench', {
    needs: 'keeper',
    body: of<LimitSetInput>(limitSetInput),
    ifMatch: true,
    answer: is<StoredLimitSet>(),
  }),
  deleteLimitSet: write('delete', '/limit-sets/{limitSetId}', 'Remove a limit set nothing is judged by', {
    needs: 'keeper',
    ifMatch: true,
  }),
  getDemo: get('/demo', 'Whether the demo stands on the shelf', { answer: is<DemoState>() }),
  showDemo: write('put', '/demo', 'Show the demo, or put it away; an empty bench is filled with it', {
    needs: 'keeper',
    body: of<{ shown: boolean }>(demoInput),
    answer: is<DemoState>(),
  }),
  listColumnMaps: get('/column-maps', 'Remembered columns of meter files', { answer: is<Items<ColumnMap>>() }),
} as const satisfies Record<string, Route>;
