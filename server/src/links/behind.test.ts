import { describe, expect, it } from 'vitest';
import { loadsBehind } from './behind.ts';

const analyser = (id: string) => ({ id, class: 'power analyser' as const });
const load = (id: string) => ({ id, class: 'DC load' as const });
const rig = (mains: string, drives: string | null) => ({
  meters: { mains, outputVolts: 'v', outputAmps: 'a', loadEnd: null },
  drives: drives === null ? null : { source: null, sink: null, load: drives, analyser: null, thermometer: null },
});

describe('the loads behind a meter at the mains', () => {
  it('are those of its rigs', () => {
    const instruments = [analyser('A'), analyser('B'), load('L'), load('M')];
    const rigs = [rig('A', 'L'), rig('A', 'L'), rig('B', 'M')];
    expect(loadsBehind('A', instruments, rigs)).toEqual(['L']);
    expect(loadsBehind('B', instruments, rigs)).toEqual(['M']);
  });

  it('leave out a load that stands behind another meter as well: nobody knows which it draws through now', () => {
    expect(
      loadsBehind('A', [analyser('A'), load('L'), load('M')], [rig('A', 'L'), rig('A', 'M'), rig('B', 'M')]),
    ).toEqual(['L']);
  });

  it('are the only load of a bench where no rig says, behind its only analyser', () => {
    expect(loadsBehind('A', [analyser('A'), load('L')], [])).toEqual(['L']);
    expect(loadsBehind('A', [analyser('A'), load('L')], [rig('A', null)])).toEqual(['L']);
  });

  it.each([
    ['two loads', [analyser('A'), load('L'), load('M')], []],
    ['two analysers', [analyser('A'), analyser('B'), load('L')], []],
    ['a load of another meter', [analyser('A'), load('L')], [rig('B', 'L')]],
    ['no load', [analyser('A')], []],
  ])('are nobody’s guess with %s', (_what, instruments, rigs) => {
    expect(loadsBehind('A', instruments, rigs)).toEqual([]);
  });
});
