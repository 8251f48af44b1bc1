// Lines sent to instruments become entries: whose they are, what they are about, how often, and that none gets lost.
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { type Deed, inDeed, inNameOf, MACHINE, type Who } from '../who/who.ts';
import { CommandLog, sentIn } from './commands.ts';
import { plainDeed } from './write.ts';

const LOAD = { id: '01JAAAAAAAAAAAAAAAAAAAAAAA', name: 'Load' };
const SOURCE = { id: '01JBBBBBBBBBBBBBBBBBBBBBBB', name: 'Source' };
const ADA: Who = { ...MACHINE, id: 'ada', name: 'Ada', through: 'session' };

let kept: Deed[];
let log: CommandLog;
beforeEach(() => {
  vi.useFakeTimers();
  kept = [];
  log = new CommandLog({ keep: async (deed) => void kept.push(deed) });
});
afterEach(() => vi.useRealTimers());

const said = (deed: Deed | undefined) =>
  sentIn(JSON.parse(deed?.body ?? 'null')).map(({ to, says }) => `${to}: ${says}`);

it('lines of one run are one entry, in their order, in the name of who began it', async () => {
  inNameOf(
    'ada',
    () => {
      log.take(SOURCE, 'VOLT 230');
      log.take(LOAD, 'CURR 2.25');
      log.take(LOAD, 'INP ON');
    },
    { subject: 'the run', sampleId: 'the sample' },
  );
  inNameOf('ada', () => log.take(LOAD, 'INP OFF'), { subject: 'another run' });
  await vi.advanceTimersByTimeAsync(2000);
  expect(kept).toHaveLength(2);
  expect(said(kept[0])).toEqual(['Source: VOLT 230', 'Load: CURR 2.25', 'Load: INP ON']);
  expect(kept[0]).toMatchObject({ operation: 'command', subject: 'the run', sampleId: 'the sample', whole: true });
  expect(kept[0]?.who).toMatchObject({ id: 'ada', through: 'server' });
  expect(kept[0]?.things).toEqual(['the run', SOURCE.id, LOAD.id]);
  expect(said(kept[1])).toEqual(['Load: INP OFF']);
});

it('what a request sends is its own, save where its entry says so already; what nobody asked for is the server’s', async () => {
  const of = (operation: string) =>
    inDeed(
      plainDeed(ADA, operation, { request: 'r1' }),
      async () => undefined as never,
      async () => log.take(LOAD, 'INP ON'),
    );
  await of('sendCommand');
  await of('startRun');
  log.take(LOAD, 'INP OFF');
  await log.close();
  expect(kept.map(({ who, request }) => [who.name, who.through, request])).toEqual([
    ['Ada', 'session', 'r1'],
    ['The server', 'server', null],
  ]);
});

it('a load told the same for an hour is a hundred lines of the log at most, and none of what was sent is left out', async () => {
  const sent = 3600 * 2;
  for (let at = 0; at < sent; at += 1) {
    log.take(LOAD, 'INP OFF');
    await vi.advanceTimersByTimeAsync(500);
  }
  await log.close();
  const times = kept.flatMap((deed) => said(deed).map((one) => Number(/, (\d+) times$/.exec(one)?.[1] ?? 1)));
  expect(times.reduce((sum, one) => sum + one, 0)).toBe(sent);
  expect(kept.length).toBeLessThan(100);
  // Something else is told soon again.
  const before = kept.length;
  log.take(LOAD, 'INP ON');
  await vi.advanceTimersByTimeAsync(64_000);
  log.take(LOAD, 'CURR 1');
  await vi.advanceTimersByTimeAsync(2000);
  expect(kept.length).toBe(before + 2);
});

it('an entry holds as many lines as are kept of a list: the rest is in the next', async () => {
  for (let amps = 1; amps <= 95; amps += 1) log.take(LOAD, `CURR ${amps}`);
  await log.close();
  expect(kept.map((deed) => said(deed).length)).toEqual([40, 40, 15]);
  expect(kept.every(({ whole }) => whole)).toBe(true);
  expect(sentIn(null)).toEqual([]);
});
