// How this bench bends cables, as text in a form.
import { type BendMethod, USUAL_BENDS } from '@lastmark/core/bends';
import { formatPlain } from '@lastmark/core/quantity';
import { typedSi } from '../parts/fields.tsx';

export interface BendText {
  readonly bendTo: string;
  readonly bendMargin: string;
  readonly bendCount: string;
  readonly bendAngle: string;
  readonly bendRadius: string;
  readonly bendTension: string;
  readonly bendRate: string;
  readonly bendLooks: string;
}

export function toBendText(method: BendMethod | null | undefined): BendText {
  const bends = method ?? USUAL_BENDS;
  return {
    bendTo: bends.to,
    bendMargin: formatPlain(bends.margin, 'efficiency'),
    bendCount: String(bends.count),
    bendAngle: String(bends.angle),
    bendRadius: formatPlain(bends.radius, 'length'),
    bendTension: bends.tension === null ? '' : String(bends.tension),
    bendRate: String(bends.rate),
    bendLooks: String(bends.looks),
  };
}

const number = (text: string): number =>
  text.trim() === '' ? Number.NaN : Number(text.replace(/\s/g, '').replace(',', '.'));

/** NaN for what cannot be read, which the schema refuses in its own words. */
export const fromBendText = (text: BendText): BendMethod => ({
  to: text.bendTo as BendMethod['to'],
  margin: typedSi(text.bendMargin, 'efficiency') ?? Number.NaN,
  count: number(text.bendCount),
  angle: number(text.bendAngle),
  radius: typedSi(text.bendRadius, 'length') ?? Number.NaN,
  tension: text.bendTension.trim() === '' ? null : number(text.bendTension),
  rate: number(text.bendRate),
  looks: number(text.bendLooks),
});

/** Where in the form what was refused stands. */
export const BEND_FIELDS: Readonly<Record<string, keyof BendText>> = {
  'bends.margin': 'bendMargin',
  'bends.count': 'bendCount',
  'bends.angle': 'bendAngle',
  'bends.radius': 'bendRadius',
  'bends.tension': 'bendTension',
  'bends.rate': 'bendRate',
  'bends.looks': 'bendLooks',
};
