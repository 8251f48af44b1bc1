// Operations of the log.
import { number, string } from 'yup';
import type { LogCheck, LogPage, LogQuery, LogRow } from './log-types.ts';
import { id, record } from './parts.ts';
import { get, is, of, type Route, write } from './route.ts';

const MOST_ENTRIES = 200;

const logQuery = record({
  person: string().max(26),
  sample: id().optional(),
  thing: id().optional(),
  q: string().max(80),
  before: id().optional(),
  size: number().integer().min(1).max(MOST_ENTRIES),
}).strict(false);

export const LOG_ROUTES = {
  listLog: get('/log', 'Who did what when, the newest first', {
    query: of<LogQuery>(logQuery),
    answer: is<LogPage>(),
  }),
  checkLog: get('/log/check', 'Whether the log is as it was written: every entry against the chain of seals', {
    answer: is<LogCheck>(),
  }),
  undoEntry: write('post', '/log/{entryId}/undo', 'Put back what an entry changed; written down as what it does', {
    answer: is<LogRow>(),
    keepsNothing: true,
  }),
} as const satisfies Record<string, Route>;
