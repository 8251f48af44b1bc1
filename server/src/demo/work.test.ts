import { expect, it } from 'vitest';
import { WORK } from './proof-work.ts';
import { DESKTOP_WORK } from './work-desktop.ts';
import { WALL_WORK } from './work-wall.ts';
import { SHELF } from './world.ts';

const kindOf = new Map(
  SHELF.flatMap(({ model, units }) => units.map(({ unit }) => [unit.serial, model.kind] as const)),
);
const portsOf = new Map(
  SHELF.flatMap(({ model, units }) =>
    units.map(({ unit }) => [unit.serial, model.ports.map(({ label }) => label)] as const),
  ),
);

it('the work is done on units that stand on the shelf, each under its own kind', () => {
  expect(Object.keys(WORK).filter((serial) => !kindOf.has(serial))).toEqual([]);
  expect(Object.keys(WALL_WORK).map((serial) => kindOf.get(serial))).toEqual(['wall', 'wall', 'wall']);
  expect(Object.keys(DESKTOP_WORK).map((serial) => kindOf.get(serial))).toEqual(['desktop', 'desktop', 'desktop']);
});

it.each(Object.entries(WORK))('%s: every port worked on is a port of the model', (serial, work) => {
  const worked = [
    ...work.readOuts.map(({ port }) => port),
    ...(work.proof ?? []).flatMap(({ steps }) => steps.flatMap(({ outputs }) => outputs.map(({ port }) => port))),
    ...(work.runs ?? []).flatMap((run) => ('port' in run ? [run.port] : [])),
  ];
  expect(worked.length).toBeGreaterThan(0);
  expect([...new Set(worked)].filter((port) => !portsOf.get(serial)?.includes(port))).toEqual([]);
});
