// Operations of working together: news of what others do, and remarks.
import { id, list, oneOf, optionalText, record, text } from './parts.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { Items } from './route-types.ts';
import {
  type News,
  type NewsInput,
  type OpenRemark,
  REMARK_ABOUT,
  REMARK_KINDS,
  type Remark,
  type RemarkInput,
} from './together-types.ts';

/** An id, or none. */
const noneOr = () => id().notRequired().nullable().defined();

const newsInput = record({
  tab: text(40),
  newest: optionalText(80),
  sampleId: noneOr(),
  place: optionalText(80),
});

const remarkBody = record({
  remark: record({
    id: id(),
    about: oneOf(REMARK_ABOUT),
    aboutId: id(),
    kind: oneOf(REMARK_KINDS),
    text: optionalText(2000),
    mentions: list(id(), 20),
    answers: noneOr(),
  }),
});

export const TOGETHER_ROUTES = {
  getNews: write('post', '/news', 'What others did since, and who is where; says that this page is here', {
    body: of<NewsInput>(newsInput),
    answer: is<News>(),
    status: 200,
    needs: 'reader',
    keepsNothing: true,
  }),
  listRemarks: get('/samples/{sampleId}/remarks', 'What was said of a sample, its claims, readings and reports', {
    answer: is<Items<Remark>>(),
  }),
  addRemark: write('post', '/samples/{sampleId}/remarks', 'Say something; the same id twice is kept once', {
    body: of<{ remark: RemarkInput }>(remarkBody),
    ids: ['remark.id'],
    answer: is<Remark>(),
  }),
  listOpenRemarks: get('/remarks/open', 'Questions nobody answered, and what was said to whoever asks', {
    answer: is<Items<OpenRemark>>(),
  }),
} as const satisfies Record<string, Route>;
