// What an entry of the log says was done.
import { type Operation, ROUTES, type Route } from '@lastmark/contract';

/** What is done without an address of its own. */
const BESIDES: Readonly<Record<string, string>> = {
  signIn: 'Came in',
  signOut: 'Went out',
  signInRefused: 'Was not let in',
  join: 'Came in for the first time, or chose a password anew',
  command: 'Sent commands to instruments',
  finishStep: 'Finished a step of a run',
  holdRun: 'A run holds',
  endRun: 'A run ended',
  archiveLog: 'Put the older part of the log into an archive',
  interruptRun: 'A run was interrupted',
};

export const routeOf = (operation: string): Route | undefined =>
  (ROUTES as Readonly<Record<string, Route>>)[operation as Operation];

/** Of the words of an operation what it does; behind a semicolon stands what only a program has to know. */
export const whatOf = (operation: string): string =>
  BESIDES[operation] ?? routeOf(operation)?.summary.split(';')[0] ?? operation;

/** Operations whose words say something. @param said in whatever case */
export const operationsSaying = (said: string): string[] =>
  Object.keys({ ...ROUTES, ...BESIDES }).filter((one) => whatOf(one).toLowerCase().includes(said.toLowerCase()));

/** What is told once it happened, and is no news to whoever looks at what it is about. */
export const NO_NEWS: readonly string[] = ['command'];
