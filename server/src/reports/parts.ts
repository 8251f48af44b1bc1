// What every form of a report is made of, worked out once from its frozen content.
import { type Language, sayLine } from '@lastmark/core/conclusion';
import type { Picture } from '@lastmark/core/picture';
import { type LeavableId, picturesOf, REPORT_WORDS, recordedPictures, STATION_WORDS } from '@lastmark/core/report';
import { STATIONS_ABOUT, stationsOf } from '@lastmark/core/station';
import { judgeSample, type Verdict } from '@lastmark/core/verdict';
import { toJudge } from '../dossier/judged.ts';
import type { ReportContent } from './content.ts';

/** One station of a report. */
export interface StationPart {
  readonly id: string;
  readonly title: string;
  readonly pictures: readonly Picture[];
  /** In the words of the judgement, which are English. */
  readonly says: readonly string[];
}

export interface ReportParts {
  readonly content: ReportContent;
  readonly verdict: Verdict;
  readonly words: (typeof REPORT_WORDS)[Language];
  /** What each port was promised and proved. */
  readonly ports: readonly Picture[];
  readonly stations: readonly StationPart[];
  readonly conclusion: readonly { readonly says: string; readonly own: boolean }[];
  /** What was left out by choice, as it is said; empty where nothing was. */
  readonly leftOut: string;
}

const leftOut = ({ leaves, language }: ReportContent, kind: string): string => {
  const words = REPORT_WORDS[language];
  const names = leaves.flatMap((id) => {
    if (id === 'limits' || id === 'photos') return [words[id]];
    const own = stationsOf(STATIONS_ABOUT, kind).find((one) => one.id === id);
    return own ? [STATION_WORDS[language][id] ?? own.title] : [];
  });
  return names.length === 0 ? '' : `${words.left}: ${names.join(', ')}.`;
};

export function partsOf(content: ReportContent): ReportParts {
  const { dossier, language, recorded, lines, leaves } = content;
  const judged = toJudge(dossier);
  const verdict = judgeSample(judged);
  const { kind } = dossier.sample.model;
  const drawn = picturesOf(judged, verdict);
  const taken = recordedPictures(verdict, kind, recorded);
  return {
    content,
    verdict,
    words: REPORT_WORDS[language],
    ports: drawn.claims ?? [],
    stations: stationsOf(STATIONS_ABOUT, kind).flatMap(({ id, title }): StationPart[] => {
      if (id === 'intake' || id === 'claims' || id === 'verdict') return [];
      if (leaves.includes(id satisfies LeavableId)) return [];
      const says = verdict.stations.find((one) => one.id === id)?.says ?? [];
      return [
        {
          id,
          title: STATION_WORDS[language][id] ?? title,
          pictures: [...(drawn[id] ?? []), ...(taken[id] ?? [])],
          says,
        },
      ];
    }),
    conclusion: lines.map((line) => ({ says: sayLine(line, language), own: line.kind === 'own' })),
    leftOut: leftOut(content, kind),
  };
}

/** Every picture, in the order of the work. */
export const allPictures = ({ ports, stations }: ReportParts): readonly Picture[] => [
  ...ports,
  ...stations.flatMap(({ pictures }) => pictures),
];
