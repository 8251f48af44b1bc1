// A line of a growing file, as it is followed live.
import { describe, expect, it } from 'vitest';
import { type FollowPlan, followPlan, newestLine } from './newest.ts';

function plan(head: string): FollowPlan {
  const found = followPlan(head);
  if ('reason' in found) throw new Error(found.reason);
  return found;
}

describe('the newest line of a log', () => {
  it.each<readonly [string, string]>([
    ['Time;Temp;Pout', '10:00:00;71.6 °F;15.2 W'],
    ['Time;Temp;Pout', '10:00:00;22 °C;15200 mW'],
    ['Time;Temp [K];Pout [W]', '10:00:00;295.15;15.2'],
    ['Time;Temp [°C];Pout;Unit', '10:00:00;22;15200;mW'],
  ])('has its temperatures in °C, whatever they are written in: %s, %s', (head, line) => {
    const lines = Array.from({ length: 5 }, () => line);
    const { celsius, named } = newestLine(plan([head, ...lines].join('\n')), line);
    expect(celsius).toHaveLength(1);
    expect(celsius[0]).toBeCloseTo(22, 6);
    expect(named.get('Pout')).toBeCloseTo(15.2, 6);
  });

  it('has the unit that stands beside it now, whatever stood there before', () => {
    const found = plan(
      `Time;Pout;Unit\n${['10:00:00', '10:00:01', '10:00:02'].map((at) => `${at};980.0;mW`).join('\n')}`,
    );
    expect(newestLine(found, '10:00:03;1.0210;W').named.get('Pout')).toBeCloseTo(1.021, 9);
    expect(newestLine(found, '10:00:04;OL;W').named.get('Pout')).toBeNaN();
    expect(newestLine(found, '10:00:05;979 mW;mW').named.get('Pout')).toBeCloseTo(0.979, 9);
  });

  it('has the volts of the port, not those of a data line or a set point', () => {
    const line = '0.6;21;20.02;2.25';
    const found = plan(`D+ [V];Set [V];U [V];I [A]\n${[line, line, line].join('\n')}`);
    expect(newestLine(found, line).output).toEqual({ volts: 20.02, amps: 2.25 });
  });
});
