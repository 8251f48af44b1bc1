// Operations of things that sit in the line, of trials, and of the safety look.
import type { SafetyCheck } from '@lastmark/core/safety';
import type { TrialRun } from '@lastmark/core/trial';
import { cableRunBody, trialInput, trialListQuery, trialRunBody } from './cable-schemas.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { Items } from './route-types.ts';
import { safetyCheckBody } from './safety-schemas.ts';
import type {
  CableRunInput,
  HeldBackCharger,
  StoredCableRun,
  StoredTrial,
  TrialInput,
  TrialRow,
  UnitFate,
} from './types.ts';

export const TRIAL_ROUTES = {
  addCableRun: write('post', '/samples/{sampleId}/cable-runs', 'Add a run of a cable; the same id twice is kept once', {
    body: of<{ run: CableRunInput }>(cableRunBody),
    ids: ['run.id'],
    answer: is<StoredCableRun>(),
  }),
  addCheck: write(
    'post',
    '/samples/{sampleId}/checks',
    'Add a check of the safety look; the same id twice is kept once',
    {
      body: of<{ check: SafetyCheck }>(safetyCheckBody),
      ids: ['check.id'],
      answer: is<SafetyCheck>(),
    },
  ),
  getFates: get('/samples/{sampleId}/fates', 'How far every unit of its model came by bends', {
    answer: is<Items<UnitFate>>(),
  }),
  getHeldBack: get(
    '/samples/{sampleId}/held-back',
    'Chargers of the shelf this cable would hold back, the most first',
    {
      answer: is<Items<HeldBackCharger>>(),
    },
  ),
  listTrials: get('/trials', 'Trials, the newest first; of one sample, or all', {
    query: of<{ sampleId?: string }>(trialListQuery),
    answer: is<Items<TrialRow>>(),
  }),
  createTrial: write('post', '/trials', 'Plan a trial', {
    body: of<TrialInput>(trialInput),
    answer: is<StoredTrial>(),
  }),
  getTrial: get('/trials/{trialId}', 'A trial with its runs', { answer: is<StoredTrial>() }),
  updateTrial: write('put', '/trials/{trialId}', 'Change a trial nothing was run of', {
    body: of<TrialInput>(trialInput),
    ifMatch: true,
    answer: is<StoredTrial>(),
  }),
  deleteTrial: write('delete', '/trials/{trialId}', 'Remove a trial nothing was run of', { ifMatch: true }),
  addTrialRun: write('post', '/trials/{trialId}/runs', 'Add a run of a trial; the same id twice is kept once', {
    body: of<{ run: TrialRun }>(trialRunBody),
    ids: ['run.id'],
    answer: is<StoredTrial>(),
  }),
  openTrialKey: write(
    'post',
    '/trials/{trialId}/key',
    'Which letter is which, for whoever labels them; that it was opened is kept',
    {
      status: 200,
      answer: is<{ letters: number[] }>(),
    },
  ),
  revealTrial: write('post', '/trials/{trialId}/reveal', 'Open the letters to all: the trial is over', {
    status: 200,
    answer: is<StoredTrial>(),
  }),
} as const satisfies Record<string, Route>;
