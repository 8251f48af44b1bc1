import {
  captureFigures,
  type FadingFigures,
  type InrushFigures,
  type SweepFigures,
  waveformFigures,
} from '@lastmark/core/capture';
import { describe, expect, it } from 'vitest';
import {
  CABLES,
  CHARGERS,
  currentCrest,
  HandClock,
  holdUpSeconds,
  named,
  pulseFactor,
  pulseWidth,
  SimulatedBench,
} from './index.ts';

const benchOf = (name: string) => {
  const charger = named(CHARGERS, name);
  const [cable] = CABLES;
  if (!charger || !cable) throw new Error(name);
  const clock = new HandClock();
  return { bench: new SimulatedBench(charger, cable, clock), clock, charger };
};

const figuresOf = <T>(
  kind: Parameters<typeof captureFigures>[0],
  interval: number,
  columns: Record<string, Float64Array>,
): T => {
  const figures = captureFigures(kind, { interval, columns });
  if ('reason' in figures) throw new Error(figures.reason);
  return figures as T;
};

describe('the mains side', () => {
  it('pulses give the power factor they are made for; narrower ones are higher', () => {
    for (const factor of [0.42, 0.55, 0.7, 0.92, 0.985]) {
      expect(pulseFactor(pulseWidth(factor))).toBeCloseTo(factor, 9);
    }
    expect(currentCrest(0.42)).toBeGreaterThan(currentCrest(0.55));
    expect(currentCrest(0.98)).toBeLessThan(1.8);
  });

  it.each([
    ['Monolith 180', 0.25],
    ['Monolith 180', 1],
  ])('what a scope sees of %s at %d of 20 V 5 A agrees with the meters', (name, load) => {
    const { bench, clock } = benchOf(name);
    bench.setSupply({ on: true, volts: 230, hertz: 50 });
    bench.plug('C1', true);
    bench.request('C1', 4, null);
    bench.setLoad('C1', { amps: 5 * load, on: true });
    clock.advance(10);
    const truth = bench.input();
    const { volts, amps } = bench.mainsWave(20_000, 1e-5);
    const seen = waveformFigures(volts, amps, 1e-5);
    if ('reason' in seen) throw new Error(seen.reason);
    expect(seen.watts).toBeCloseTo(truth.watts, 0);
    expect(seen.powerFactor).toBeCloseTo(truth.powerFactor, 2);
    expect(seen.currentCrest).toBeCloseTo(truth.crest, 1);
  });

  it('inrush is limited by the resistance in the way, whatever the moment', () => {
    const { bench, charger } = benchOf('Ember 45');
    const peaks = Array.from({ length: 12 }, () => {
      bench.setSupply({ on: false });
      bench.setSupply({ on: true, volts: 230, hertz: 50 });
      return figuresOf<InrushFigures>('inrush', 1e-6, { amps: bench.inrush(4000, 1e-6) }).peak;
    });
    const most = (230 * Math.SQRT2) / charger.supply.inrushOhms;
    expect(Math.max(...peaks)).toBeLessThanOrEqual(most);
    expect(Math.max(...peaks)).toBeGreaterThan(0.9 * most);
    expect(Math.min(...peaks)).toBeLessThan(0.6 * most);
  });
});

describe('when the mains go off', () => {
  it('an output without load is held by the bulk, then fades with its time constant', () => {
    const { bench, clock, charger } = benchOf('Ember 45');
    bench.setSupply({ on: true, volts: 230, hertz: 50 });
    bench.plug('C1', true);
    clock.advance(5);
    const hold = holdUpSeconds(charger.supply, 230 * Math.SQRT2, bench.input().watts);
    const volts = new Float64Array(2000);
    for (let index = 0; index < volts.length; index += 1) {
      if (index === 300) bench.setSupply({ on: false });
      volts[index] = bench.port('C1').volts;
      clock.advance(0.1);
    }
    const seen = figuresOf<FadingFigures>('fading', 0.1, { volts });
    expect(hold).toBeGreaterThan(1);
    expect(seen.empty).toBeCloseTo(charger.supply.bleedSeconds * (Math.log(seen.from / 0.8) + Math.log(0.95)), 0);
  });
});

describe('a car charger on a sagging supply', () => {
  it('goes away below its cut-out and comes back above its restart', () => {
    const { bench, clock, charger } = benchOf('Shuttle 75');
    bench.setSupply({ on: true, volts: 13.8, hertz: 0 });
    bench.plug('C1', true);
    bench.request('C1', 2, null);
    bench.setLoad('C1', { amps: 1, on: true });
    const steps = [
      ...Array.from({ length: 60 }, (_, at) => 13.8 - at * 0.1),
      ...Array.from({ length: 60 }, (_, at) => 7.9 + at * 0.1),
    ];
    const supply = Float64Array.from(steps);
    const volts = Float64Array.from(steps, (value) => {
      bench.setSupply({ volts: value });
      clock.advance(0.5);
      return bench.port('C1').volts;
    });
    const seen = figuresOf<SweepFigures>('sweep', 0.5, { supply, volts });
    expect(seen.cutOut).toBeCloseTo(charger.supply.cutOut ?? 0, 0);
    expect(Math.abs((seen.cutOut ?? 0) - (charger.supply.cutOut ?? 0))).toBeLessThanOrEqual(0.11);
    expect(Math.abs((seen.restart ?? 0) - (charger.supply.restart ?? 0))).toBeLessThanOrEqual(0.11);
  });

  it('loses more on a low supply, and its output sags before it goes', () => {
    const { bench, clock } = benchOf('Shuttle 75');
    const at = (supply: number) => {
      bench.setSupply({ on: true, volts: supply, hertz: 0 });
      bench.plug('C1', true);
      bench.request('C1', 5, null);
      bench.setLoad('C1', { amps: 3, on: true });
      clock.advance(5);
      const { volts, amps } = bench.port('C1');
      return { loss: bench.input().watts - volts * amps, volts };
    };
    const [low, middle, high] = [at(10.7), at(13.8), at(27.6)];
    expect(low.loss).toBeGreaterThan(middle.loss);
    expect(high.loss).toBeLessThan(low.loss);
    expect(low.volts).toBeLessThan(0.99 * middle.volts);
  });
});
