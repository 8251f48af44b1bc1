import { interpret } from '@lastmark/core/read-out';
import { describe, expect, it } from 'vitest';
import { emptyForm, type Form, fromReadOut, toInput } from './entryForm.ts';
import type { Decoded } from './useInterpret.ts';

const decodedOf = (form: Form): Decoded => {
  const { offers, ...rest } = interpret(form.text, form.order, form.are);
  return { ...rest, words: Uint32Array.from(offers), more: 0 };
};
const send = (part: Partial<Form>, cable: readonly number[] = []) => {
  const form = { ...emptyForm('C1', '01JZZZZZZZZZZZZZZZZZZZZZZZ'), ...part };
  return toInput(form, decodedOf(form), cable, null);
};

describe('the form of a read-out', () => {
  it('sends words in capitals, temperatures in kelvin, times in seconds, and nothing that was not looked for', () => {
    expect(
      send({
        text: '0801912c 0002d12c',
        temperature: '24.5',
        elapsed: '2 min',
        signals: { dcp: 'seen', divider: 'not looked for' },
        unreachable: [{ position: '2', reason: ' refused ' }],
        note: ' as found ',
      }),
    ).toMatchObject({
      words: ['0801912C', '0002D12C'],
      epr: false,
      temperature: 297.65,
      elapsed: 120,
      signals: [{ mode: 'dcp', result: 'seen' }],
      unreachable: [{ position: 2, reason: 'refused' }],
      note: 'as found',
      askedWith: null,
      declared: null,
      supersedes: null,
    });
  });

  it('takes the cable from its own field, unless the text itself is a reply', () => {
    expect(send({ text: '0801912C' }, [0x000a2640]).cableWords).toEqual(['000A2640']);
    expect(send({ text: '000A2640', are: 'identity' }, [0x00082020]).cableWords).toEqual(['000A2640']);
  });

  it('has the marker its reply tells, whatever was chosen; nothing of it where no cable answered, or the lead is captive', () => {
    expect(send({ text: '0801912C', marker: '3 A' }, [0x000a2640]).marker).toBe('5 A EPR');
    expect(send({ text: '0801912C', marker: '5 A' }, [0x00082020]).marker).toBe('3 A');
    expect(send({ text: '0801912C', marker: '5 A' }).marker).toBe('5 A');
    expect(send({ text: '0801912C', marker: 'captive' }, [0x00082020]).marker).toBe('captive');
    // What the charger says of itself is no cable's.
    expect(send({ text: '0801912C', marker: '3 A' }, [0xff00a041, 0x19800000, 0, 0]).marker).toBe('3 A');
  });

  it('marks a temperature that cannot be read rather than dropping it', () => {
    expect(send({ text: '0801912C', temperature: '76' }).temperature).toBeNaN();
    expect(send({ text: '0801912C', temperature: '' }).temperature).toBeNull();
  });

  it('comes back from what was stored exactly as it was sent', () => {
    const first = send(
      {
        text: '0801912C\n0002D12C\nC1A42141',
        marker: '5 A EPR',
        askedWith: '3.2',
        declared: '3.1',
        occupied: ['C2'],
        temperature: '31.0',
        elapsed: '90 s',
        signals: { dcp: 'not seen' },
        unreachable: [{ position: '3', reason: 'Refused.' }],
        note: 'warm',
      },
      [0x000a2640],
    );
    const form = fromReadOut(first, emptyForm('C1', first.instrumentId));
    const second = toInput(form, decodedOf(form), [0x000a2640], { ...first });
    const { id: _a, supersedes, ...again } = second;
    const { id, supersedes: _b, ...before } = first;
    expect(supersedes).toBe(id);
    expect(again).toEqual(before);
  });
});
