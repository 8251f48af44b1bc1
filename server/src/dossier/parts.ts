// What is kept about a sample: a line each. A station that stores something new adds its part here.
import type { SampleDossier } from '@lastmark/contract';
import { attachmentsPart } from '../attachments/store.ts';
import { cableRunsPart } from '../cables/store.ts';
import { capturesPart } from '../captures/store.ts';
import { claimsPart } from '../claims/store.ts';
import { conclusionsPart } from '../conclusions/store.ts';
import { reportsPart } from '../issued/store.ts';
import { readOutsPart } from '../read-outs/store.ts';
import { pointsPart } from '../readings/points.ts';
import { runsPart } from '../runs/store.ts';
import { checksPart } from '../safety/store.ts';
import type { DossierPart, SamplePart } from '../samples/part.ts';
import { setupsPart } from '../setups/store.ts';
import { sheetsPart } from '../sheets/store.ts';
import { statementsPart } from '../statements/store.ts';
import { trialsPart } from '../trials/store.ts';

/** What a sample alone is judged by. */
export const OWN_PARTS = [
  claimsPart,
  setupsPart,
  pointsPart,
  statementsPart,
  readOutsPart,
  capturesPart,
  runsPart,
  cableRunsPart,
  checksPart,
] as const satisfies readonly DossierPart[];

export type OwnParts = Pick<SampleDossier, (typeof OWN_PARTS)[number]['key']>;

/** Everything that hangs on a sample; what refers to others comes after them. */
export const SAMPLE_PARTS: readonly SamplePart[] = [
  ...OWN_PARTS,
  attachmentsPart,
  sheetsPart,
  trialsPart,
  conclusionsPart,
  reportsPart,
];
