// Resistance as a station: what is lost, what is left at a device, and whether it may be.
import { type CableFacts, type CableRun, SIDES, type Side } from '../cable/index.ts';
import type { DecisionRule, Outcome } from '../decision/index.ts';
import { type ClaimState, worstOf } from '../evidence/index.ts';
import type { CableRating } from '../pd/index.ts';
import type { Claim } from '../promise/index.ts';
import { formatMeasured, formatPlain } from '../quantity/index.ts';
import type { Instrument, Rig } from '../reading/index.ts';
import type { Device } from '../run/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { expandedUncertainty, isStated, type Measured } from '../uncertainty/index.ts';
import { type AtDevice, atDevice, type DeviceFate, dropAt, fateOf, MOST_DROP, SIDE_WORDS } from './drop.ts';
import { gaugeOf } from './gauge.ts';
import { type ResistanceSeries, resistanceSeries } from './series.ts';

export interface ResistanceFacts {
  readonly sample: { readonly cable?: CableFacts | null | undefined };
  readonly claims: readonly Claim[];
  readonly cableRuns: readonly CableRun[];
  readonly devices: readonly Device[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly profile: { readonly rule: DecisionRule };
}

/** One side against its limit at the rated current. */
export interface SideResult {
  readonly side: Side;
  readonly series: ResistanceSeries;
  readonly drop: Measured;
  /** V */
  readonly limit: number;
  readonly outcome: Outcome;
  readonly probability: number | null;
}

/** A device at the end of it. */
export interface DeviceDrop {
  readonly device: string;
  readonly level: number;
  readonly watts: number;
  readonly at: AtDevice | null;
  readonly fate: DeviceFate;
  /** W the rating of the cable lets through, where that is less than it takes; null where it is enough. */
  readonly heldTo: number | null;
}

export interface Loss {
  readonly amps: number;
  /** V, W */
  readonly drop: number;
  readonly loss: number;
  /** V left of a level, and part of its power that is lost. */
  readonly at: readonly { readonly level: number; readonly left: number; readonly part: number }[];
}

export interface ResistanceConclusion {
  readonly series: readonly ResistanceSeries[];
  /** A it is held against: by its marker, else as printed, else 3. */
  readonly rated: { readonly amps: number; readonly by: string };
  /** As it is now: after the most bends. */
  readonly sides: readonly SideResult[];
  /** Ω of the loop as it is now; both sides together where the loop was not read. Null while neither is known. */
  readonly loop: Measured | null;
  readonly losses: readonly Loss[];
  readonly devices: readonly DeviceDrop[];
  /** Gauge of one conductor, contacts included; null without a length. */
  readonly gauge: number | null;
  readonly findings: readonly string[];
}

const AMPS = [1, 3, 5];
const LEVELS = [5, 9, 20];

function ratedOf(rating: CableRating | null, claims: readonly Claim[]): ResistanceConclusion['rated'] {
  if (rating && rating.amps > 0) return { amps: rating.amps, by: 'by its marker' };
  const printed = claims.flatMap(({ promise }) => (promise.kind === 'cable-rating' ? [promise.amps] : []));
  return printed.length > 0 ? { amps: Math.max(...printed), by: 'as printed' } : { amps: 3, by: 'nothing states more' };
}

const newest = (series: readonly ResistanceSeries[], side: Side): ResistanceSeries | undefined =>
  series.filter((one) => one.side === side).at(-1);

function loopOf(series: readonly ResistanceSeries[]): Measured | null {
  const [loop, vbus, ground] = (['loop', 'vbus', 'ground'] as const).map((side) => newest(series, side)?.ohms ?? null);
  if (loop) return loop;
  if (!vbus || !ground) return null;
  return {
    value: vbus.value + ground.value,
    // The same meters read both.
    uInstrument: vbus.uInstrument + ground.uInstrument,
    uRepeat: Math.hypot(vbus.uRepeat, ground.uRepeat),
    degrees: Math.min(vbus.degrees, ground.degrees),
    unstated: [...vbus.unstated, ...ground.unstated],
  };
}

const lossAt = (amps: number, ohms: number): Loss => ({
  amps,
  drop: amps * ohms,
  loss: amps ** 2 * ohms,
  at: LEVELS.map((level) => ({
    level,
    left: level - amps * ohms,
    part: Math.min(1, (amps * ohms) / level),
  })),
});

function devicesAt(ohms: number, rating: CableRating, devices: readonly Device[]): readonly DeviceDrop[] {
  return devices.flatMap(({ name, ceilings }) => {
    const best = ceilings
      .filter(({ connector, volts }) => connector.toUpperCase().startsWith('C') && volts !== null)
      .reduce<(typeof ceilings)[number] | null>((most, one) => (most && most.watts >= one.watts ? most : one), null);
    if (!best || best.volts === null) return [];
    const level = Math.min(best.volts, rating.volts);
    const through = Math.min(best.watts, level * rating.amps);
    const at = atDevice(level, through, ohms);
    return [
      {
        device: name,
        level,
        watts: best.watts,
        at,
        fate: fateOf(level, at?.volts ?? null),
        heldTo: through < best.watts * 0.995 ? through : null,
      },
    ];
  });
}

const UNRATED: CableRating = { amps: 3, volts: 20, epr: false };

function conclude(
  { sample, claims, cableRuns, devices, rigs, instruments, profile }: ResistanceFacts,
  { marker }: { readonly marker: { readonly rating: CableRating | null } },
): ResistanceConclusion {
  const series = resistanceSeries(cableRuns, rigs, instruments);
  const rated = ratedOf(marker.rating, claims);
  const sides = SIDES.flatMap((side): SideResult[] => {
    const one = newest(series, side);
    if (!one) return [];
    const { drop, decision } = dropAt(one.ohms, rated.amps, side, profile.rule);
    const { outcome, probability } = decision;
    return [{ side, series: one, drop, limit: MOST_DROP[side], outcome, probability }];
  });
  const loop = loopOf(series);
  const length = sample.cable?.length ?? null;
  const wire = newest(series, 'loop')?.at20 ?? loop;
  const split = (['vbus', 'ground'] as const).map((side) => newest(series, side)?.ohms.value ?? null);
  const sum = split[0] !== null && split[1] !== null ? (split[0] as number) + (split[1] as number) : null;
  const whole = newest(series, 'loop');
  const apart = whole && sum !== null ? Math.abs(whole.ohms.value - sum) : 0;
  const amps = [...new Set([...AMPS, rated.amps])].filter((one) => one <= rated.amps).sort((a, b) => a - b);
  return {
    series,
    rated,
    sides,
    loop,
    losses: loop ? amps.map((one) => lossAt(one, loop.value)) : [],
    devices: loop ? devicesAt(loop.value, marker.rating ?? UNRATED, devices) : [],
    gauge: length && wire ? gaugeOf(wire.value / 2 / length) : null,
    findings: [
      ...sides.flatMap(({ side, series: one }) =>
        one.result.findings.map(
          ({ sentence }) => `${SIDE_WORDS[side].replace(/^b/, 'B').replace(/^g/, 'G')}: ${sentence}`,
        ),
      ),
      ...(whole && apart > Math.max(0.1 * whole.ohms.value, 2 * expandedUncertainty(whole.ohms))
        ? ['VBUS and ground together are not what the loop is: were they read at the same plugs?']
        : []),
    ],
  };
}

const STATE_OF: Readonly<Record<Outcome, ClaimState>> = {
  proven: 'proven',
  short: 'short',
  borderline: 'borderline',
  'cannot be decided': 'cannot be decided',
};

/** What resistance brings to the claims. */
export interface ResistanceEvidence extends SideResult {
  readonly conditions: string;
}

export const resistanceStation: Station<
  'resistance',
  ResistanceFacts,
  { readonly marker: { readonly rating: CableRating | null } },
  ResistanceConclusion
> = {
  ...aboutStation('resistance'),
  reads: ['sample', 'claims', 'cableRuns', 'devices', 'rigs', 'instruments', 'profile'],
  needs: ['marker'],
  conclude,
  evidence: ({ sides }) => ({
    resistances: sides.map(
      (one): ResistanceEvidence => ({
        ...one,
        conditions: `${SIDE_WORDS[one.side]}${one.series.bends > 0 ? `, after ${one.series.bends} bends` : ''}${one.series.result.celsius === null ? '' : `, ${Math.round(one.series.result.celsius)} °C`}`,
      }),
    ),
  }),
  progress({ sides }) {
    const apart = sides.filter(({ side }) => side !== 'loop').length;
    return {
      done: sides.length > 0 ? 1 + apart : 0,
      total: 3,
      worst: worstOf(sides.map(({ outcome }) => STATE_OF[outcome])),
    };
  },
  says({ loop, sides, rated, gauge, losses, devices }) {
    if (!loop) return [];
    const worst = sides.filter(({ outcome }) => outcome === 'short');
    const last = losses.at(-1);
    return [
      `${formatMeasured(loop.value, isStated(loop) ? expandedUncertainty(loop) : Number.POSITIVE_INFINITY, 'resistance')} there and back${gauge === null ? '' : `, like ${Math.round(gauge)} AWG, contacts included`}.`,
      ...worst.map(
        ({ side, drop, limit }) =>
          `${formatPlain(drop.value, 'voltage', 'mV')} along ${SIDE_WORDS[side]} at ${rated.amps} A: more than the ${formatPlain(limit, 'voltage', 'mV')} a Type-C cable may drop.`,
      ),
      ...(last ? [`At ${last.amps} A it takes ${formatPlain(last.loss, 'power')}.`] : []),
      ...devices
        .filter(({ fate, heldTo }) => fate !== 'stays' || heldTo !== null)
        .map(({ device, heldTo, fate, watts }) =>
          heldTo === null
            ? `${device} ${fate} behind it.`
            : `${device} is held to ${formatPlain(heldTo, 'power')} of ${formatPlain(watts, 'power')}.`,
        ),
    ];
  },
};
