import { describe, expect, it } from 'vitest';
import type { ClaimTest } from '../evidence/index.ts';
import { dossierFor } from '../testing/verdict.ts';
import { NO_SPEC } from '../uncertainty/index.ts';
import { judgeSample } from '../verdict/index.ts';
import type { Dossier, Verdict } from '../verdict/types.ts';
import { type Drafted, draftConclusion, limitWords } from './draft.ts';
import { dayIn, inLanguage, LANGUAGES } from './languages.ts';
import { agreed, type ConclusionLine, lineOf, sayLine, standing, waiting, wordingRefusal } from './lines.ts';
import { filled, placesOf, SENTENCE_IDS, SENTENCES } from './sentences.ts';

const UNIT = { obtained: 'lent', disclosure: 'Lent by the maker.' };
const total = (id: string, watts: number) =>
  ({ id, promise: { kind: 'total', watts }, duration: { kind: 'unstated' }, printed: 'box' }) as const;
const test = (part: Partial<ClaimTest>): ClaimTest => ({
  quantity: 'power',
  limit: { kind: 'at-least', low: 63.7 },
  value: 61.84,
  expanded: 0.28,
  unstated: [],
  state: 'short',
  probability: 0,
  evidence: { kind: 'load', interval: null, conditions: 'C1 alone, 230 V 50 Hz, 100 % load', pointIds: ['p1', 'p2'] },
  ...part,
});

/** A dossier whose claims came out as they are given. */
function concluded(
  of: readonly { watts: number; tests: readonly ClaimTest[]; state: ClaimTest['state']; sentence?: string }[],
) {
  const dossier: Dossier = dossierFor({ claims: of.map(({ watts }, at) => total(`c${at}`, watts)) });
  const judged = judgeSample(dossier);
  const verdict: Verdict = {
    ...judged,
    claims: of.map(({ tests, state, sentence = '' }, at) => ({
      claimId: `c${at}`,
      state,
      sentence,
      notes: [],
      unstated: [],
      tests,
    })),
  };
  return draftConclusion(dossier, verdict, UNIT);
}
const said = (drafts: readonly Drafted[], language: 'en' | 'de' = 'en') =>
  drafts.map((one) => sayLine(lineOf(one, one.key), language));

describe('a drafted conclusion', () => {
  const drafts = concluded([
    { watts: 65, tests: [test({})], state: 'short' },
    {
      watts: 20,
      tests: [test({ state: 'proven', value: 20.4, expanded: 0.1, limit: { kind: 'at-least', low: 19.6 } })],
      state: 'proven',
    },
    {
      watts: 30,
      tests: [test({ state: 'proven', value: 31, expanded: 0.1, limit: { kind: 'at-least', low: 29.4 } })],
      state: 'proven',
    },
    { watts: 90, tests: [], state: 'not tested' },
  ]);
  it('says the exception first, with its base, its condition and its uncertainty', () => {
    expect(said(drafts)).toEqual([
      'Promises tested: 3 of 4. Proven 2, short 1, undecided 0.',
      'Total 65 W falls short: 61.84 ± 0.28 W where at least 63.7 W counts as kept (C1 alone, 230 V 50 Hz, 100 % load).',
      'Proven: Total 20 W; Total 30 W. Nearest to its limit is Total 20 W with 20.40 ± 0.10 W against at least 19.6 W (C1 alone, 230 V 50 Hz, 100 % load).',
      'Not tested: Total 90 W.',
      'The sample was lent and goes back. Lent by the maker.',
    ]);
  });
  it('says the same in German, numbers by its signs, and leaves what a person wrote', () => {
    expect(said(drafts, 'de')).toEqual([
      'Geprüfte Zusagen: 3 von 4. Belegt 2, verfehlt 1, unentschieden 0.',
      'Zusammen 65 W wird verfehlt: 61,84 ± 0,28 W, wo mindestens 63,7 W als eingehalten gilt (C1 allein, 230 V 50 Hz, 100 % Last).',
      'Belegt: Zusammen 20 W; Zusammen 30 W. Der Grenze am nächsten ist Zusammen 20 W mit 20,40 ± 0,10 W gegen mindestens 19,6 W (C1 allein, 230 V 50 Hz, 100 % Last).',
      'Nicht geprüft: Zusammen 90 W.',
      'Der Prüfling wurde geliehen und geht zurück. Lent by the maker.',
    ]);
  });
  it('links each sentence to its claims and readings', () => {
    expect(drafts[1]).toMatchObject({ key: 'claim c0', claimIds: ['c0'], pointIds: ['p1', 'p2'], station: 'proof' });
    expect(drafts[2]).toMatchObject({ claimIds: ['c1', 'c2'] });
  });
  it('where nothing measured decided it, says why in the words of the judgement', () => {
    const plain = concluded([
      { watts: 65, tests: [test({ state: 'proven' })], state: 'short', sentence: 'No marker answers.' },
    ]);
    expect(said(plain)[1]).toBe('Total 65 W is short: No marker answers.');
  });
  it('of one-sided evidence says from where, never more', () => {
    const least = concluded([
      { watts: 75, tests: [test({ state: 'at least', value: 20.6, expanded: 0.13 })], state: 'at least' },
    ]);
    expect(said(least)[1]).toBe(
      'Total 75 W is shown from below only: at least 20.47 W (C1 alone, 230 V 50 Hz, 100 % load); a device took no more, which refutes nothing.',
    );
  });
  it('of a sample nobody touched is the disclosure alone', () => {
    const dossier = dossierFor({});
    expect(said(draftConclusion(dossier, judgeSample(dossier), { obtained: 'bought', disclosure: '' }))).toEqual([
      'The sample was bought by the bench.',
    ]);
  });
  it('says the worst touch current with its limit, loud where it is over', () => {
    const dossier = dossierFor({
      checks: [0.00006, 0.00061].map((amps, at) => ({
        id: `t${at}`,
        kind: 'touch',
        takenAt: '2026-03-02T10:00:00.000Z',
        note: '',
        supersedes: null,
        withdrawn: false,
        by: { person: 'E', standing: 'licensed' },
        instrumentId: null,
        accuracy: { ...NO_SPEC, offset: 2e-6, coverage: 'k = 2 or 95 %' },
        amps,
        form: 'rms',
        network: 'perception',
        mains: { kind: 'ac', volts: 230, hertz: 50 },
        polarity: 'as plugged in',
        earth: 'none',
        from: 'shell of C1',
        loaded: false,
      })),
    });
    const [first] = draftConclusion(dossier, judgeSample(dossier), UNIT);
    expect(first && sayLine(lineOf(first, 'x'), 'en')).toBe(
      'Touch current is 610.0 ± 2.0 µA rms (230 V 50 Hz, no earth), over the limit of 500 µA. A record, not a certificate.',
    );
    expect(first && sayLine(lineOf(first, 'x'), 'de')).toContain(
      '(230 V 50 Hz, ohne Erde), über der Grenze von 500 µA',
    );
  });
});

describe('the table of sentences', () => {
  it('has every sentence in every language, with the same figures', () => {
    for (const id of SENTENCE_IDS) {
      const [first, ...others] = LANGUAGES.map((language) => [...placesOf(SENTENCES[language][id])].sort());
      // What the judgement says stands in its own words, which no language has but English.
      for (const other of others) expect(other, id).toEqual(first?.filter((name) => name !== 'because'));
    }
  });
  it('leaves a place without a figure as it is', () => expect(filled('{a} of {b}', { a: '1' })).toBe('1 of {b}'));
});

describe('words in a language', () => {
  it.each([
    ['C1 of C1+C2 together, 230 V 50 Hz', 'C1 von C1+C2 zusammen, 230 V 50 Hz'],
    ['1.5 V to 2.5 V', '1,5 V bis 2,5 V'],
    ['“Gift of Fern 1.5” on C1', '„Gift of Fern 1.5“ an C1'],
    ['at 3 A, both conductors, after 6000 bends', 'bei 3 A, beide Leiter, nach 6000 Biegungen'],
  ])('%s', (english, german) => {
    expect(inLanguage(english, 'de')).toBe(german);
    expect(inLanguage(english, 'en')).toBe(english);
  });
  it('days are written as the language writes them; what is none stays', () => {
    expect([dayIn('2026-03-02', 'en'), dayIn('2026-03-02T23:30:00.000Z', 'de'), dayIn('soon', 'de')]).toEqual([
      '2 March 2026',
      '2. März 2026',
      'soon',
    ]);
  });
  it('limits are said by their kind', () => {
    expect(limitWords({ kind: 'within', low: 4.75, high: 5.5 }, 'voltage')).toBe('4.75 to 5.5 V');
    expect(limitWords({ kind: 'at-most', high: 0.075 }, 'power')).toBe('at most 0.075 W');
    // Ripple and drops are read in millivolts.
    expect(limitWords({ kind: 'at-most', high: 0.02 }, 'voltage')).toBe('at most 20 mV');
  });
});

describe('a kept conclusion', () => {
  const drafted = (key: string, found: string, sentence: Drafted['sentence'] = 'average'): Drafted => ({
    key,
    sentence,
    figures: { found, condition: 'C1 20 V' },
    claimIds: [],
    pointIds: [],
    station: null,
  });
  const id = ({ key }: Drafted) => `new ${key}`;
  const kept = [lineOf(drafted('a', '91.7 %'), '1'), lineOf(drafted('b', '0.04 W'), '2')];
  it('waits for a yes when a figure changes, and says what it was and is', () => {
    const all = standing(kept, [drafted('a', '91.2 %'), drafted('b', '0.04 W')], id);
    expect(all.map(({ state }) => state)).toEqual(['changed', 'same']);
    expect(all[0]?.changes).toEqual([{ name: 'found', was: '91.7 %', is: '91.2 %' }]);
    expect(waiting(all)).toHaveLength(1);
    // Until then it reads as it was agreed.
    expect(all[0] && sayLine(all[0].line, 'en')).toContain('91.7 %');
    const yes = all[0] && agreed(all[0]);
    expect(yes && sayLine(yes, 'en')).toContain('91.2 %');
    expect(
      waiting(
        standing([yes as ConclusionLine, ...kept.slice(1)], [drafted('a', '91.2 %'), drafted('b', '0.04 W')], id),
      ),
    ).toEqual([]);
  });
  it('waits when what it stood on is gone, or another sentence stands in its place', () => {
    const all = standing(kept, [drafted('a', '91.7 %', 'idle')], id);
    expect(all.map(({ state }) => state)).toEqual(['changed', 'gone']);
    expect(waiting(all)).toHaveLength(2);
  });
  it('what is left out waits for nobody', () => {
    const hidden = kept.map((line) => ({ ...line, hidden: true }));
    expect(waiting(standing(hidden, [], id))).toEqual([]);
  });
  it('a new sentence comes where the rules put it, and keeps a person’s order', () => {
    const turned = [...kept].reverse();
    const all = standing(
      turned,
      [drafted('0', 'x'), drafted('a', '91.7 %'), drafted('n', 'y'), drafted('b', '0.04 W')],
      id,
    );
    expect(all.map(({ line }) => line.id)).toEqual(['new 0', '2', '1', 'new n']);
    expect(all.map(({ state }) => state)).toEqual(['new', 'same', 'same', 'new']);
  });
  it('own words stay as they are, in the language there are', () => {
    const own: ConclusionLine = { kind: 'own', id: 'o', text: { de: 'Für die Hütten reicht es.' } };
    expect(standing([own], [], id)[0]?.state).toBe('own');
    expect([sayLine(own, 'de'), sayLine(own, 'en')]).toEqual([
      'Für die Hütten reicht es.',
      'Für die Hütten reicht es.',
    ]);
  });
  it('a wording of one’s own takes its figures from the evidence, and a typed number is refused', () => {
    const figures = { found: '91.7 %', condition: 'C1 20 V' };
    const line = { ...lineOf(drafted('a', '91.7 %'), '1'), text: { en: 'Good: {found}.' } };
    expect([sayLine(line, 'en'), sayLine(line, 'de')]).toEqual([
      'Good: 91.7 %.',
      'Der mittlere Wirkungsgrad ist 91,7 % (C1 20 V).',
    ]);
    expect(wordingRefusal('Good: {found}.', figures)).toBeNull();
    expect(wordingRefusal('Good: {best}.', figures)).toBe('There is no figure {best}. There are {found}, {condition}.');
    expect(wordingRefusal('Good: 91.7 %.', figures)).toContain('“91.7” is typed and would not follow the evidence');
    expect(wordingRefusal('  ', figures)).toContain('leave it out');
  });
});
