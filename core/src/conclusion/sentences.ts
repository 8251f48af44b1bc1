// The table of sentences: what a conclusion says, in every language, with places for its figures in braces.
import type { Language } from './languages.ts';

export const SENTENCE_IDS = [
  'summary',
  'short',
  'unreachable',
  'borderline',
  'at least',
  'cannot be decided',
  'plain',
  'advertised only',
  'not visible',
  'proven',
  'assumed',
  'average',
  'idle',
  'per-watt',
  'best-use',
  'safety',
  'not tested',
  'untestable',
  'gains',
] as const;
export type SentenceId = (typeof SENTENCE_IDS)[number];

export const SENTENCES: Readonly<Record<Language, Readonly<Record<SentenceId, string>>>> = {
  en: {
    summary: 'Promises tested: {tested} of {claims}. Proven {proven}, short {short}, undecided {open}.',
    short: '{promise} falls short: {found} where {limit} counts as kept ({condition}).',
    unreachable: '{promise} is offered and cannot be had.',
    borderline: '{promise} is too close to call: {found} against {limit} ({condition}).',
    'at least':
      '{promise} is shown from below only: {found} ({condition}); a device took no more, which refutes nothing.',
    'cannot be decided':
      '{promise} cannot be decided: {found} against {limit}, and an accuracy behind it is not stated.',
    plain: '{promise} is {state}: {because}',
    'advertised only': 'Said by the sample itself and not proven: {list}.',
    'not visible': 'Not visible to the analyser that asked, which is not the same as absent: {list}.',
    proven: 'Proven: {list}. Nearest to its limit is {promise} with {found} against {limit} ({condition}).',
    assumed: 'Assumed from a port made alike: {list}.',
    average: 'Average efficiency is {found} ({condition}).',
    idle: 'With nothing attached it draws {found} ({condition}): {energy} in a year left plugged in, {cost}.',
    'per-watt': 'It weighs {mass} for each watt of its {watts}.',
    'best-use': 'Good for a device that takes {level}: {watts} at {port} are proven.',
    safety: 'Touch current is {found} ({condition}), {state} the limit of {limit}. A record, not a certificate.',
    'not tested': 'Not tested: {list}.',
    untestable: 'Words that promise nothing that can be tested: {list}.',
    gains: 'The sample was {obtained}. {disclosure}',
  },
  de: {
    summary: 'Geprüfte Zusagen: {tested} von {claims}. Belegt {proven}, verfehlt {short}, unentschieden {open}.',
    short: '{promise} wird verfehlt: {found}, wo {limit} als eingehalten gilt ({condition}).',
    unreachable: '{promise} wird angeboten und ist nicht zu bekommen.',
    borderline: '{promise} ist zu knapp für ein Urteil: {found} gegen {limit} ({condition}).',
    'at least':
      '{promise} ist nur von unten gezeigt: {found} ({condition}); ein Gerät nahm nicht mehr, was nichts widerlegt.',
    'cannot be decided':
      '{promise} ist nicht zu entscheiden: {found} gegen {limit}, und eine Genauigkeit dahinter ist nicht genannt.',
    plain: '{promise}: {state}.',
    'advertised only': 'Vom Prüfling selbst gesagt und nicht belegt: {list}.',
    'not visible': 'Für den fragenden Analysator nicht sichtbar, was nicht fehlend heißt: {list}.',
    proven: 'Belegt: {list}. Der Grenze am nächsten ist {promise} mit {found} gegen {limit} ({condition}).',
    assumed: 'Von einem baugleichen Anschluss angenommen: {list}.',
    average: 'Der mittlere Wirkungsgrad ist {found} ({condition}).',
    idle: 'Ohne etwas daran nimmt es {found} auf ({condition}): eingesteckt im Jahr {energy}, {cost}.',
    'per-watt': 'Es wiegt {mass} je Watt seiner {watts}.',
    'best-use': 'Gut für ein Gerät, das {level} nimmt: {watts} an {port} sind belegt.',
    safety:
      'Der Berührungsstrom ist {found} ({condition}), {state} der Grenze von {limit}. Eine Aufzeichnung, kein Zertifikat.',
    'not tested': 'Nicht geprüft: {list}.',
    untestable: 'Worte, die nichts Prüfbares zusagen: {list}.',
    gains: 'Der Prüfling wurde {obtained}. {disclosure}',
  },
};

/** How a sample came to the bench, said after "was". */
export const OBTAINED_WORDS: Readonly<Record<Language, Readonly<Record<string, string>>>> = {
  en: {
    bought: 'bought by the bench',
    lent: 'lent and goes back',
    given: 'given to the bench',
    commission: 'tested on commission',
  },
  de: {
    bought: 'von der Werkbank gekauft',
    lent: 'geliehen und geht zurück',
    given: 'der Werkbank geschenkt',
    commission: 'im Auftrag geprüft',
  },
};

/** Places for figures in a text: `{found}`. */
const PLACE = /\{([a-z]+)\}/g;

/** Figures a text has places for, in order. @example placesOf('{found} of {limit}') // ['found', 'limit'] */
export const placesOf = (text: string): readonly string[] => [...text.matchAll(PLACE)].map(([, name]) => name ?? '');

/** A text with its figures filled in; a place without a figure stays as it is. */
export const filled = (text: string, figures: Readonly<Record<string, string>>): string =>
  text.replace(PLACE, (place, name: string) => figures[name] ?? place).trim();
