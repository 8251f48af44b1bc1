// The stations in the order of the work. A new station is a folder and one line here and in station/about.ts.
import { bendsStation } from '../bends/index.ts';
import { devicesStation } from '../charge/index.ts';
import { dataStation } from '../copy/index.ts';
import { efficiencyStation } from '../efficiency/index.ts';
import { heatStation } from '../heat/index.ts';
import { idleStation } from '../idle/index.ts';
import { markerStation } from '../marker/index.ts';
import { proofStation } from '../proof/index.ts';
import { readOutStation } from '../read-out/index.ts';
import { resistanceStation } from '../resistance/index.ts';
import { rippleStation } from '../ripple/index.ts';
import { safetyStation } from '../safety/index.ts';
import { splitStation } from '../split/index.ts';
import { claimsStation, intakeStation, verdictStation } from './plain.ts';

export const STATIONS = [
  intakeStation,
  claimsStation,
  readOutStation,
  proofStation,
  splitStation,
  devicesStation,
  idleStation,
  efficiencyStation,
  rippleStation,
  heatStation,
  safetyStation,
  markerStation,
  resistanceStation,
  dataStation,
  bendsStation,
  verdictStation,
] as const;

/** What every station concluded, by its id. */
export type Results = {
  readonly [S in (typeof STATIONS)[number] as S['id']]: ReturnType<S['conclude']>;
};
