// What pages ask of each other: news, and remarks.
import type { Database } from './db/database.ts';
import type { Handlers } from './http/handlers.ts';
import { News } from './together/news.ts';
import { addRemark, listOpenRemarks, listRemarks } from './together/remarks.ts';

export function togetherHandlers(): Pick<Handlers, 'getNews' | 'listRemarks' | 'addRemark' | 'listOpenRemarks'> {
  let news: { readonly of: Database; readonly news: News } | null = null;
  return {
    getNews: async ({ db, who, body }) => {
      if (news?.of !== db) news = { of: db, news: new News(db) };
      return { body: await news.news.tell(who, body) };
    },
    listRemarks: async ({ db, params }) => ({ body: { items: await listRemarks(db, params.sampleId) } }),
    addRemark: async ({ db, params, body, who }) => ({ body: await addRemark(db, params.sampleId, body.remark, who) }),
    listOpenRemarks: async ({ db, who }) => ({ body: { items: await listOpenRemarks(db, who) } }),
  };
}
