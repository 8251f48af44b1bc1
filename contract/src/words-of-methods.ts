// Fields of methods, and of sheets made by them.
import type { Word } from './word.ts';

export const METHOD_WORDS: Readonly<Record<string, Word>> = {
  says: ['What sets it apart'],
  loads: ['Load points'],
  idle: ['Idle', 'duration'],
  idleAttached: ['What is attached while idle is read'],
  idleWhen: ['When idle is read'],
  readOut: ['Whether it is read out'],
  proof: ['Whether levels are proven'],
  splits: ['Whether combinations are read'],
  sweep: ['Other supplies'],
  captures: ['What is recorded'],
  devices: ['Whether devices are charged'],
  charges: ['Whether whole charges are logged'],
  line: ['What is done with a cable'],
  pluggings: ['Pluggings'],
  'method.soak': ['Soak', 'duration'],
  'method.hold': ['Held', 'duration'],
  'method.warmUp': ['Warm-up', 'duration'],
  claimIds: ['Promises to settle'],
};
