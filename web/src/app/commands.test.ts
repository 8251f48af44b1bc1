import { describe, expect, it } from 'vitest';
import { commandsOf, isMeant } from './commands.ts';

const found = (typed: string, sampleId: string | null = 's') =>
  commandsOf(sampleId)
    .filter((one) => isMeant(one, typed))
    .map(({ title }) => title);

describe('the command box', () => {
  it.each([
    ['compare', 'Compare'],
    ['device', 'Devices'],
    ['heat', 'For how long'],
    ['price', 'Intake'],
    ['price', 'Rules'],
    ['undo', 'Proof'],
    ['history', 'Intake'],
    ['print', 'Verdict'],
    ['paste', 'Claims'],
    ['meter', 'Bench'],
    ['plan a', 'Plan a run'],
    ['over the', 'Over the rating'],
  ])('finds by %j: %s', (typed, title) => expect(found(typed)).toContain(title));

  it('offers stations only with a sample on the bench', () => {
    expect(found('', null)).toEqual([
      'Run sheets',
      'Take in a sample',
      'Reports',
      'Compare',
      'Trials',
      'Shelf',
      'Bench',
      'Today',
      'Bench day',
      'Drills',
      'Log',
      'Methods',
      'Rules',
    ]);
    const ofCable = commandsOf('s', 'cable').map(({ title }) => title);
    expect(ofCable).toEqual(expect.arrayContaining(['Marker', 'Resistance', 'Data', 'Bends', 'Verdict']));
    expect(ofCable).not.toContain('Efficiency');
    expect(found('marker')).not.toContain('Marker');
    expect(commandsOf('s').find(({ title }) => title === 'Compare curves')?.to).toBe(
      '/samples/s/efficiency?view=compare',
    );
  });

  it('finds nothing by what nobody means', () => expect(found('zebra')).toEqual([]));

  it('offers people and the own account only where people are told apart', () => {
    const titles = (people: boolean) => commandsOf(null, 'wall', people).map(({ title }) => title);
    expect(titles(true)).toEqual(expect.arrayContaining(['People', 'Your account', 'Log']));
    expect(titles(false)).not.toContain('People');
    expect(commandsOf('s').find(({ title }) => title === 'What happened to this sample')?.to).toBe('/log?sample=s');
  });
});
