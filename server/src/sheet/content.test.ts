import type { SampleDossier } from '@lastmark/contract';
import type { AnyStation } from '@lastmark/core/station';
import { judgeSample, STATIONS } from '@lastmark/core/verdict';
import { describe, expect, it } from 'vitest';
import { toJudge } from '../dossier/judged.ts';
import { toJson } from '../export/data.ts';
import { sheetContent } from './content.ts';

const model = { kind: 'wall', maker: 'Fernwall', model: 'Trio', ports: [], prices: [], mass: null, inputRating: '' };
const unit = { serial: '', revision: '', obtained: 'bought', disclosure: '' };
const dossier = {
  sample: { id: 's', tag: 'F-1', model, unit },
  claims: [],
  setups: [],
  points: [],
  stated: [],
  readOuts: [],
  captures: [],
  runs: [],
  cableRuns: [],
  checks: [],
  devices: [],
  rigs: [],
  instruments: [],
  limitSets: [],
  profile: {
    rule: 'guarded',
    allowance: 0.02,
    tolerance: null,
    mains: [],
    limitSetIds: [],
    continuous: 3600,
    more: { as: 'stated', margin: 0.05 },
  },
} as unknown as SampleDossier;

const toy: AnyStation = {
  id: 'hum',
  title: 'Hum',
  touches: null,
  settles: [],
  reads: ['captures'],
  needs: [],
  conclude: () => ({ hertz: 50 }),
  progress: () => ({ done: 1, total: 1, worst: null }),
  says: ({ hertz }: { hertz: number }) => [`It hums at ${hertz} Hz.`],
};
const among = [...STATIONS, toy];

describe('a station put into the list for a while', () => {
  it('is on the sheet, under its title', () => {
    const content = sheetContent(dossier, judgeSample(toJudge(dossier), among));
    const at = content.findIndex((block) => JSON.stringify(block).includes('"Hum"'));
    expect(at).toBeGreaterThan(0);
    expect(JSON.stringify(content[at + 1])).toContain('It hums at 50 Hz.');
    expect(JSON.stringify(sheetContent(dossier, judgeSample(toJudge(dossier))))).not.toContain('Hum');
  });

  it('is in the JSON with what it concluded', () =>
    expect(toJson(dossier, '2026-03-02T10:00:00.000Z', among)).toMatchObject({
      concluded: { stations: expect.arrayContaining([expect.objectContaining({ id: 'hum', result: { hertz: 50 } })]) },
    }));
});

describe('the claims of a sheet', () => {
  const names = Array.from({ length: 30 }, (_, index) => `slogan ${index}`);
  const claims = names.map((text, index) => ({
    id: `c${index}`,
    promise: { kind: 'wording', text },
    duration: { kind: 'unstated' },
    printed: 'box',
  }));
  const judged = judgeSample(toJudge(dossier));
  const verdict = {
    ...judged,
    claims: claims.map(({ id }, index) => ({
      claimId: id,
      state: index === 29 ? 'short' : index === 28 ? 'unreachable' : 'proven',
      sentence: `${'long '.repeat(60)}end of ${index}`,
      notes: [],
      unstated: [],
      tests: [],
    })),
  } as typeof judged;
  const text = JSON.stringify(sheetContent({ ...dossier, claims } as unknown as SampleDossier, verdict));

  it('are all there, to the end of each sentence', () => {
    for (const [index, name] of names.entries()) {
      expect(text).toContain(name);
      expect(text).toContain(`end of ${index}"`);
    }
    expect(text).not.toMatch(/more claim|see the data|…/);
  });

  it('begin with what fell short, then what cannot be had', () => {
    const at = (name: string) => text.indexOf(name);
    expect(at('slogan 29')).toBeLessThan(at('slogan 28'));
    expect(at('slogan 28')).toBeLessThan(at('slogan 0'));
  });
});

it('of what sits in the line says what it is, and misses nothing of a charger', () => {
  const cable = {
    form: 'cable',
    length: 1.2,
    ends: ['C plug', 'C plug'],
    braid: false,
    strainRelief: 'none',
    stiffness: null,
    pack: 1,
  };
  const line = {
    ...dossier,
    cableRuns: [],
    checks: [],
    sample: { ...dossier.sample, model: { ...model, kind: 'cable', cable } },
  } as unknown as SampleDossier;
  const said = JSON.stringify(sheetContent(line, judgeSample(toJudge(line))));
  expect(said).toContain('C plug to C plug, 1.2 m');
  for (const missing of ['Efficiency', 'Idle', 'ports not entered']) expect(said).not.toContain(missing);
  expect(JSON.stringify(sheetContent(dossier, judgeSample(toJudge(dossier))))).toContain('Efficiency');
});
