import { describe, expect, it } from 'vitest';
import { type FilePlan, recall, sniffFile, writtenUnits } from './index.ts';

const plan = (text: string): FilePlan => {
  const found = sniffFile(text, ['C1']);
  if ('reason' in found) throw new Error(found.reason);
  return found;
};
const units = (text: string, known: FilePlan) =>
  recall(plan(text), known, text, ['C1']).columns.map(({ role, unit }) => `${role} ${unit}`.trim());

const SILENT = 'Load;Pin;Vout;Iout\n100;50050;20.01;2.25\n';
/** What somebody corrected: the meter writes milliwatts and does not say so. */
const corrected = (): FilePlan => {
  const found = plan(SILENT);
  return {
    ...found,
    columns: found.columns.map((one) => (one.role === 'input-watts' ? { ...one, unit: 'mW' } : one)),
  };
};

describe('a remembered mapping', () => {
  it('says the unit where the file is silent', () =>
    expect(units(SILENT, corrected())).toEqual(['load %', 'input-watts mW', 'output-volts V', 'output-amps A']));

  it('gives way to a unit the file writes, behind a name or below it', () => {
    expect(units('Load;Pin [W];Vout;Iout\n100;50.05;20.01;2.25\n', corrected())[1]).toBe('input-watts W');
    const below = 'Load;Pin;Vout;Iout\n%;W;mV;A\n100;50.05;20010;2.25\n';
    expect(writtenUnits(below, plan(below))).toEqual(['%', 'W', 'mV', 'A']);
    expect(units(below, corrected())).toEqual(['load %', 'input-watts W', 'output-volts mV', 'output-amps A']);
  });

  it('holds roles that no name tells, and its unit with them', () => {
    const text = 'Load;Aux;Vout;Iout\n100;50.05;20.01;2.25\n';
    const known = plan(text);
    const chosen = known.columns.map((one, at) =>
      at === 1 ? { ...one, role: 'input-watts' as const, unit: 'mW' } : one,
    );
    expect(units(text, { ...known, columns: chosen })[1]).toBe('input-watts mW');
  });

  it('takes loads for what they are by their size, and ports for those there are', () => {
    expect(units('Load;Pin;Vout;Iout\n1;50050;20.01;2.25\n0.5;25050;20.01;1.125\n', corrected())[0]).toBe('load');
    const other = recall(plan(SILENT), corrected(), SILENT, ['A1']);
    expect(other.columns.map(({ port }) => port)).toEqual([null, null, 'A1', 'A1']);
  });

  it('of another number of columns is none', () => {
    const text = 'Load;Pin;Vout;Iout;More\n100;50.05;20.01;2.25;1\n';
    expect(recall(plan(text), corrected(), text, ['C1'])).toEqual(plan(text));
  });
});
