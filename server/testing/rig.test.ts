// What makes a test void: a run that says its machine had no time, and nothing else.
import { expect, it } from 'vitest';
import { VOID } from './rig.ts';

it.each([
  'the point: still interrupted "The database stopped answering. Loads are off; everything recorded is kept." at soak null {}',
  'the point: still held "The server stood still for 3 s; loads were switched off." at soak null {}',
  'the point: still held "The server was too slow to keep its hold on the rig: nothing is switched on until you go on." at soak',
  'held for /^A watched step/: still held ""Simulated power analyser" tells nothing any more." at soak',
  "expected 'interrupted: The database stopped answering. Loads are off.' to be 'as wanted'",
])('%s: void', (message) => {
  expect(message).toMatch(VOID);
});

it.each([
  'held for /^"Simulated power analyser" tells nothing any more\\.$/: still running "" at soak null {}',
  'held for /The server stood still/: still held "Loads were switched off." at soak null {}',
  "expected 'running: ' to be 'as wanted'",
  'The database did not answer in time',
])('%s: failed', (message) => {
  expect(message).not.toMatch(VOID);
});

it('is told whole where a run is waited for', async () => {
  const said = 'interrupted: The database stopped answering. Loads are off; everything recorded is kept.';
  const told = await expect
    .poll(() => said, { timeout: 1 })
    .toBe('as wanted')
    .catch(({ message }: Error) => message);
  expect(told).toMatch(VOID);
});
