import { interpret } from '@lastmark/core/read-out';
import { describe, expect, it } from 'vitest';
import { emptyForm, type Form, fromReadOut, statedOf, toInput } from './entryForm.ts';
import type { Decoded } from './useInterpret.ts';

const decodedOf = (form: Form): Decoded => {
  const { offers, ...rest } = interpret(form.text, form.order, form.are);
  return { ...rest, words: Uint32Array.from(offers), more: 0 };
};
const send = (part: Partial<Form>, cable: readonly number[] = []) => {
  const form = { ...emptyForm('C1', '01JZZZZZZZZZZZZZZZZZZZZZZZ'), ...part };
  const decoded = decodedOf(form);
  return toInput(form, decoded, cable, statedOf(form, decoded).kept, null);
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

  it('has what the source states of the text itself before its own fields, and says what it cannot read of those', () => {
    const text = 'A1 21 2C 91 01 08 2C D1 02 00\nAB 13 2D 2D 41 00\nAC 15 00 00 11 32';
    const typed = { info: '00646464', extended: '00ff:02 01' };
    expect(send({ text, order: 'wire', ...typed, declared: '3.0' })).toMatchObject({
      info: '00412D2D',
      extended: '00FF0201',
      declared: '3.2',
    });
    expect(send({ text: '0801912C', ...typed })).toMatchObject({ info: '00646464', declared: null });
    expect(send({ text: '0801912C' })).toMatchObject({ info: null, extended: null });
    const nothing = { info: null, extended: [] };
    const unread = statedOf({ info: '65 W', extended: '0', order: 'value' }, nothing).unread;
    expect(Object.keys(unread)).toEqual(['info', 'extended']);
    const told = { info: 0x00412d2d, extended: [0, 1] };
    // What the text tells counts, and nothing typed beside it is in its way.
    expect(statedOf({ info: '65 W', extended: '0', order: 'value' }, told)).toMatchObject({
      kept: { info: '00412D2D', extended: '0001' },
      unread: {},
    });
    expect(statedOf({ info: ' ', extended: ' ', order: 'value' }, nothing).unread).toEqual({});
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
        info: 'max 65 W, present 45 W, reported 45 W',
        extended: '00 FF 02 01',
      },
      [0x000a2640],
    );
    const form = fromReadOut(first, emptyForm('C1', first.instrumentId));
    const decoded = decodedOf(form);
    const second = toInput(form, decoded, [0x000a2640], statedOf(form, decoded).kept, { ...first });
    const { id: _a, supersedes, ...again } = second;
    const { id, supersedes: _b, ...before } = first;
    expect(supersedes).toBe(id);
    expect(again).toEqual(before);
  });
});
