// A sample's data in open formats.
import type { SampleDossier } from '@lastmark/contract';
import { quantityOf } from '@lastmark/core/quantity';
import { currentReadings, mainsLabel } from '@lastmark/core/reading';
import type { AnyStation } from '@lastmark/core/station';
import { csvText, type Field } from '@lastmark/core/table';
import { judgeSample, STATIONS } from '@lastmark/core/verdict';
import { toJudge } from '../dossier/judged.ts';

/** Identifies the JSON form, so that a reader can tell what it has. */
export const JSON_FORM = 'lastmark-sample/2';

const COLUMNS = [
  'reading',
  'point',
  'taken_at',
  'quantity',
  'place',
  'port',
  'value',
  'unit',
  'standard_uncertainty',
  'samples',
  'spread',
  'typed',
  'mains',
  'load_percent',
  'attached',
  'loading',
  'evidence',
  'rig',
  'instrument',
  'source',
  'calibration_overdue',
] as const;

/** Standing readings, one a line, SI values with the conditions they were taken under. */
export function toCsv(dossier: SampleDossier): string {
  const { points, setups, rigs, instruments } = dossier;
  const nameOf = (list: readonly { id: string; name: string }[], id: string | null) =>
    list.find((one) => one.id === id)?.name ?? '';
  const rows = points.flatMap((point) =>
    currentReadings(point.readings).map(
      (reading): Record<(typeof COLUMNS)[number], Field> => ({
        reading: reading.id,
        point: point.id,
        taken_at: reading.takenAt,
        quantity: reading.quantity,
        place: reading.place,
        port: reading.port ?? '',
        value: reading.value,
        unit: quantityOf(reading.quantity).si,
        standard_uncertainty: reading.u,
        samples: reading.count,
        spread: reading.spread,
        typed: reading.typed,
        mains: mainsLabel(point.mains),
        load_percent: Number((point.load * 100).toFixed(6)),
        attached: point.attached,
        loading: nameOf(setups, point.setupId),
        evidence: point.evidence,
        rig: nameOf(rigs, point.rigId),
        instrument: nameOf(instruments, reading.instrumentId),
        source: reading.source,
        calibration_overdue: reading.overdue ? 'yes' : 'no',
      }),
    ),
  );
  return csvText([COLUMNS, ...rows.map((row) => COLUMNS.map((column) => row[column]))]);
}

/**
 * Everything about a sample, superseded readings included, with what every station concluded from it.
 * A bound there is none of is null.
 */
export function toJson(dossier: SampleDossier, exportedAt: string, among: readonly AnyStation[] = STATIONS): unknown {
  const { results, claims, figures, stations } = judgeSample(toJudge(dossier), among);
  const found = new Map<string, unknown>(Object.entries(results));
  return {
    form: JSON_FORM,
    exportedAt,
    units: 'SI',
    ...dossier,
    concluded: {
      claims,
      figures,
      stations: stations.map((station) => ({ ...station, result: found.get(station.id) ?? null })),
    },
  };
}
