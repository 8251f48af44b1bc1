// A cable of the shelf as part of a rig: what its marker and its readings say of it is taken over.
import type { SampleDossier } from '@lastmark/contract/types';
import { formatMeasured } from '@lastmark/core/quantity';
import type { LineElement } from '@lastmark/core/reading';
import { expandedUncertainty, isStated } from '@lastmark/core/uncertainty';
import { judgeSample } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { dossierQuery, queryClient } from '../api/queries.ts';
import { SampleField } from '../parts/SampleField.tsx';
import { toJudge } from '../state/sample.tsx';
import { type ElementText, toElementText } from './LineFields.tsx';

/** What the shelf knows of a cable, as an element of a line; null for what is none. */
export function elementOf(dossier: SampleDossier): LineElement | null {
  const { model, unit } = dossier.sample;
  if (!model.cable) return null;
  const { marker, resistance } = judgeSample(toJudge(dossier)).results;
  const series = resistance.series.filter(({ side }) => side === 'loop').at(-1);
  const at20 = series?.at20 && isStated(series.at20) ? series.at20 : null;
  const last = dossier.cableRuns.findLast(({ id }) => series?.runIds.includes(id));
  return {
    kind: model.cable.form,
    name: `${model.maker} ${model.model}${unit.serial ? `, ${unit.serial}` : ''}`.slice(0, 60),
    amps: marker.rating?.amps ?? null,
    volts: marker.rating?.volts ?? null,
    basis: marker.rating ? 'marker' : 'not stated',
    sampleId: dossier.sample.id,
    calibrated:
      at20 && last ? { ohms: at20.value, expanded: expandedUncertainty(at20), on: last.takenAt.slice(0, 10) } : null,
  };
}

/** `115.2 ± 1.9 mΩ at 20 °C, 2026-02-09` */
export const calibratedWords = ({ calibrated }: Pick<ElementText, 'calibrated'>): string | null =>
  calibrated
    ? `${formatMeasured(calibrated.ohms, calibrated.expanded, 'resistance')} at 20 °C, ${calibrated.on}`
    : null;

/** Adds a cable of the shelf to the line. */
export function ShelfElement({ onAdd }: { readonly onAdd: (element: ElementText) => void }) {
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  if (!open)
    return (
      <Button size="small" variant="outlined" onClick={() => setOpen(true)}>
        Add a cable of the shelf
      </Button>
    );
  return (
    <Box sx={{ width: 320 }}>
      <SampleField
        label="Cable of the shelf"
        chosen={null}
        onChoose={(one) => {
          if (!one) return;
          void queryClient
            .fetchQuery(dossierQuery(one.id))
            .then((dossier) => {
              const element = elementOf(dossier);
              if (!element) {
                setProblem(`${one.name} is a charger.`);
                return;
              }
              setProblem(null);
              setOpen(false);
              onAdd(toElementText(element));
            })
            .catch((error: Error) => setProblem(error.message));
        }}
      />
      {problem && (
        <Box role="alert" sx={{ color: 'error.main', fontSize: 13 }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}
