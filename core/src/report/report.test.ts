import { describe, expect, it } from 'vitest';
import { LANGUAGES } from '../conclusion/index.ts';
import { CLAIM_STATES } from '../evidence/index.ts';
import { toSvg } from '../picture/index.ts';
import { STATIONS_ABOUT } from '../station/index.ts';
import { dossierFor } from '../testing/verdict.ts';
import { judgeSample } from '../verdict/index.ts';
import {
  codeOf,
  picturesOf,
  pictureWords,
  REPORT_WORDS,
  readCode,
  recordedPictures,
  STATE_WORDS,
  STATION_WORDS,
} from './index.ts';

// sha256('abc'), FIPS 180-4; its first 75 bits by five, worked out in Python with int(h, 16) >> 181.
const ABC = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad';

describe('the code of a report', () => {
  it('is the beginning of its hash, in groups, with a sign that checks it', () => {
    const code = codeOf(ABC);
    expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{4}(-[0-9A-HJKMNP-TV-Z]{4}){3}$/);
    expect(code.replaceAll('-', '').slice(0, 15)).toBe('Q9W1DFWF077YMGA');
    expect(readCode(code)).toEqual({ code });
  });
  it('is read as people type it', () => {
    const code = codeOf(ABC);
    expect(readCode(` ${code.toLowerCase().replaceAll('-', ' ')} `)).toEqual({ code });
    expect(readCode(code.replaceAll('0', 'o').replaceAll('1', 'l'))).toEqual({ code });
  });
  it('notices every single wrong sign, and neighbours that changed places', () => {
    const plain = codeOf(ABC).replaceAll('-', '');
    for (let at = 0; at < plain.length; at += 1) {
      const other = plain[at] === 'Z' ? 'Y' : 'Z';
      // One sign in 32 stands for the same remainder as another: the check is a prime below.
      if (plain[at] !== '0')
        expect(readCode(plain.slice(0, at) + other + plain.slice(at + 1))).toHaveProperty('reason');
      if (at > 0 && plain[at] !== plain[at - 1] && at < 15) {
        const turned = plain.slice(0, at - 1) + plain[at] + plain[at - 1] + plain.slice(at + 1);
        expect(readCode(turned)).toHaveProperty('reason');
      }
    }
  });
  it('of what is none says why', () => {
    expect(readCode('')).toEqual({ reason: 'A code has 16 signs; this has 0.' });
    expect(readCode('UUUU-UUUU-UUUU-UUUU')).toEqual({ reason: '“U” stands in no code.' });
    expect(() => codeOf('abc')).toThrow(RangeError);
  });
});

describe('the words of a report', () => {
  it('are there in every language, each its own', () => {
    for (const language of LANGUAGES) {
      expect(Object.keys(REPORT_WORDS[language])).toEqual(Object.keys(REPORT_WORDS.en));
      for (const state of CLAIM_STATES) expect(STATE_WORDS[language][state]).not.toBe('');
    }
    const places = (text: string) => [...text.matchAll(/\{\w+\}/g)].map(([place]) => place).sort();
    for (const [name, words] of Object.entries(REPORT_WORDS.en))
      expect(places(REPORT_WORDS.de[name as keyof typeof REPORT_WORDS.en]), name).toEqual(places(words));
    const named = STATIONS_ABOUT.filter(({ id }) => id !== 'intake' && id !== 'verdict').map(({ id }) => id);
    expect(Object.keys(STATION_WORDS.de).sort()).toEqual([...named].sort());
  });
});

describe('words of a picture', () => {
  it('are the language’s, with their conditions', () => {
    expect(pictureWords('Efficiency: C1 20.5 V', 'de')).toBe('Wirkungsgrad: C1 20,5 V');
    expect(pictureWords('Time, min', 'de')).toBe('Zeit, min');
    expect(pictureWords('C1 alone', 'de')).toBe('C1 allein');
    expect(pictureWords('Time, min', 'en')).toBe('Time, min');
  });
});

describe('pictures of a report', () => {
  it('of a sample nobody touched are none', () => {
    const dossier = dossierFor({});
    const verdict = judgeSample(dossier);
    expect(Object.values(picturesOf(dossier, verdict)).flat()).toEqual([]);
    expect(Object.values(recordedPictures(verdict, 'wall', {})).flat()).toEqual([]);
  });
  it('of ports say what is promised and proven', () => {
    const dossier = dossierFor({
      claims: [
        {
          id: 'c',
          promise: { kind: 'port-line', port: 'C1', volts: 20, amps: 3 },
          duration: { kind: 'unstated' },
          printed: 'box',
        },
      ],
    });
    const [picture] = picturesOf(dossier, judgeSample(dossier)).claims ?? [];
    expect(picture?.table[1]).toEqual(['C1', 60, null, 'not tested']);
    expect(picture && toSvg(picture)).toContain('60 W: not tested');
  });
});
