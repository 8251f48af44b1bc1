// Operations of drills. What is measured in one goes to the same addresses as everything else, below /practice/api.
import { drillInput, placeInput, verdictInput } from './practice-schemas.ts';
import type { DrillInput, DrillNow, DrillRow, DrillState, VerdictInput } from './practice-types.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { Items } from './route-types.ts';

export const PRACTICE_ROUTES = {
  listDrills: get('/drills', 'Drills there were, newest first', { answer: is<Items<DrillRow>>() }),
  drillNow: get('/drills/now', 'The drill that is under way, and how it stands', { answer: is<DrillNow>() }),
  startDrill: write('post', '/drills', 'Begin a drill: samples with hidden faults on a simulated bench', {
    needs: 'reader',
    body: of<DrillInput>(drillInput),
    answer: is<DrillState>(),
  }),
  getDrill: get('/drills/{drillId}', 'One drill; with its truth once its verdict was stated', {
    answer: is<DrillState>(),
  }),
  placeInDrill: write('post', '/drills/{drillId}/bench', 'Put a sample of a drill on its bench', {
    needs: 'reader',
    body: of<{ sampleId: string }>(placeInput),
    answer: is<DrillState>(),
  }),
  restartMeters: write('post', '/drills/{drillId}/restart', 'Switch the meters of the drill’s bench off and on', {
    needs: 'reader',
    answer: is<DrillState>(),
  }),
  stateVerdict: write('post', '/drills/{drillId}/verdict', 'State what is wrong with what; the truth is shown then', {
    needs: 'reader',
    body: of<VerdictInput>(verdictInput),
    answer: is<DrillState>(),
  }),
  leaveDrill: write('delete', '/drills/{drillId}', 'Leave a drill without a verdict', { needs: 'reader' }),
} as const satisfies Record<string, Route>;
