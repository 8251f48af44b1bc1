import { describe, expect, it } from 'vitest';
import { currentRuns, type Run, runChanges } from './index.ts';

const run = (id: string, supersedes: string | null = null, withdrawn = false): Run =>
  ({ id, kind: 'move', takenAt: `2026-03-02T09:00:0${id}.000Z`, supersedes, withdrawn }) as Run;
const ALL = [run('1'), run('2', '1'), run('3', '2', true), run('4')];

describe('runs', () => {
  it('that were corrected or taken back do not stand', () =>
    expect(currentRuns(ALL).map(({ id }) => id)).toEqual(['4']));
  it('are told as changes, the newest first', () =>
    expect(runChanges(ALL).map(({ was, now, standing }) => [was.id, now.id, now.withdrawn, standing])).toEqual([
      ['2', '3', true, true],
      ['1', '2', false, false],
    ]));
  it('that never changed have no changes', () => expect(runChanges([run('1'), run('2', 'lost')])).toEqual([]));
});
