// What others do, and what they say.

export interface NewsInput {
  /** Name of the page that asks, by its own word. */
  tab: string;
  /** What the answer before said; empty at first. */
  newest: string;
  sampleId: string | null;
  /** Where on it: a station, or a page. */
  place: string;
}

/** Something somebody else did. */
export interface NewsEntry {
  who: string;
  what: string;
  sampleId: string | null;
  subject: string | null;
}

/** Somebody who has a sample open. */
export interface Here {
  personId: string;
  name: string;
  sampleId: string | null;
  place: string;
}

export interface News {
  newest: string;
  entries: NewsEntry[];
  /** More happened than is told: everything may have changed. */
  missed: boolean;
  /** How often the parts of the sample at hand were changed; null without one, or where it is gone. */
  revisions: Record<string, number> | null;
  here: Here[];
}

export const REMARK_ABOUT = ['sample', 'claim', 'reading', 'report'] as const;
export const REMARK_KINDS = ['note', 'question', 'answer', 'witness'] as const;

export interface RemarkInput {
  id: string;
  about: (typeof REMARK_ABOUT)[number];
  aboutId: string;
  kind: (typeof REMARK_KINDS)[number];
  text: string;
  /** People it is for. */
  mentions: string[];
  /** The question it answers; null for what is no answer. */
  answers: string | null;
}

export interface Remark extends RemarkInput {
  sampleId: string;
  who: string;
  author: string | null;
  madeAt: string;
}

/** A question nobody answered, or a remark for whoever asks. */
export interface OpenRemark extends Remark {
  sample: string;
}
