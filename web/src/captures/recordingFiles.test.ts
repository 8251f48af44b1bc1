import { describe, expect, it } from 'vitest';
import { recordingFiles } from './recordingFiles.ts';

const of = (name: string) => new File(['x'], name);
const names = (chosen: readonly string[], before: string | null = null) => {
  const { file, description } = recordingFiles(chosen.map(of), before === null ? null : of(before));
  return [file?.name, description?.name];
};

describe('the files of a recording', () => {
  it('are one text, or samples with their description, in any order', () => {
    expect(names(['ripple.csv'])).toEqual(['ripple.csv', undefined]);
    expect(names(['ripple.json', 'ripple.bin'])).toEqual(['ripple.bin', 'ripple.json']);
    expect(names(['ripple.bin', 'ripple.JSON'])).toEqual(['ripple.bin', 'ripple.JSON']);
  });

  it('a description chosen afterwards is of the file that is there', () => {
    expect(names(['ripple.json'], 'ripple.bin')).toEqual(['ripple.bin', 'ripple.json']);
    expect(names(['ripple.json'])).toEqual(['ripple.json', undefined]);
    expect(names([])).toEqual([undefined, undefined]);
  });

  it('another file forgets the description of the one before', () => {
    expect(names(['other.csv'], 'ripple.bin')).toEqual(['other.csv', undefined]);
  });
});
