import { describe, expect, it } from 'vitest';
import { guessColumns, headsOf, parsePorts, readSampleList } from './index.ts';

const labels = (text: string) => {
  const ports = parsePorts(text);
  return typeof ports === 'string' ? ports : ports.map(({ label }) => label).join(' ');
};

describe('ports as noted', () => {
  it.each([
    ['C1 C2 A1', 'C1 C2 A1'],
    ['2C + 1A', 'C1 C2 A1'],
    ['2 × USB-C, USB-A x 2', 'C1 C2 A1 A2'],
    ['3x C', 'C1 C2 C3'],
    ['USB-C, USB-A', 'C1 A1'],
    ['3×C/2xA', 'C1 C2 C3 A1 A2'],
    ['USB-C (100 W), USB-A (18 W)', 'C1 A1'],
    ['Type-C ×2', 'C1 C2'],
    ['2 Type-C, 1 USB-A', 'C1 C2 A1'],
    ['1 C', 'C1'],
    ['USB-C 1, USB-C 2, USB-A', 'C1 C2 A1'],
    ['', ''],
  ])('%j are %j', (text, ports) => expect(labels(text)).toBe(ports));
  it('that are none are refused', () => {
    expect(labels('barrel')).toContain('"barrel" is not a port');
    // A count, or a name?
    expect(labels('C 2 A')).toContain('"2" is not a port');
    expect(labels('99C')).toContain('more than 12');
  });
});

describe('a list of samples', () => {
  it('is read whatever its delimiter, order and decimal sign', () => {
    const { samples, bad } = readSampleList(
      '\ufeffModel;Maker;Ports;Mass g;Paid;Colour\r\nEmber 45;Tarnhook;C1;82,5;24,50 €;grey\r\nSix 210;Mirefold;4C 2A;620;119;black\r\n',
    );
    expect(bad).toEqual([]);
    expect(samples.map(({ maker, model, kind, paid }) => [maker, model, kind, paid])).toEqual([
      ['Tarnhook', 'Ember 45', 'wall', { amount: 24.5, currency: 'EUR' }],
      ['Mirefold', 'Six 210', 'wall', { amount: 119, currency: 'EUR' }],
    ]);
    expect(samples[0]?.mass).toBeCloseTo(0.0825, 9);
    expect(samples[1]?.ports).toHaveLength(6);
  });

  const one = (head: string, cell: string) => {
    const { samples, bad } = readSampleList(`maker;model;${head}\nTarnhook;Ember 45;${cell}`);
    return samples[0] ?? bad[0]?.reason;
  };

  it.each([
    ['2 Mar 2026', '2026-03-02'],
    ['2. March 2026', '2026-03-02'],
    ['March 2nd, 2026', '2026-03-02'],
    ['02-Mar-2026', '2026-03-02'],
    ['13/02/2026', '2026-02-13'],
    ['02/13/2026', '2026-02-13'],
    ['02-02-2026', '2026-02-02'],
    ['2026-03-02T10:00:00Z', '2026-03-02'],
  ])('was bought on %s', (cell, bought) => expect(one('bought', cell)).toMatchObject({ bought }));
  it.each(['03/02/2026', '30 Feb 2026', '2 Marble 2026', '46083', '2026-13-01', '31.4.2026'])(
    'cannot be bought on %s',
    (cell) => expect(one('bought', cell)).toContain('is not a day that can be read one way only'),
  );

  it('weighs what a charger may weigh, or the unit is asked for', () => {
    expect(one('mass', '0.11')).toBe('mass_g: "0.11" of what? Write it with its unit, as 110 g or 0.11 kg.');
    expect(one('mass', '1,234')).toContain('of what?');
    expect(one('mass', '110000')).toContain('of what?');
    expect(one('mass', '110')).toMatchObject({ mass: expect.closeTo(0.11, 9) });
    expect(one('mass', '3 g')).toMatchObject({ mass: expect.closeTo(0.003, 9) });
    expect(one('weight (kg)', '0.11')).toMatchObject({ mass: expect.closeTo(0.11, 9) });
    expect(one('price ($)', '29.99')).toMatchObject({ paid: { amount: 29.99, currency: 'USD' } });
    expect(one('kind', 'Car charger')).toMatchObject({ kind: 'car' });
    expect(one('kind', 'carton')).toContain('is none of wall, desktop, car');
  });

  it('keeps the good lines and names the bad ones', () => {
    const { samples, bad } = readSampleList(
      'maker,model,kind,ports,mass_g,paid,currency\nTarnhook,,wall,C1,,,\nTarnhook,Ember,boat,C1,,,\nTarnhook,Ember,car,X9,,,\nTarnhook,Ember,car,C1,heavy,,\nTarnhook,Ember,car,C1,80,dear,\nTarnhook,Ember,car,C1,80,5,euro\nTarnhook,Ember,car,C1,80,5,chf\n',
    );
    expect(samples).toMatchObject([{ line: 8, kind: 'car', paid: { amount: 5, currency: 'CHF' } }]);
    expect(bad.map(({ line }) => line)).toEqual([2, 3, 4, 5, 6, 7]);
    expect(bad.map(({ reason }) => reason).join()).toMatch(/maker and model.*boat.*X9.*mass_g.*dear.*EURO/);
  });

  it.each([
    ['weight_kg', '0.082', 'price_usd', '25'],
    ['Weight (g)', '82', 'USD', '25'],
    ['weight [oz]', '2.8924648', 'Price (USD)', '25'],
    ['mass kg', '82 g', 'cost', '$25'],
  ])('is read in the units its heads name: %s, %s', (massHead, mass, priceHead, price) => {
    const { samples, bad } = readSampleList(
      `\n\nmaker;model;${massHead};${priceHead}\n\nTarnhook;Ember 45;${mass};${price}\nTarnhook;;1;1\n`,
    );
    expect(samples).toMatchObject([{ line: 5, mass: expect.closeTo(0.082, 6), paid: { amount: 25, currency: 'USD' } }]);
    expect(bad).toMatchObject([{ line: 6 }]);
  });

  it('without the columns says which', () => {
    expect(readSampleList('a,b\n1,2').bad[0]?.reason).toContain('maker and model. The first line names: a, b.');
    expect(readSampleList('')).toMatchObject({ samples: [] });
  });

  it('knows its columns by what people call them, and takes each once', () => {
    expect(guessColumns(['brand', 'product', 'weight', 'price', 'colour'])).toEqual({
      maker: 'brand',
      model: 'product',
      mass_g: 'weight',
      paid: 'price',
    });
    // A column named as ours is ours, whatever else could take it.
    expect(guessColumns(['name', 'model', 'maker', 'type'])).toEqual({ maker: 'maker', model: 'model', kind: 'type' });
    expect(headsOf('Brand;Product Name;;Weight g\n1;2;3;4')).toEqual(['brand', 'product_name', 'weight_g']);
  });
  it('takes them as somebody says', () => {
    const text =
      'who;what;when;said\nTarnhook;Ember 45;2.3.2026;warm\nTarnhook;Ember 65;3/2/2026;\nTarnhook;Ember 65;31.2.2026;';
    const { samples, bad } = readSampleList(text, { maker: 'who', model: 'what', bought: 'when', notes: 'said' });
    expect(samples).toMatchObject([{ maker: 'Tarnhook', model: 'Ember 45', bought: '2026-03-02', notes: 'warm' }]);
    // Two ways to read a day are one too many.
    expect(bad.map(({ line, reason }) => [line, reason.includes('2026-03-02')])).toEqual([
      [3, true],
      [4, true],
    ]);
    expect(readSampleList(text, { maker: 'who' }).bad[0]?.reason).toContain('who, what, when, said');
  });
});
