import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  claimInput,
  importInput,
  instrumentInput,
  misfit,
  openapiDocument,
  ROUTES,
  type Route,
  readingsInput,
  type Shape,
  sampleInput,
  setupInput,
  validate,
} from './index.ts';

const id = '01JZZZZZZZZZZZZZZZZZZZZZZZ';
const goodSample = {
  model: {
    maker: 'Tarnhook',
    model: 'Ember 45',
    kind: 'wall',
    ports: [{ label: 'C1', connector: 'C', twin: null }],
    length: 0.06,
    width: 0.04,
    height: 0.03,
    mass: null,
    withPlug: true,
    plugForm: 'folding',
    plugEarthed: false,
    plugBlocksNeighbour: false,
    inputRating: '100–240 V 50/60 Hz 1.2 A',
    marks: ['double insulation'],
    prices: [{ kind: 'paid', amount: 24.5, currency: 'EUR', date: '2026-03-01' }],
  },
  unit: { revision: '', serial: 'T-1', dateCode: '', obtained: 'bought', disclosure: '', notes: '' },
};
const errorsOf = (schema: Parameters<typeof validate>[0], value: unknown) => {
  const result = validate(schema, value);
  return result.ok ? [] : result.errors.map(({ path, message }) => `${path}: ${message}`);
};

describe('a sample', () => {
  it('as it should be passes', () => expect(errorsOf(sampleInput, goodSample)).toEqual([]));

  it.each([
    ['maker', '', 'model.maker: Maker is empty'],
    ['kind', 'boat', 'model.kind: Kind must be one of: wall, desktop, car'],
    ['mass', Number.NaN, 'model.mass'],
    ['mass', '80 g', 'model.mass'],
    ['length', -1, 'model.length: Length must be at least 1 mm'],
    ['prices', [{ kind: 'paid', amount: 5, currency: 'euro', date: '2026-02-31' }], 'model.prices[0].currency'],
    ['colour', 'red', 'a field nobody knows: colour'],
  ])('with a wrong %s is refused and told where', (field, value, message) => {
    const bad = { ...goodSample, model: { ...goodSample.model, [field]: value } };
    expect(errorsOf(sampleInput, bad).join('\n')).toContain(message);
  });

  it('with two ports of one label is refused', () => {
    const port = { label: 'C1', connector: 'C', twin: null };
    const bad = { ...goodSample, model: { ...goodSample.model, ports: [port, port] } };
    expect(errorsOf(sampleInput, bad)[0]).toContain('same label');
  });

  it('with several mistakes lists them all', () => {
    const bad = {
      model: { ...goodSample.model, maker: '', kind: 'x' },
      unit: { ...goodSample.unit, obtained: 'found' },
    };
    expect(errorsOf(sampleInput, bad)).toHaveLength(3);
  });
});

describe('unions', () => {
  const claim = (promise: unknown) => ({ promise, duration: { kind: 'unstated' }, printed: 'label' });

  it('are told apart by kind', () => {
    expect(errorsOf(claimInput, claim({ kind: 'total', watts: 45 }))).toEqual([]);
    expect(errorsOf(claimInput, claim({ kind: 'total', watts: -1 }))[0]).toContain('promise.watts');
    expect(errorsOf(claimInput, claim({ kind: 'magic' }))[0]).toContain('must be one of');
    expect(errorsOf(claimInput, claim({ kind: 'toString' }))[0]).toContain('must be one of');
  });

  it('may be null only where that means something', () => {
    expect(errorsOf(claimInput, claim({ kind: 'idle', watts: 0.075, mains: null }))).toEqual([]);
    expect(errorsOf(claimInput, claim(null)).length).toBeGreaterThan(0);
  });
});

it('an instrument with an accuracy of exactly zero is refused', () => {
  const spec = {
    readingPercent: 0,
    rangePercent: 0,
    range: 0,
    offset: 0,
    resolution: 0,
    floor: 0,
    coverage: 'not stated',
  };
  const meter = {
    name: 'M',
    class: 'bench multimeter',
    firmware: '',
    calibrationDue: null,
    address: null,
    profileId: null,
    sees: null,
    specs: { voltage: spec },
  };
  expect(errorsOf(instrumentInput, meter)[0]).toContain('exactly zero');
  expect(errorsOf(instrumentInput, { ...meter, specs: { voltage: { ...spec, offset: 0.01 } } })).toEqual([]);
  expect(errorsOf(instrumentInput, { ...meter, specs: {} })).toEqual([]);
});

it('no input whatever makes validation throw', () => {
  fc.assert(
    fc.property(
      fc.anything(),
      fc.constantFrom(sampleInput, claimInput, setupInput, readingsInput, importInput),
      (value, schema) => {
        expect(typeof validate(schema, value).ok).toBe('boolean');
      },
    ),
    { numRuns: 500 },
  );
  expect(validate(sampleInput, null).ok).toBe(false);
});

describe('the API description', () => {
  const document = openapiDocument('1.2.3') as {
    info: { version: string };
    paths: Record<
      string,
      Record<string, { operationId: string; parameters: { name: string; in: string }[]; requestBody?: unknown }>
    >;
  };
  const operations = Object.values(document.paths).flatMap((methods) => Object.values(methods));

  it('has every operation once', () => {
    expect(operations.map((one) => one.operationId).sort()).toEqual(Object.keys(ROUTES).sort());
    expect(document.info.version).toBe('1.2.3');
  });

  it('carries parameters, versions and bodies', () => {
    const update = operations.find((one) => one.operationId === 'updateSample');
    expect(update?.parameters.map((one) => `${one.in} ${one.name}`)).toEqual(['path sampleId', 'header If-Match']);
    expect(JSON.stringify(update?.requestBody)).toContain(
      '"mass":{"description":"Mass, kg","type":["number","null"],"minimum":0.001,"maximum":50}',
    );
    expect(JSON.stringify(operations.find((one) => one.operationId === 'createClaim')?.requestBody)).toContain(
      '"oneOf"',
    );
  });

  it('says what may go wrong, and which answers carry a version', () => {
    const of = (id: string) =>
      operations.find((one) => one.operationId === id) as unknown as {
        responses: Record<string, { headers?: Record<string, unknown> }>;
      };
    const statuses = (id: string) => Object.keys(of(id).responses).sort();
    expect(statuses('updateSample')).toEqual(['200', '404', '409', '412', '413', '422', '428', 'default']);
    expect(statuses('createSample')).toEqual(['201', '409', '413', '422', 'default']);
    expect(statuses('getSheetById')).toEqual(['200', '404', 'default']);
    for (const id of ['updateSample', 'getSheetById', 'updateProfile', 'getProfile'])
      expect(of(id).responses['200']?.headers, id).toHaveProperty('ETag');
    expect(of('listRigs').responses['200']?.headers).toBeUndefined();
  });

  it('shows what every operation answers with, and an answer it gave', () => {
    const content = (id: string, where: 'answer' | 'body') => {
      const one = operations.find(({ operationId }) => operationId === id) as unknown as {
        responses: Record<string, { content?: Record<string, { schema?: { $ref: string }; example?: unknown }> }>;
        requestBody?: { content: Record<string, { schema: unknown; example?: unknown }> };
      };
      const [done] = Object.entries(one.responses).find(([status]) => status.startsWith('2')) ?? [];
      return where === 'body' ? one.requestBody?.content : one.responses[done ?? '']?.content;
    };
    const { schemas } = (document as unknown as { components: { schemas: Record<string, Shape> } }).components;
    for (const [id, route] of Object.entries(ROUTES) as [string, Route][]) {
      if (route.answers !== 'application/json' || route.status === 204 || id === 'openapi') continue;
      const { schema, example } = content(id, 'answer')?.['application/json'] ?? {};
      const name = (schema as { $ref: string } | undefined)?.$ref.replace('#/components/schemas/', '') ?? '';
      expect(schemas[name], id).toBeDefined();
      if (example !== undefined) expect(misfit(schemas[name] as Shape, example), id).toBeNull();
    }
    expect(content('createSample', 'body')?.['application/json']?.example).toHaveProperty('model.maker');
    expect(JSON.stringify(schemas.GetVerdictAnswer)).toContain('"sentence"');
    expect(JSON.stringify(schemas.ListInstrumentsAnswer)).toContain('"description":"Accuracy');
  });

  it('asks for no id the server makes', () => {
    const body = (id: string) => JSON.stringify(operations.find(({ operationId }) => operationId === id)?.requestBody);
    for (const id of Object.entries(ROUTES).flatMap(([id, route]) => ('ids' in route ? [id] : [])))
      expect(body(id), id).not.toMatch(/"required":\[[^\]]*"id"/);
    expect(body('addReadings')).toContain('"required":["quantity"');
  });

  it('is plain JSON', () => expect(JSON.parse(JSON.stringify(document))).toEqual(document));

  it('uses ids nobody can mistake', () => {
    const bad = {
      name: 'x',
      outputs: [],
      evidence: 'load',
      purpose: 'efficiency',
      rigId: 'nope',
      nameplateClass: null,
    };
    expect(errorsOf(setupInput, bad).join()).toContain('Rig is not an id');
    expect(errorsOf(setupInput, { ...bad, rigId: id, outputs: [{ port: 'C1', volts: 20, amps: 1 }] })).toEqual([]);
  });
});
