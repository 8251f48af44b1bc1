// How a language writes numbers, days, and the few words that stand in conditions.

export const LANGUAGES = ['en', 'de'] as const;
export type Language = (typeof LANGUAGES)[number];

export const LANGUAGE_NAMES: Readonly<Record<Language, string>> = { en: 'English', de: 'Deutsch' };

/** Words of conditions and findings, longest first; what stands in no list stays as it is: names, ports, what somebody typed. */
const PHRASES: Readonly<Record<Language, readonly (readonly [RegExp, string])[]>> = {
  en: [],
  de: [
    [/\bcannot be decided\b/g, 'nicht zu entscheiden'],
    [/\bborderline\b/g, 'zu knapp für ein Urteil'],
    [/\btoo close to call against\b/g, 'zu knapp an'],
    [/\bwithin\b/g, 'unter'],
    [/\bover\b/g, 'über'],
    [/\bno earth\b/g, 'ohne Erde'],
    [/\bearth joined\b/g, 'Erde verbunden'],
    [/\bearth open\b/g, 'Erde offen'],
    [/\brms\b/g, 'effektiv'],
    [/\bpeak\b/g, 'Spitze'],
    [/\bshort\b/g, 'verfehlt'],
    [/\bcontinuous\b/g, 'dauernd'],
    [/\bfor (\d[\d.]* s)\b/g, '$1 lang'],
    [/\bwith plug\b/g, 'mit Stecker'],
    [/\bwithout plug\b/g, 'ohne Stecker'],
    [/\bfour points\b/g, 'vier Punkte'],
    [/\bfull load\b/g, 'volle Last'],
    [/\brated load\b/g, 'Nennlast'],
    [/\bof those decided\b/g, 'von den entschiedenen'],
    [/\bwhole power\b/g, 'ganze Leistung'],
    [/\bcontacts included\b/g, 'mit Kontakten'],
    [/four-point average/g, 'Vierpunktmittel'],
    [/four-point/g, 'Vierpunkt'],
    [/with nothing attached|nothing attached/g, 'ohne etwas daran'],
    [/along both conductors|both conductors/g, 'beide Leiter'],
    [/along VBUS/g, 'auf VBUS'],
    [/along ground/g, 'auf Masse'],
    [/\bprobe not stated\b/g, 'Tastkopf nicht genannt'],
    [/\bbandwidth not stated\b/g, 'Bandbreite nicht genannt'],
    [/\bno capacitors\b/g, 'ohne Kondensatoren'],
    [/not stated/g, 'nicht genannt'],
    [/% load\b/g, '% Last'],
    [/\bno load\b/g, 'ohne Last'],
    [/\bafter (\d+) bends\b/g, 'nach $1 Biegungen'],
    [/\b(\d+) bends\b/g, '$1 Biegungen'],
    [/\bfailed by\b/g, 'ausgefallen bis'],
    [/\bin the open room\b|\bopen room\b/g, 'offener Raum'],
    [/\bchamber\b/g, 'Kammer'],
    [/\bEach way over\b|\beach way over\b/g, 'je Seite über'],
    [/\bgradually falling\b/g, 'langsam fallend'],
    [/\balone\b/g, 'allein'],
    [/\btogether\b/g, 'zusammen'],
    [/\bscreen on\b/g, 'Bildschirm an'],
    [/\bidle\b/g, 'Leerlauf'],
    [/\bat least\b/gi, 'mindestens'],
    [/\bat most\b/gi, 'höchstens'],
    [/\bat (\d+(?:\.\d+)?) V\b/g, 'bei $1 V'],
    [/\bbelow\b/g, 'unter'],
    [/\ba link of\b/g, 'eine Verbindung mit'],
    [/\ba year\b/g, 'im Jahr'],
    [/\bpaid\b/g, 'bezahlt'],
    [/\bstreet\b/g, 'Marktpreis'],
    [/\bdiscounted\b/g, 'herabgesetzt'],
    [/\blist\b/g, 'Listenpreis'],
    [/\bshare\b/g, 'teilen sich'],
    [/\bTotal\b/g, 'Zusammen'],
    [/\bAverage efficiency\b/g, 'Mittlerer Wirkungsgrad'],
    [/\bIdle\b/g, 'Leerlauf'],
    [/\bRipple\b/g, 'Welligkeit'],
    [/\bSurface\b/g, 'Oberfläche'],
    [/\bAny device\b/g, 'Irgendein Gerät'],
    [/\bCarries\b/g, 'Trägt'],
    [/\bData at\b/g, 'Daten mit'],
    [/\bat\b/g, 'bei'],
    [/\bof\b/g, 'von'],
    [/\bon\b/g, 'an'],
    [/\bto\b/g, 'bis'],
    [/\bfrom\b/g, 'von'],
    [/\band\b/g, 'und'],
  ],
};

/** What stands between quotation marks is somebody's own and stays; only the marks are the language's. */
const OWN = /(“[^”]*”)/;

/**
 * Words and numbers of a condition or a finding in a language: decimal sign and the words there are.
 * @example inLanguage('61.8 ± 0.3 W at 230 V 50 Hz', 'de') // '61,8 ± 0,3 W bei 230 V 50 Hz'
 */
export function inLanguage(text: string, language: Language): string {
  if (language === 'en') return text;
  return text
    .split(OWN)
    .map((part, index) => (index % 2 === 1 ? `„${part.slice(1, -1)}“` : wordsIn(part, language)))
    .join('');
}

function wordsIn(text: string, language: Language): string {
  const words = PHRASES[language].reduce((said, [word, by]) => said.replace(word, by), text);
  // A point between digits is a decimal sign; versions and addresses do not stand in conditions.
  return words.replace(/(\d)\.(\d)/g, '$1,$2');
}

/**
 * A day as the language writes it.
 * @param iso a day or a moment, UTC ISO 8601
 * @returns the text itself where it is no day
 * @example dayIn('2026-03-02', 'de') // '2. März 2026'
 */
export function dayIn(iso: string, language: Language): string {
  const time = Date.parse(iso.length === 10 ? `${iso}T00:00:00Z` : iso);
  if (Number.isNaN(time)) return iso;
  const locale = language === 'de' ? 'de-DE' : 'en-GB';
  return new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
    time,
  );
}
