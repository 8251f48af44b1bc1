// Fields of people and of what lets them in.
import type { Word } from './word.ts';

export const PEOPLE_WORDS: Readonly<Record<string, Word>> = {
  about: ['What it is about'],
  aboutId: ['What it is about'],
  answers: ['Question it answers'],
  code: ['Code'],
  collection: ['Collection'],
  collectionId: ['Collection'],
  days: ['Days it lives'],
  disabled: ['Whether they are kept out'],
  embargo: ['End of the embargo'],
  guest: ['Whether they are a guest'],
  mentions: ['People it is for'],
  ownPassword: ['Your password'],
  password: ['Password'],
  remark: ['Remark'],
  newest: ['What was known'],
  tab: ['Name of the page'],
  pointsSeen: ['Points that were seen'],
  secret: ['Code of the invitation'],
  signIn: ['Sign-in name'],
};
