// Live numbers of a run, each against its limits.
import type { SheetRun } from '@lastmark/contract/plan';
import type { StoredInstrument, StoredRig } from '@lastmark/contract/types';
import { levelTolerance } from '@lastmark/core/claim';
import type { Limit } from '@lastmark/core/decision';
import { NEAR_END, outputsOf, type SheetStep } from '@lastmark/core/plan';
import { fixed, formatMeasured, ZERO_CELSIUS } from '@lastmark/core/quantity';
import { readAt, roomAndHottest } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { dossierQuery } from '../api/queries.ts';
import { LimitBand } from '../parts/LimitBand.tsx';
import { useTold } from './useShown.ts';

interface Props {
  readonly run: SheetRun;
  readonly step: SheetStep;
  readonly rig: StoredRig;
  readonly instruments: readonly StoredInstrument[];
}

function Big({
  name,
  value,
  unit,
  decimals,
  band,
  small = false,
}: {
  readonly small?: boolean;
  readonly name: string;
  readonly value: number | null;
  readonly unit: string;
  readonly decimals: number;
  readonly band?: ReactNode;
}) {
  return (
    <Box sx={{ minWidth: small ? 96 : 112 }}>
      <Box sx={{ color: 'text.secondary', fontSize: 15 }}>{name}</Box>
      <Box
        sx={{
          fontSize: small ? 24 : 34,
          fontWeight: 600,
          lineHeight: 1.1,
          fontVariantNumeric: 'tabular-nums',
          whiteSpace: 'nowrap',
        }}
      >
        {value === null ? '–' : fixed(value, decimals)}
        <Box component="span" sx={{ fontSize: small ? 15 : 18, ml: 0.5 }}>
          {unit}
        </Box>
      </Box>
      <Box sx={{ height: 16 }}>{band}</Box>
    </Box>
  );
}

/** What sits in the line is loaded from its near end. */
const nameOf = (port: string): string => (port === NEAR_END ? 'Near end' : port);

export function RunNumbers({ run, step, rig, instruments }: Props) {
  const { told, live } = useTold(run, true);
  const { data: dossier } = useQuery(dossierQuery(run.sample.id));
  const band = (value: number | null, quantity: 'voltage' | 'power', limit: Limit) => {
    if (value === null || value < 1) return null;
    const expanded = expandedUncertainty(readAt(value, quantity, rig.outputPlace, rig, instruments));
    return (
      <LimitBand
        value={value}
        known={{ low: value - expanded, high: value + expanded }}
        words={formatMeasured(value, expanded, quantity)}
        limit={limit}
        quantity={quantity}
      />
    );
  };
  const thermal = live.events.find(({ instrumentId }) => instrumentId === rig.drives?.thermometer);
  const { hottest } = roomAndHottest(thermal?.values ?? [], rig.spots);
  // A device takes what it wants: its port is shown without a level it should have.
  const outputs = step.kind === 'charge' ? [{ port: step.port, volts: null, supply: undefined }] : outputsOf(step);
  const several = outputs.length > 1;
  return (
    <Box
      component="section"
      aria-label="Live numbers"
      sx={{ display: 'flex', flexWrap: 'wrap', columnGap: several ? 3 : 2, rowGap: 0.5 }}
    >
      <Big name="Input" value={told(rig.meters.mains, 'power', null)} unit="W" decimals={2} />
      {outputs.map(({ port, volts, supply }) => {
        const v = told(rig.meters.outputVolts, 'voltage', port);
        const a = told(rig.meters.outputAmps, 'current', port);
        return (
          <Box key={port} sx={{ display: 'flex', columnGap: 2 }}>
            <Big
              small={several}
              name={`${nameOf(port)}, volts`}
              value={v}
              unit="V"
              decimals={3}
              band={
                volts === null
                  ? null
                  : band(v, 'voltage', levelTolerance(volts, dossier?.profile.tolerance ?? null, supply))
              }
            />
            <Big small={several} name={`${nameOf(port)}, amps`} value={a} unit="A" decimals={3} />
            <Big
              small={several}
              name={`${nameOf(port)}, watts`}
              value={v === null || a === null ? null : v * a}
              unit="W"
              decimals={2}
            />
          </Box>
        );
      })}
      {step.kind === 'resistance' &&
        outputs.map(({ port }) => {
          const near = told(rig.meters.outputVolts, 'voltage', port);
          const far = told(rig.meters.loadEnd, 'voltage', port);
          return (
            <Big
              key={port}
              name="Drop"
              value={near === null || far === null ? null : near - far}
              unit="V"
              decimals={4}
            />
          );
        })}
      {rig.drives?.thermometer && (
        <Big
          name="Hottest"
          value={hottest}
          unit="°C"
          decimals={1}
          band={
            hottest !== null &&
            run.limits.hottest !== null && (
              <LimitBand
                value={hottest + ZERO_CELSIUS}
                known={{ low: hottest + ZERO_CELSIUS, high: hottest + ZERO_CELSIUS }}
                words={`${fixed(hottest, 1)} °C`}
                limit={{ kind: 'at-most', high: run.limits.hottest }}
                quantity="temperature"
              />
            )
          }
        />
      )}
    </Box>
  );
}
