// What a rig told since a time, on one even time scale: for whatever is recorded over minutes and hours.
import { evenly } from '@lastmark/core/capture';
import { pointNames } from '@lastmark/core/reading';
import type { Channel } from '@lastmark/core/trace';
import type { Hands } from '../hands.ts';

/** @param from and interval, s of instrument time */
export function onOneScale({ looks, rig }: Hands, from: number, interval: number) {
  const count = Math.floor((looks.seconds - from) / interval) + 1;
  const onScale = (samples: Parameters<typeof evenly>[0]) => evenly(samples, { from, interval, count })?.values ?? null;
  const seen = (quantity: 'voltage' | 'current', port: string) =>
    onScale(looks.samples({ quantity, place: rig.outputPlace, port }, from));
  const warmth = looks.warmth(from);
  const names = pointNames(warmth.length, rig.spots);
  return {
    count,
    seen,
    /** Output of a port: volts × amps look by look where one meter tells both, else those of the same moment. */
    wattsOf: (port: string): Float64Array | null => {
      const told = onScale(looks.wattSamples(port, from));
      if (told) return told;
      const [volts, amps] = [seen('voltage', port), seen('current', port)];
      return volts && amps && volts.map((one, at) => one * (amps[at] ?? Number.NaN));
    },
    input: () => onScale(looks.input(from)),
    /** Every point of the thermometer that told something. */
    warm: warmth.flatMap((samples, index): Channel[] => {
      const values = samples.length > 1 ? onScale(samples) : null;
      return values ? [{ name: names[index] ?? '', quantity: 'temperature', unit: '°C', values }] : [];
    }),
  };
}
