// Where the command box can go, with the words people use for it.

import { STATIONS_ABOUT, type StationId, stationsOf } from '@lastmark/core/station';
import { PRACTISING } from '../api/world.ts';

export interface Place {
  readonly title: string;
  readonly hint: 'station' | 'part' | 'page' | 'action';
  readonly to: string;
  /** What else people call it. */
  readonly words: string;
}

const STATION_WORDS: Readonly<Record<StationId, string>> = {
  intake: 'price cost mass weight size ports photo units history changes disclosure',
  claims: 'label promise box manual paste slogan',
  'read-out': 'offers levels analyser pd capabilities signalling protocol',
  proof: 'load step power volts undo',
  splits: 'combination share ports together budget',
  devices: 'device phone laptop tablet charge charging session battery full stages',
  idle: 'standby no load draw energy year',
  efficiency: 'average loss curve meter file load points',
  ripple: 'noise scope capture spectrum lines millivolts peak fft switching',
  heat: 'soak temperature thermal throttle touch hot spot steady image',
  safety: 'touch leakage current earth bond harmonics marks polarity lever',
  marker: 'cable chip discover identity rating 5 amp epr speed',
  resistance: 'cable drop ohm milliohm voltage loss gauge four wire',
  data: 'cable speed copy throughput transfer gigabit',
  bends: 'cable wear flex broken survival bender',
  verdict: 'report print sheet pdf csv json export result',
};

/** Parts of stations, by the words of their tabs. */
const PARTS: readonly (Omit<Place, 'hint' | 'to'> & { readonly station: StationId; readonly query: string })[] = [
  {
    title: 'Compare curves',
    station: 'efficiency',
    query: '?view=compare',
    words: 'difference other sample two units earlier',
  },
  { title: 'Surface', station: 'efficiency', query: '?view=surface', words: 'map voltage power' },
  {
    title: 'Mains current',
    station: 'efficiency',
    query: '?view=mains',
    words: 'power factor harmonics inrush correction',
  },
  { title: 'Meter chain', station: 'proof', query: '?part=meters', words: 'drop cable resistance meters disagree' },
  {
    title: 'For how long',
    station: 'proof',
    query: '?part=hold',
    words: 'hold heat hot temperature throttle fold back time',
  },
  { title: 'Over the rating', station: 'proof', query: '?part=over', words: 'overload cut-off limit' },
  { title: 'Devices', station: 'proof', query: '?part=devices', words: 'device phone laptop tablet charging run' },
  { title: 'Promised table', station: 'splits', query: '?part=promises', words: 'allocation table' },
  { title: 'Rule and interruptions', station: 'splits', query: '?part=rule', words: 'budget drops out renegotiates' },
  { title: 'Where to plug', station: 'splits', query: '?part=plug', words: 'evening device port best' },
];

/** Everything the box can go to. @param sampleId of the sample on the bench; null for none @param kind of that sample @param people whether people are told apart */
export function commandsOf(sampleId: string | null, kind = 'wall', people = false): readonly Place[] {
  const base = `/samples/${sampleId}`;
  const ofSample: readonly Place[] = [
    ...stationsOf(STATIONS_ABOUT, kind).map(({ id, title }) => ({
      title,
      hint: 'station' as const,
      to: `${base}/${id}`,
      words: STATION_WORDS[id],
    })),
    ...PARTS.filter(({ station }) => stationsOf(STATIONS_ABOUT, kind).some(({ id }) => id === station)).map(
      ({ station, query, ...one }) => ({ ...one, hint: 'part' as const, to: `${base}/${station}${query}` }),
    ),
    {
      title: 'Plan a run',
      hint: 'action',
      to: `/run-sheets?sample=${sampleId}`,
      words: 'schedule method start automatic',
    },
    {
      title: 'What happened to this sample',
      hint: 'page',
      to: `/log?sample=${sampleId}`,
      words: 'log history who changed undo author',
    },
  ];
  return [
    ...(sampleId === null ? [] : ofSample),
    { title: 'Run sheets', hint: 'page', to: '/run-sheets', words: 'plan schedule console' },
    { title: 'Take in a sample', hint: 'action', to: '/samples/new', words: 'new add charger intake create' },
    { title: 'Reports', hint: 'page', to: '/reports', words: 'issued print code check amend amendment pdf follow-up' },
    {
      title: 'Compare',
      hint: 'page',
      to: '/compare',
      words: 'comparison ranking winner scatter units kit weights first',
    },
    { title: 'Trials', hint: 'page', to: '/trials', words: 'compare experiment blind pairs folk rule matrix repeats' },
    { title: 'Shelf', hint: 'page', to: '/', words: 'samples list home all search' },
    { title: 'Bench', hint: 'page', to: '/bench', words: 'instrument meter rig device calibration add accuracy' },
    {
      title: 'Today',
      hint: 'page',
      to: '/today',
      words: 'morning runs next overdue calibration loans follow-up borderline',
    },
    { title: 'Bench day', hint: 'page', to: '/day', words: 'schedule plan people calendar when order' },
    ...(PRACTISING
      ? []
      : [
          {
            title: 'Drills',
            hint: 'page' as const,
            to: '/drills',
            words: 'practice learn exercise train hidden faults',
          },
        ]),
    { title: 'Log', hint: 'page', to: '/log', words: 'history who changed when undo audit chain' },
    ...(people
      ? [
          {
            title: 'Your account',
            hint: 'page' as const,
            to: '/account',
            words: 'password sign out factor token session name',
          },
          { title: 'People', hint: 'page' as const, to: '/people', words: 'invite admin role account' },
        ]
      : []),
    { title: 'Methods', hint: 'page', to: '/methods', words: 'schools versions procedure' },
    { title: 'Rules', hint: 'page', to: '/rules', words: 'price kwh tariff limits method mains settings currency' },
  ];
}

/** Whether somebody who typed this may mean it: every word begins a word of its title or of what else it is called. */
export function isMeant({ title, words = '' }: { title: string; words?: string }, typed: string): boolean {
  const known = `${title} ${words}`.toLowerCase();
  if (title.toLowerCase().includes(typed)) return true;
  const parts = known.split(/[\s-]+/);
  return typed.split(/\s+/).every((word) => parts.some((part) => part.startsWith(word)));
}
