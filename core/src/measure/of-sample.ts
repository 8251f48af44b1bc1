// The values of every measure of one sample, each under its condition, from what was judged.

import { pricePerMetre } from '../cable/index.ts';
import { USUAL_DAY } from '../idle/index.ts';
import { mainsLabel, type Output, type Probe, type Setup } from '../reading/index.ts';
import { alike, repeated } from '../repeats/index.ts';
import { isStated, type Measured, standardUncertainty } from '../uncertainty/index.ts';
import type { Dossier, Verdict } from '../verdict/index.ts';
import type { PriceFacts, SampleFacts } from '../verdict/types.ts';
import type { MeasureId, MeasureValue } from './about.ts';
import { servedBy } from './served.ts';

type Put = (
  measure: MeasureId,
  condition: string,
  value: number | null | undefined,
  more?: Partial<MeasureValue>,
) => void;

const NOTHING_MORE = { u: 0, common: 0, meters: '', at: null, below: false } as const;

/**
 * How much of a meter's error two of its readings have in common. No spec says: between all of it, which would call leads the meter
 * cannot see, and none, which would deny that it erred the same way twice, half of the variance is taken.
 */
const IN_COMMON = Math.SQRT1_2;

/** What a result brings: its uncertainty in its two parts, and whose meters. */
const known = (of: Measured, meters: string): Partial<MeasureValue> =>
  isStated(of)
    ? { u: standardUncertainty(of), common: of.uInstrument * IN_COMMON, meters }
    : { u: null, common: 0, meters };

const wattsOf = (outputs: readonly Output[]): number => outputs.reduce((sum, { volts, amps }) => sum + volts * amps, 0);

/** Meters that read some points: their ids, each once, in one order. */
function metersOf({ points, rigs }: Dossier, pointIds: readonly string[], which: 'mains' | 'all'): string {
  const used = new Set<string>();
  for (const { id, rigId } of points) {
    if (!pointIds.includes(id)) continue;
    const meters = rigs.find((rig) => rig.id === rigId)?.meters;
    for (const meter of which === 'mains' ? [meters?.mains] : [meters?.mains, meters?.outputVolts, meters?.outputAmps])
      if (meter) used.add(meter);
  }
  return [...used].sort().join('+');
}

const newestOf = ({ points }: Dossier, ids: readonly string[]): string | null =>
  points
    .filter(({ id }) => ids.includes(id))
    .map(({ takenAt }) => takenAt)
    .sort()
    .at(-1) ?? null;

/** Newest price of each kind and currency: of all, and of each year, so that prices of one time can be set beside each other. */
function pricesOf(prices: readonly PriceFacts[]): readonly { readonly basis: string; readonly price: PriceFacts }[] {
  const newest = new Map<string, PriceFacts>();
  for (const price of prices) {
    if (!(price.amount > 0)) continue;
    const basis = `${price.currency}, ${price.kind}`;
    for (const key of [basis, `${basis}, ${price.date.slice(0, 4)}`]) {
      const before = newest.get(key);
      if (!before || before.date < price.date) newest.set(key, price);
    }
  }
  return [...newest].map(([basis, price]) => ({ basis, price }));
}

function ofIntake(put: Put, sample: SampleFacts, watts: number | null): void {
  const { mass, length, width, height, ports, cable } = sample;
  // A plug that is part of it weighs with it: with and without are never set beside each other.
  const plug =
    sample.kind === 'cable' || sample.kind === 'car' ? '' : sample.withPlug === false ? 'without plug' : 'with plug';
  put('watts', '', watts);
  if (sample.kind !== 'cable') put('ports', '', ports.length > 0 ? ports.length : null);
  put('mass', plug, mass);
  const volume = length != null && width != null && height != null ? length * width * height : null;
  put('volume', plug, volume);
  if (watts) {
    put('mass-per-watt', plug, mass === null ? null : mass / watts);
    put('size-per-watt', plug, volume === null ? null : volume / watts);
  }
  for (const { basis, price } of pricesOf(sample.prices)) {
    const at = { at: `${price.date}T00:00:00.000Z` };
    put('price', basis, price.amount, at);
    if (watts) put('price-per-watt', basis, price.amount / watts, at);
    if (ports.length > 0) put('price-per-port', basis, price.amount / ports.length, at);
    if (cable)
      put(
        'price-per-metre',
        basis,
        pricePerMetre({ amount: price.amount, pack: cable.pack, length: cable.length }),
        at,
      );
  }
  if (cable) put('length', '', cable.length);
}

/** States in which a promise was held against something measured. */
const DECIDED = ['proven', 'short', 'unreachable'] as const;

function ofClaims(put: Put, { claims }: Verdict): void {
  const decided = claims.filter(({ state }) => (DECIDED as readonly string[]).includes(state));
  if (decided.length === 0) return;
  put('proven-share', 'of those decided', decided.filter(({ state }) => state === 'proven').length / decided.length);
}

/** The loading of the most power that was measured at a mains: what "full load" means of a sample. */
const mainSeries = ({ results }: Verdict) =>
  [...(results.efficiency?.series ?? [])].sort((a, b) => b.nameplateWatts - a.nameplateWatts);

/** Where a loading is not at the highest level of a port that agrees on several: another level is another efficiency. */
function levelWords({ results }: Verdict, { id, outputs }: Setup): string {
  const derived = results.efficiency?.limits.find(({ setupId }) => setupId === id)?.derived;
  return derived?.adaptive && derived.level !== 'highest' && outputs[0] ? `at ${outputs[0].volts} V, ` : '';
}

function ofEfficiency(put: Put, dossier: Dossier, verdict: Verdict): void {
  const told = new Set<string>();
  for (const { setup, byMains } of mainSeries(verdict))
    for (const { mains, loads, average, lightLoad } of byMains) {
      const at = `${levelWords(verdict, setup)}${mainsLabel(mains)}`;
      const once = (what: string): boolean => !told.has(`${what} ${at}`) && told.add(`${what} ${at}`) !== undefined;
      const ids = loads.flatMap(({ pointIds }) => pointIds);
      const more = (of: Measured, of_: readonly string[] = ids) => ({
        ...known(of, metersOf(dossier, of_, 'all')),
        at: newestOf(dossier, of_),
      });
      if (average && once('average')) put('average-efficiency', `four points, ${at}`, average.value, more(average));
      if (lightLoad && once('light')) put('light-load-efficiency', at, lightLoad.value, more(lightLoad));
      const full = loads.find(({ load }) => load === 1);
      if (full && once('full')) put('full-load-loss', at, full.loss.value, more(full.loss, full.pointIds));
    }
}

function ofIdle(put: Put, dossier: Dossier, { results }: Verdict): void {
  for (const { mains, attached, watts, below, pointIds } of results.idle?.draws ?? []) {
    const hangs = attached === 'nothing' ? '' : `, ${attached}`;
    put('idle', `${mainsLabel(mains)}${hangs}`, below ?? watts.value, {
      ...known(watts, metersOf(dossier, pointIds, 'mains')),
      at: newestOf(dossier, pointIds),
      below: below !== null,
    });
  }
}

/** Hours of a day as they stand in a condition. */
const USUAL_WORDS = `${USUAL_DAY.idle} h idle, ${USUAL_DAY.light} h at 10 %, ${USUAL_DAY.active} h at full load a day`;
const SECONDS_A_YEAR = 365 * 3600;

/** What is lost in a year of the usual days: idle, light load and full load, weighted by their hours. */
function ofUse(put: Put, dossier: Dossier, verdict: Verdict): void {
  const told = new Set<string>();
  for (const { setup, byMains } of mainSeries(verdict))
    for (const { mains, loads } of byMains) {
      const at = `${levelWords(verdict, setup)}${mainsLabel(mains)}`;
      const draw = verdict.results.idle?.draws.find(
        (one) => one.attached === 'nothing' && mainsLabel(one.mains) === mainsLabel(mains),
      );
      const [light, full] = [0.1, 1].map((load) => loads.find((one) => one.load === load));
      // Below what the meter reads nobody knows how much is lost.
      if (!draw || draw.below !== null || !light || !full || told.has(at)) continue;
      told.add(at);
      const parts = [
        { of: draw.watts, hours: USUAL_DAY.idle },
        { of: light.loss, hours: USUAL_DAY.light },
        { of: full.loss, hours: USUAL_DAY.active },
      ].map(({ of, hours }) => ({ of, seconds: hours * SECONDS_A_YEAR }));
      const sum = (term: (of: Measured) => number) => parts.reduce((all, one) => all + term(one.of) * one.seconds, 0);
      const stated = parts.every(({ of }) => isStated(of));
      const ids = [...draw.pointIds, ...light.pointIds, ...full.pointIds];
      put(
        'use-loss',
        `${USUAL_WORDS}, ${at}`,
        sum(({ value }) => value),
        {
          // What a meter errs the same way adds up; scatter adds in squares.
          u: stated
            ? Math.hypot(
                sum(({ uInstrument }) => uInstrument * IN_COMMON),
                ...parts.map(
                  ({ of, seconds }) =>
                    Math.sqrt(Math.max(0, standardUncertainty(of) ** 2 - (of.uInstrument * IN_COMMON) ** 2)) * seconds,
                ),
              )
            : null,
          common: stated ? sum(({ uInstrument }) => uInstrument * IN_COMMON) : 0,
          meters: metersOf(dossier, ids, 'all'),
          at: newestOf(dossier, ids),
        },
      );
    }
}

/** Times are compared from where the device began: to the whole ten per cent. */
const fromWords = (level: number): string => `from ${Math.round(level * 10) * 10} %`;

/** What lies across the probe and how much it lets through: another of either is another ripple. */
const probeWords = (probe: Probe | null): string =>
  probe === null
    ? 'probe not stated'
    : [
        probe.capacitors.trim() || 'no capacitors',
        probe.bandwidth === null ? 'bandwidth not stated' : `${Number((probe.bandwidth / 1e6).toPrecision(3))} MHz`,
      ].join(', ');

function ofRuns(put: Put, dossier: Dossier, verdict: Verdict): void {
  const { results } = verdict;
  for (const { held } of results.proof?.holds ?? []) {
    const watts = verdict.figures.watts;
    if (held && watts && held.watts >= watts * (1 - dossier.profile.allowance))
      // It was held for so long at least: how much longer it would be nobody knows, and longest tried is not best.
      put('hold', 'whole power', held.seconds, { u: null });
  }
  for (const cell of results.ripple?.cells ?? [])
    if (cell.load === 'rated load')
      put(
        'ripple',
        `${cell.volts} V, rated load, ${mainsLabel(cell.mains)}, ${probeWords(cell.probe)}`,
        cell.measured.value,
        known(cell.measured, ''),
      );
  for (const soak of results.heat?.soaks ?? []) {
    const { rise, mains, loss, place } = soak;
    if (!rise) continue;
    const [low, high] = rise.interval;
    // An interval of 95 % is taken as ± 1.96 u; one that is open on a side tells no uncertainty.
    const u = low === null || high === null ? null : (high - low) / (2 * 1.96);
    const full = verdict.figures.watts !== null && wattsOf(soak.outputs) >= 0.9 * verdict.figures.watts;
    const load = full ? 'full load' : `${Math.round(wattsOf(soak.outputs))} W`;
    put('touch-rise', `${load}, ${mainsLabel(mains)}, ${place}`, rise.steady, { u });
    if (soak.perWatt !== null && loss)
      put('rise-per-watt', `${mainsLabel(mains)}, ${place}`, soak.perWatt, { u: u === null ? null : u / loss });
  }
  ofCharges(put, dossier, verdict);
}

/** Charge times: the mean of those under one condition. One alone tells nothing of how much the next one differs. */
function ofCharges(put: Put, dossier: Dossier, { results }: Verdict): void {
  const ports = dossier.sample.ports.map(({ label }) => label);
  const told = new Map<string, number[]>();
  for (const { device, place, workload, session } of results.devices?.sessions ?? []) {
    const { times } = session;
    const start = session.startLevel;
    // Which port it hung on is the charger's own: the cable and the mains are the condition.
    const [port = '', ...others] = place.split(', ');
    const under = (ports.includes(port) ? others : [port, ...others]).join(', ');
    for (const level of ['50', '80', '100'] as const) {
      const seconds = times[level];
      if (seconds === null || start === null || !Number.isFinite(seconds)) continue;
      const condition = `${device} ${fromWords(start)} to ${level} %, ${under}${workload ? `, ${workload}` : ''}`;
      told.set(condition, [...(told.get(condition) ?? []), seconds]);
    }
  }
  for (const [condition, all] of told) {
    const mean = ofRepeats(all);
    if (mean) put('charge-time', condition, mean.value, { u: mean.u });
  }
}

/** A mean of repeats, ± 1.96 u being its 95 % interval. JCGM 100:2008, G.3. Of one alone, and of repeats alike to the digit, nobody knows u. */
function ofRepeats(values: readonly number[]): { readonly value: number; readonly u: number | null } | null {
  const found = repeated(values);
  if (!found) return null;
  const { mean, interval } = found;
  return { value: mean, u: interval && !alike(found, mean) ? (interval[1] - mean) / 1.96 : null };
}

/** What the devices of the bench get of what they want, all plugged in at once in the best way. */
function ofSharing(put: Put, dossier: Dossier, { results }: Verdict): void {
  const told = results.splits && servedBy(dossier, results.splits);
  if (told) put('served', told.condition, told.part);
}

function ofCables(put: Put, { sample }: Dossier, { results }: Verdict): void {
  const loop = results.resistance?.loop;
  const length = sample.cable?.length;
  if (loop) {
    put('loop-resistance', 'at 20 °C', loop.value, known(loop, ''));
    if (length) {
      const { u, common, ...rest } = known(loop, '');
      put('resistance-per-metre', 'at 20 °C, contacts included', loop.value / length, {
        ...rest,
        u: u == null ? null : u / length,
        common: (common ?? 0) / length,
      });
    }
  }
  const bends = results.bends;
  if (bends?.failed) put('bends', 'until it failed', bends.failed.count);
}

/**
 * Every value there is of a judged sample, SI, each measure at most once a condition: the worse of two, since nobody chose.
 * What is not finite is no value.
 */
export function measuresOf(dossier: Dossier, verdict: Verdict): readonly MeasureValue[] {
  const all = new Map<string, MeasureValue>();
  const put: Put = (measure, condition, value, more = {}) => {
    if (value == null || !Number.isFinite(value)) return;
    const key = `${measure} ${condition}`;
    const before = all.get(key);
    const one: MeasureValue = { ...NOTHING_MORE, ...more, measure, condition, value };
    // The first is of the greatest power; only ripple, heat and holds can come twice, and there more says more.
    if (before && before.value >= value) return;
    all.set(key, one);
  };
  ofIntake(put, dossier.sample, verdict.figures.watts);
  ofClaims(put, verdict);
  ofEfficiency(put, dossier, verdict);
  ofIdle(put, dossier, verdict);
  ofUse(put, dossier, verdict);
  ofSharing(put, dossier, verdict);
  ofRuns(put, dossier, verdict);
  ofCables(put, dossier, verdict);
  return [...all.values()];
}
