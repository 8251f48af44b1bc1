// What is shipped is listed, and every part of it may be.
import { describe, expect, it } from 'vitest';
import { billOfMaterials, licencesOf, unfit } from './sbom.mjs';

describe('the list of what is shipped', () => {
  it('is CycloneDX, names the packages that are used, and nothing in it may not be shipped', () => {
    const { bomFormat, components } = billOfMaterials();
    expect(bomFormat).toBe('CycloneDX');
    const names = new Set(components.map(({ name }) => name));
    for (const name of ['express', 'drizzle-orm', 'react', 'yup', 'chart.js', 'mysql2']) expect(names).toContain(name);
    // Tools of the workshop are not shipped, nor are the parts of the program packages of others.
    for (const name of ['vitest', '@playwright/test', '@biomejs/biome', '@lastmark/core'])
      expect(names).not.toContain(name);
    for (const { name, version, purl } of components) expect([name, version, purl]).not.toContain(undefined);
    expect(unfit(components)).toEqual([]);
  });
  it('reads a licence however it is named, and tells what may not be shipped', () => {
    const part = (licenses) => ({ name: 'part', version: '1.0.0', licenses });
    expect(licencesOf(part([{ license: { id: 'MIT' } }]))).toEqual(['MIT']);
    expect(licencesOf(part([{ expression: '(MIT OR CC0-1.0)' }]))).toEqual(['MIT', 'CC0-1.0']);
    expect(unfit([part([{ expression: 'Apache-2.0 AND BSL-1.0' }])])).toEqual([]);
    expect(
      unfit([part([{ license: { id: 'AGPL-3.0-only' } }]), part([]), part([{ license: { name: 'Ours' } }])]),
    ).toEqual(['part 1.0.0: AGPL-3.0-only', 'part 1.0.0: no licence named', 'part 1.0.0: Ours']);
  });
});
