// The simulated oscilloscope: mains side, inrush and ripple, in counts as it would send them.
import { seededNormal, seededRandom } from '@lastmark/core/random';
import { type Device, illegal, numberArg } from './scpi-server.ts';
import { identity, number, type Surroundings } from './surroundings.ts';

/** What one count of the mains side stands for. */
const MAINS_COUNT = { volts: 0.02, amps: 0.0005 };

export function oscilloscope({ bench, seed }: Surroundings): Device {
  const normal = seededNormal(seededRandom(seed * 101 + 21));
  let channel = 0;
  let rate = 2_000_000;
  const scale = 0.5e-3;
  const counted = (truth: Float64Array, perCount: number, noise: number): Uint8Array => {
    const counts = Int16Array.from(truth, (value) => Math.round((value + normal() * noise) / perCount));
    return new Uint8Array(counts.buffer);
  };
  return {
    identity: identity('Oscilloscope'),
    reset: () => {
      channel = 0;
      rate = 2_000_000;
    },
    commands: {
      'ACQ:RATE': (args) => {
        rate = numberArg(args, 0, 1000, 1e9);
        return null;
      },
      'CHAN:PORT': (args) => {
        channel = numberArg(args, 0, 1, bench.charger.ports.length) - 1;
        return null;
      },
      // Mains side: samples per second, volts per count, amps per count.
      'WAV:MAIN:PRE?': () => [rate, MAINS_COUNT.volts, MAINS_COUNT.amps].map(number).join(','),
      'WAV:MAIN?': (args) => {
        const word = (args[0] ?? '').toUpperCase();
        if (word !== 'VOLT' && word !== 'CURR') throw illegal(word);
        const points = numberArg(args, 1, 1, 1_000_000);
        const { volts, amps } = bench.mainsWave(points, 1 / rate);
        return word === 'VOLT' ? counted(volts, MAINS_COUNT.volts, 0.05) : counted(amps, MAINS_COUNT.amps, 0.001);
      },
      // Current as the supply was last switched on.
      'WAV:INRU?': (args) =>
        counted(bench.inrush(numberArg(args, 0, 1, 1_000_000), 1 / rate), MAINS_COUNT.amps * 10, 0.02),
      // Samples per second, volts per count.
      'WAV:PRE?': () => [rate, scale].map(number).join(','),
      'WAV:DATA?': (args) => {
        const points = numberArg(args, 0, 1, 32_000_000);
        const label = bench.charger.ports[channel]?.label ?? '';
        const truth = bench.ripple(label, points, 1 / rate);
        const counts = new Int16Array(points);
        for (let index = 0; index < points; index += 1)
          counts[index] = Math.round(((truth[index] ?? 0) + normal() * 0.8e-3) / scale);
        return new Uint8Array(counts.buffer);
      },
    },
  };
}
