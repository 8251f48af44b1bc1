// Packages of older versions stay readable: each kept file is one another bench wrote long ago.
import { readFileSync } from 'node:fs';
import request from 'supertest';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { getDossier } from '../src/dossier/dossier.ts';
import { toVerdict } from '../src/export/verdict.ts';
import { readPackage } from '../src/packages/read.ts';
import { takeIn } from '../src/packages/take-in.ts';
import { type Harness, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('kept_packages');
});
afterAll(() => harness.stop());

const STATES_THEN = [
  ['C1: 20 V 2.25 A', 'proven'],
  ['C1: 15 V 3 A', 'proven'],
  ['C1: PPS 3.3–16 V 3 A', 'proven'],
  ['C1: 5 V 3 A', 'proven'],
  ['Total 45 W', 'proven'],
  ['Average efficiency 90 %', 'proven'],
  ['Idle below 0.075 W', 'proven'],
  ['“Calm power”', 'undefined'],
];

const kept = (version: number) =>
  new Uint8Array(readFileSync(new URL(`kept/package-${version}.lastmark.zip`, import.meta.url)));

it('version 1: taken in whole, judged as it was judged then, its report as it was issued', async () => {
  const bytes = kept(1);
  const { dossier } = readPackage(bytes);
  const taken = await takeIn(harness.db, bytes);
  const [sample] = taken.samples;
  expect(sample).toMatchObject({ title: 'Tarnhook Ember 45 S0RRXZ', differences: [], sameVerdict: true });
  expect(sample?.added).toMatchObject({ claims: 8, captures: dossier.captures.length, reports: 1 });
  // What came since is nothing it differs in.
  expect((await takeIn(harness.db, bytes)).samples).toMatchObject([{ added: {}, differences: [] }]);
  const verdict = toVerdict(await getDossier(harness.db, sample?.sampleId ?? ''));
  // What its bench said of it when it was packed.
  expect(verdict.claims.map(({ says, state }) => [says, state])).toEqual(STATES_THEN);
  expect(verdict.figures.efficiency?.words).toBe('91.7 ± 0.4 %');
  expect(verdict.figures.idle?.words).toBe('0.0420 ± 0.0019 W');
  const [report] = (await request(harness.app).get(`/api/samples/${sample?.sampleId}/reports`)).body.items;
  expect(report).toMatchObject({ kind: 'first', leaves: [], otherSamples: [] });
  expect((await request(harness.app).get(`/api/report-codes/${report.code}`)).body.state).toBe('untouched');
  const { text } = await request(harness.app).get(`/api/reports/${report.id}/report.html`);
  expect(text).toContain('Tarnhook Ember 45');
});
