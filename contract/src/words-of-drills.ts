// Fields of drills.
import type { Word } from './word.ts';

export const DRILL_WORDS: Readonly<Record<string, Word>> = {
  levelId: ['Level of the drill'],
  seed: ['Number of the drill'],
  'parts.faults': ['Faults said of it'],
  parts: ['What the verdict is about'],
  partId: ['Sample or rig'],
  faults: ['Faults said of it'],
  basis: ['What it rests on'],
};
