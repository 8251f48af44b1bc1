// Fields of people and of what lets them in.
import type { Word } from './word.ts';

export const PEOPLE_WORDS: Readonly<Record<string, Word>> = {
  code: ['Code'],
  days: ['Days it lives'],
  disabled: ['Whether they are kept out'],
  ownPassword: ['Your password'],
  password: ['Password'],
  seen: ['Points that were seen'],
  secret: ['Code of the invitation'],
  signIn: ['Sign-in name'],
};
