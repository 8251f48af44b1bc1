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
  ])('has its temperatures in °C, whatever they are written in: %s, %s', (head, line) => {
    const lines = Array.from({ length: 5 }, () => line);
    const { celsius, named } = newestLine(plan([head, ...lines].join('\n')), line);
    expect(celsius).toHaveLength(1);
    expect(celsius[0]).toBeCloseTo(22, 6);
    expect(named.get('Pout')).toBeCloseTo(15.2, 6);
  });
});
