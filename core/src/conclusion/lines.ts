// A conclusion as a person keeps it: drafted sentences in their own order and wording, own words between them, and every
// figure bound to the evidence: what changed waits for a yes.
import type { Drafted } from './draft.ts';
import { inLanguage, type Language } from './languages.ts';
import { filled, OBTAINED_WORDS, placesOf, SENTENCES, type SentenceId } from './sentences.ts';

type Texts = Readonly<Partial<Record<Language, string>>>;

/** A figure in its place, in neutral words. */
export interface Figure {
  readonly name: string;
  readonly words: string;
}

const asFigures = (of: Readonly<Record<string, string>>): readonly Figure[] =>
  Object.entries(of).map(([name, words]) => ({ name, words }));
const byName = (of: readonly Figure[]): Readonly<Record<string, string>> =>
  Object.fromEntries(of.map(({ name, words }) => [name, words]));

/** A drafted sentence that was said yes to. */
export interface KeptSentence {
  readonly kind: 'sentence';
  readonly id: string;
  /** Key of the draft it stands on. */
  readonly from: string;
  readonly sentence: SentenceId;
  /** Its figures as they were when somebody said yes. */
  readonly seen: readonly Figure[];
  /** Wording of one's own in place of the table's, with places for figures. */
  readonly text: Texts;
  /** Left out of the conclusion. */
  readonly hidden: boolean;
}

/** Words of one's own, marked as such. */
export interface OwnWords {
  readonly kind: 'own';
  readonly id: string;
  readonly text: Texts;
}

export type ConclusionLine = KeptSentence | OwnWords;

export interface FigureChange {
  readonly name: string;
  /** Null where it was not there. */
  readonly was: string | null;
  readonly is: string | null;
}

/**
 * A line as it stands now.
 * - `same`: its figures are those somebody said yes to
 * - `changed`: some are others now
 * - `gone`: what it stood on is not said any more
 * - `new`: drafted, and nobody looked at it yet
 * - `own`: a person's words
 */
export interface StandingLine {
  readonly line: ConclusionLine;
  readonly state: 'same' | 'changed' | 'gone' | 'new' | 'own';
  readonly draft: Drafted | null;
  readonly changes: readonly FigureChange[];
}

function changesOf(seen: Readonly<Record<string, string>>, now: Readonly<Record<string, string>>): FigureChange[] {
  const names = [...new Set([...Object.keys(seen), ...Object.keys(now)])];
  return names.flatMap((name) => {
    const [was, is] = [seen[name] ?? null, now[name] ?? null];
    return was === is ? [] : [{ name, was, is }];
  });
}

/** A draft as a line, as it is taken over. @param id of the new line */
export const lineOf = ({ key, sentence, figures }: Drafted, id: string): KeptSentence => ({
  kind: 'sentence',
  id,
  from: key,
  sentence,
  seen: asFigures(figures),
  text: {},
  hidden: false,
});

/**
 * Kept lines against what the rules draft now; drafts nobody kept stand where the rules put them, after the kept line
 * before them.
 * @param idOf an id for a draft that is no line yet, always the same for the same draft
 */
export function standing(
  lines: readonly ConclusionLine[],
  drafts: readonly Drafted[],
  idOf: (draft: Drafted) => string,
): readonly StandingLine[] {
  const byKey = new Map(drafts.map((draft) => [draft.key, draft]));
  const kept = lines.map((line): StandingLine => {
    if (line.kind === 'own') return { line, state: 'own', draft: null, changes: [] };
    const draft = byKey.get(line.from) ?? null;
    if (!draft) return { line, state: 'gone', draft, changes: [] };
    const changes = changesOf(byName(line.seen), draft.figures);
    const other = draft.sentence !== line.sentence;
    return { line, state: changes.length > 0 || other ? 'changed' : 'same', draft, changes };
  });
  const has = new Set(lines.flatMap((line) => (line.kind === 'sentence' ? [line.from] : [])));
  const all = [...kept];
  drafts.forEach((draft, index) => {
    if (has.has(draft.key)) return;
    const fresh: StandingLine = { line: lineOf(draft, idOf(draft)), state: 'new', draft, changes: [] };
    const before = new Set(drafts.slice(0, index).map(({ key }) => key));
    const at = all.findLastIndex(({ line }) => line.kind === 'sentence' && before.has(line.from));
    all.splice(at + 1, 0, fresh);
  });
  return all;
}

/** Lines that wait for somebody: figures changed, or what they stood on is gone. */
export const waiting = (all: readonly StandingLine[]): readonly StandingLine[] =>
  all.filter(
    ({ line, state }) => (state === 'changed' || state === 'gone') && !(line.kind === 'sentence' && line.hidden),
  );

/** The line with the figures of now: somebody said yes. */
export const agreed = ({ line, draft }: StandingLine): ConclusionLine =>
  line.kind === 'own' || !draft
    ? line
    : {
        ...line,
        seen: asFigures(draft.figures),
        sentence: draft.sentence,
        // Another sentence has other places: own wording of the old one says nothing of it.
        text: draft.sentence === line.sentence ? line.text : {},
      };

/** Figures of a sentence in a language. */
function figuresIn(sentence: SentenceId, figures: Readonly<Record<string, string>>, language: Language) {
  return Object.fromEntries(
    Object.entries(figures).map(([name, words]) => {
      // What a person wrote is nobody's to translate.
      if (sentence === 'gains' && name === 'disclosure') return [name, words];
      if (sentence === 'gains' && name === 'obtained') return [name, OBTAINED_WORDS[language][words] ?? words];
      return [name, inLanguage(words, language)];
    }),
  );
}

/** The wording of a line before its figures are filled in; null for own words there are none of in the language. */
export const wordingOf = (line: ConclusionLine, language: Language): string | null =>
  line.text[language] ?? (line.kind === 'own' ? null : SENTENCES[language][line.sentence]);

/**
 * A line as it is read. Own words in another language only are given in that one.
 * @param figures others than those it was kept with
 */
export function sayLine(
  line: ConclusionLine,
  language: Language,
  figures = line.kind === 'own' ? {} : byName(line.seen),
): string {
  const wording = wordingOf(line, language);
  if (line.kind === 'own') return wording ?? Object.values(line.text)[0] ?? '';
  return filled(wording ?? '', figuresIn(line.sentence, figures, language));
}

/**
 * Why a wording cannot stand; null where it can. Figures are never typed: a number in it comes from its places.
 * @param figures what its places can be
 */
export function wordingRefusal(text: string, figures: Readonly<Record<string, string>>): string | null {
  const unknown = placesOf(text).find((name) => !(name in figures));
  if (unknown !== undefined)
    return `There is no figure {${unknown}}. There are ${Object.keys(figures)
      .map((name) => `{${name}}`)
      .join(', ')}.`;
  if (text.trim() === '') return 'An empty sentence says nothing: leave it out instead.';
  const typed = /\d[\d.,]*/.exec(text.replace(/\{[a-z]+\}/g, ''));
  return typed
    ? `“${typed[0]}” is typed and would not follow the evidence: take a figure such as {${Object.keys(figures)[0] ?? 'found'}}, or add it as your own words.`
    : null;
}
