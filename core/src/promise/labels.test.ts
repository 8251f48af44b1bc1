// A corpus of lines as labels print them, all invented, each with what it says: promises in words, `[…]` for how long,
// `!…` for text nothing was made of.

import { expect, it } from 'vitest';
import { describeDuration, describePromise } from './describe.ts';
import { parseClaimLine } from './parse.ts';

const PORTS = ['C1', 'C2', 'C3', 'A1', 'A2', 'C10'];

function said(line: string): string {
  const parsed = parseClaimLine(line, PORTS);
  if ('reason' in parsed) return `refused: ${parsed.reason}`;
  const { promises, duration, unused } = parsed;
  return [
    promises.map(describePromise).join(' · '),
    ...(duration ? [`[${describeDuration(duration)}]`] : []),
    ...(unused ? [`!${unused.join('|')}`] : []),
  ].join(' ');
}

const CORPUS: readonly (readonly [line: string, says: string])[] = [
  ['C1: 5V 3A / 9V 3A / 20V 2.25A', 'C1: 5 V 3 A · C1: 9 V 3 A · C1: 20 V 2.25 A'],
  ['C1: 5V⎓3A, 9V⎓3A, 15V⎓3A, 20V⎓3.25A', 'C1: 5 V 3 A · C1: 9 V 3 A · C1: 15 V 3 A · C1: 20 V 3.25 A'],
  ['C1 5V=3A; 9V=3A; 12V=2.5A', 'C1: 5 V 3 A · C1: 9 V 3 A · C1: 12 V 2.5 A'],
  ['C1: 5V/3A, 9V/2.22A', 'C1: 5 V 3 A · C1: 9 V 2.22 A'],
  ['C1: 5V@3A 9V@3A', 'C1: 5 V 3 A · C1: 9 V 3 A'],
  ['C1: 5.0V 3.0A | 9.0V 3.0A', 'C1: 5 V 3 A · C1: 9 V 3 A'],
  ['C1: 5 V 3 A · 9 V 3 A', 'C1: 5 V 3 A · C1: 9 V 3 A'],
  ['C1: 5VDC 3A, 9VDC 3A', 'C1: 5 V 3 A · C1: 9 V 3 A'],
  ['C1: 5 volts 3 amps', 'C1: 5 V 3 A'],
  ['C1: 5V x 3A', 'C1: 5 V 3 A'],
  ['C1 5V 3000mA', 'C1: 5 V 3 A'],
  ['C1: 5V 3A 15W', 'C1: 5 V 3 A'],
  ['C1: 5V 3A (15W), 9V 3A (27W), 20V 3.25A (65W)', 'C1: 5 V 3 A · C1: 9 V 3 A · C1: 20 V 3.25 A'],
  ['C1: 5V 3A / 20V 5A (100W max)', 'C1: 5 V 3 A · C1: 20 V 5 A'],
  ['C1: 20V 3A 65W', 'C1: 20 V 3 A · C1 alone: 65 W'],
  ['C1: 20V 65W', 'C1: 20 V 3.25 A'],
  ['C1: 5/9/15V 3A, 20V 3.25A', 'C1: 5 V 3 A · C1: 9 V 3 A · C1: 15 V 3 A · C1: 20 V 3.25 A'],
  ['C1: 5/9/12/15 V 3 A', 'C1: 5 V 3 A · C1: 9 V 3 A · C1: 12 V 3 A · C1: 15 V 3 A'],
  ['C1: 100W', 'C1 alone: 100 W'],
  ['C1: 100 W max', 'C1 alone: 100 W'],
  ['C1 (100W)', 'C1 alone: 100 W'],
  ['C1: max. 65W', 'C1 alone: 65 W'],
  ['C1: up to 65 W', 'C1 alone: 65 W'],
  ['C1 = 65W', 'C1 alone: 65 W'],
  ['C1: 65 watts', 'C1 alone: 65 W'],
  ['C1/C2/C3: 5V 3A', 'C1: 5 V 3 A · C2: 5 V 3 A · C3: 5 V 3 A'],
  ['C1/C2: 5V 3A / 9V 3A', 'C1: 5 V 3 A · C1: 9 V 3 A · C2: 5 V 3 A · C2: 9 V 3 A'],
  ['C1, C2: 5V 3A', 'C1: 5 V 3 A · C2: 5 V 3 A'],
  ['C1 or C2: 65W', 'C1 alone: 65 W · C2 alone: 65 W'],
  ['C1/C2: 65W', 'C1 alone: 65 W · C2 alone: 65 W'],
  ['C1/C2/A1: 100W/60W/18W', 'C1 alone: 100 W · C2 alone: 60 W · A1 alone: 18 W'],
  ['C1 / A1 = 45W / 18W', 'C1 alone: 45 W · A1 alone: 18 W'],
  ['C1/C2: 65W total', 'C1 + C2 share 65 W'],
  ['C1, C2 together 65W', 'C1 + C2 share 65 W'],
  ['C1/C2: 5V 3A (15W each)', 'C1: 5 V 3 A · C2: 5 V 3 A'],
  ['Output (C1+C2): 65W+30W', 'C1 + C2: 65 + 30 W'],
  ['(C1+C2): 65W', 'C1 + C2 share 65 W'],
  ['(C1+C2): 65W+30W (95W max)', 'C1 + C2: 65 + 30 W'],
  ['(C1+C2+C3): 65W (100W max)', 'C1 + C2 + C3 share 65 W !100 W'],
  ['A1 + (C1+C2): 20W + 65W', 'A1 + (C1 + C2): 20 + 65 W'],
  ['C1: 100W (max 10 min)', 'C1 alone: 100 W [for 600 s]'],
  ['C1：６５Ｗ', 'C1 alone: 65 W'],
  ['C1: PPS3.3-21V 5A', 'C1: PPS 3.3–21 V 5 A'],
  ['C1:l2V 3A', 'refused: “l2V” cannot be read: is one of its letters a digit?'],
  ['C1: 1e3 W', 'refused: “e3 W” cannot be read: is one of its letters a digit?'],
  ['C: 65W', 'refused: C may be C1 or C2 or C3 or C10: name the port.'],
  ['Idle: 75mW @ 230VAC', 'Idle below 0.075 W at 230 V 50 Hz'],
  ['No-load: less than 30 mW', 'Idle below 0.03 W'],
  ['C1: 12VAC 1A', 'refused: C1: volts and amps are expected in pairs, such as 20 V 3.25 A, or watts.'],
  ['C1-C2: 20V 5A', 'C1: 20 V 5 A · C2: 20 V 5 A'],
  ['C1 to C3: 5V 3A, 9V 2A', 'C1: 5 V 3 A · C1: 9 V 2 A · C2: 5 V 3 A · C2: 9 V 2 A · C3: 5 V 3 A · C3: 9 V 2 A'],
  ['C1–C3: 30W', 'C1 alone: 30 W · C2 alone: 30 W · C3 alone: 30 W'],
  ['USB-C1: 5V 3A', 'C1: 5 V 3 A'],
  ['USB-C1: 65W', 'C1 alone: 65 W'],
  ['USB C1: 5V⎓3A', 'C1: 5 V 3 A'],
  ['Output C1: 20V 3A', 'C1: 20 V 3 A'],
  ['Output USB-C1: 20V 3A', 'C1: 20 V 3 A'],
  ['Outputs: C1 20V 3A', 'C1: 20 V 3 A'],
  ['Port C1: 20V 3A', 'C1: 20 V 3 A'],
  ['Type-C1: 5V 3A', 'C1: 5 V 3 A'],
  ['DC Output C1: 5V 3A', 'C1: 5 V 3 A'],
  ['Out C1: 5V 3A', 'C1: 5 V 3 A'],
  ['C1 Output: 5V 3A', 'C1: 5 V 3 A'],
  ['C1 output 5V 3A max', 'C1: 5 V 3 A'],
  ['A1: 5V 2.4A', 'A1: 5 V 2.4 A'],
  ['A1/A2: 5V 2.4A', 'A1: 5 V 2.4 A · A2: 5 V 2.4 A'],
  ['USB-A1: 5V/2.4A', 'A1: 5 V 2.4 A'],
  ['A1: 5V 4.5A, 9V 3A, 12V 2.25A, 5V 3A', 'A1: 5 V 4.5 A · A1: 9 V 3 A · A1: 12 V 2.25 A · A1: 5 V 3 A'],
  ['A1: 5V 4.5A / 4.5V 5A', 'A1: 5 V 4.5 A · A1: 4.5 V 5 A'],
  ['C1: PPS 3.3-11V 5A', 'C1: PPS 3.3–11 V 5 A'],
  ['C1: PPS 5-11V⎓5A', 'C1: PPS 5–11 V 5 A'],
  ['C1: PPS 3.3V-21V⎓3.25A', 'C1: PPS 3.3–21 V 3.25 A'],
  ['C1: PPS: 3.3–16V/3A', 'C1: PPS 3.3–16 V 3 A'],
  ['C1: 3.3-11V⎓5A (PPS)', 'C1: PPS 3.3–11 V 5 A'],
  ['C1: 3.3–21 V 3 A PPS', 'C1: PPS 3.3–21 V 3 A'],
  ['C1: 5V 3A, PPS 3.3-11V 3A', 'C1: 5 V 3 A · C1: PPS 3.3–11 V 3 A'],
  [
    'C1: 5V⎓3A, 9V⎓3A, 20V⎓5A, PPS: 5V-11V⎓5A, 5V-20V⎓5A',
    'C1: 5 V 3 A · C1: 9 V 3 A · C1: 20 V 5 A · C1: PPS 5–11 V 5 A · C1: PPS 5–20 V 5 A',
  ],
  ['C1: PPS 3.3-11V 5A; PPS 3.3-16V 4A', 'C1: PPS 3.3–11 V 5 A · C1: PPS 3.3–16 V 4 A'],
  ['C1: PPS1 3.3-11V 5A', 'C1: PPS 3.3–11 V 5 A !1'],
  ['C1: AVS 9-20V 3A', 'C1: SPR AVS 9–20 V 3 A'],
  ['C1: SPR AVS 9-15V 3A', 'C1: SPR AVS 9–15 V 3 A'],
  ['C1: EPR AVS 15-28V 5A', 'C1: EPR AVS 15–28 V 5 A'],
  ['C1: AVS 15–28V 140W', 'C1: EPR AVS 15–28 V 5 A'],
  ['C1: 28V 5A, AVS 15-28V 5A', 'C1: 28 V 5 A · C1: EPR AVS 15–28 V 5 A'],
  ['C1: 3.3–11 V 3 A', 'refused: C1: 3.3 V–11 V is a range: write PPS or AVS before it.'],
  ['C1: 3.3-11V', 'refused: C1: 3.3 V–11 V has no amps.'],
  ['C1: PPS 21-3.3V 3A', 'refused: C1: a range runs from the lower voltage to the higher one.'],
  ['C1+C2: 45W+20W', 'C1 + C2: 45 + 20 W'],
  ['C1+C2: 45W + 20W', 'C1 + C2: 45 + 20 W'],
  ['C1 + C2: 45 + 20 W', 'C1 + C2: 45 + 20 W'],
  ['C1+C2 45+20', 'C1 + C2: 45 + 20 W'],
  ['C1+C2: 45W+20W (65W max)', 'C1 + C2: 45 + 20 W'],
  ['C1+C2: 45W+20W, total 65W', 'C1 + C2: 45 + 20 W'],
  ['C1+C2: 45W+20W (100W)', 'C1 + C2: 45 + 20 W !100 W'],
  ['C1 & C2: 45W & 20W', 'C1 + C2: 45 + 20 W'],
  ['C1 and C2: 45W and 20W', 'C1 + C2: 45 + 20 W'],
  ['C1+C2+A1: 45W+20W+12W', 'C1 + C2 + A1: 45 + 20 + 12 W'],
  ['C1+C2: 65W', 'C1 + C2 share 65 W'],
  ['C1+C2: 65W max', 'C1 + C2 share 65 W'],
  ['C2 + C3 share 20 W', 'C2 + C3 share 20 W'],
  ['C2+C3: 20W shared', 'C2 + C3 share 20 W'],
  ['C2+C3 20 W together', 'C2 + C3 share 20 W'],
  ['A1+A2: 5V 3A', 'A1 + A2 share 15 W'],
  ['A1 + A2 5 V 3 A together', 'A1 + A2 share 15 W'],
  ['A1+A2 total 15W', 'A1 + A2 share 15 W'],
  ['C1 + (C2 + C3): 45W + 20W', 'C1 + (C2 + C3): 45 + 20 W'],
  ['C1+(C2+C3): 45+20W', 'C1 + (C2 + C3): 45 + 20 W'],
  ['(C1+C2)+A1: 65W+12W', '(C1 + C2) + A1: 65 + 12 W'],
  ['C1+[A1+A2]: 45W+15W', 'C1 + (A1 + A2): 45 + 15 W'],
  ['C1 + C2/A1: 45W + 18W', 'refused: It names ports with + and with /: put those that share in brackets, su'],
  ['C1+C2+A1: 45W+18W', 'refused: C1 + C2 + A1 are 3 ports and 2 powers: give each its watts, such as 30'],
  ['C1 45W + C2 20W', 'C1 + C2: 45 + 20 W'],
  ['C1: 45W + C2: 20W', 'C1 + C2: 45 + 20 W'],
  ['C1 (45W) + A1 (18W)', 'C1 + A1: 45 + 18 W'],
  ['C1 45W & A1 12W', 'C1 + A1: 45 + 12 W'],
  ['C1 20V 2.25A + C2 9V 2A', 'C1 + C2: 45 + 18 W'],
  ['C1+C2: 20V 2.25A + 9V 2A', 'C1 + C2: 45 + 18 W'],
  ['C1: 100W; C2: 30W', 'C1 alone: 100 W · C2 alone: 30 W'],
  ['C1: 65W, C2: 30W, A1: 18W', 'C1 alone: 65 W · C2 alone: 30 W · A1 alone: 18 W'],
  ['C1 65W C2 30W', 'C1 alone: 65 W · C2 alone: 30 W'],
  ['C1 65W / A1 18W', 'C1 alone: 65 W · A1 alone: 18 W'],
  ['C1, C2: 45W + 20W', 'C1 + C2: 45 + 20 W'],
  ['C1: 5V 3A, 20V 5A; C2: 5V 3A, 9V 3A', 'C1: 5 V 3 A · C1: 20 V 5 A · C2: 5 V 3 A · C2: 9 V 3 A'],
  ['C1: 5V 3A; A1: 5V 2.4A', 'C1: 5 V 3 A · A1: 5 V 2.4 A'],
  ['C1: 100W for 30 min', 'C1 alone: 100 W [for 1800 s]'],
  ['C1: 120W peak 10 s', 'C1 alone: 120 W [for 10 s]'],
  ['C1: 65 W continuous', 'C1 alone: 65 W [continuous]'],
  ['total 65 W', 'Total 65 W'],
  ['Total 65W', 'Total 65 W'],
  ['Total: 65W max', 'Total 65 W'],
  ['Total output: 65W', 'Total 65 W'],
  ['Total power 140 W', 'Total 140 W'],
  ['Max 65W', 'Total 65 W'],
  ['max. 65W', 'Total 65 W'],
  ['65W max', 'Total 65 W'],
  ['65W MAX', 'Total 65 W'],
  ['(100 W max)', 'Total 100 W'],
  ['Max output power: 65W', 'Total 65 W'],
  ['Combined output 100W', 'Total 100 W'],
  ['Output: 65W', 'Total 65 W'],
  ['65W', 'Total 65 W'],
  ['140 watts total', 'Total 140 W'],
  ['Total 200W peak 30 s', 'Total 200 W [for 30 s]'],
  ['idle 0.075 W', 'Idle below 0.075 W'],
  ['idle < 75 mW', 'Idle below 0.075 W'],
  ['Idle: 0.05 W', 'Idle below 0.05 W'],
  ['no-load 0,1 W', 'Idle below 0.1 W'],
  ['No load power < 0.1W', 'Idle below 0.1 W'],
  ['No-load power consumption ≤0.10 W', 'Idle below 0.1 W'],
  ['standby power 75 mW', 'Idle below 0.075 W'],
  ['Standby consumption: <0.3W', 'Idle below 0.3 W'],
  ['efficiency 91 %', 'Average efficiency 91 %'],
  ['average efficiency 91,2 %', 'Average efficiency 91.2 %'],
  ['Average active efficiency: 88.5%', 'Average efficiency 88.5 %'],
  ['avg efficiency 90%', 'Average efficiency 90 %'],
  ['efficiency at 10 % load 85 %', 'refused: Only an average efficiency is a claim, such as efficiency 91 %. Put an'],
  ['peak efficiency 95 %', 'refused: Only an average efficiency is a claim, such as efficiency 91 %. Put an'],
  [
    'up to 95 % efficient at full load',
    'refused: Only an average efficiency is a claim, such as efficiency 91 %. Put an',
  ],
  ['charges a laptop to 50 % in 30 min', 'laptop: 0 to 50 % in 30 min'],
  ['50% in 30 minutes', 'Any device: 0 to 50 % in 30 min'],
  ['Input: 100-240V~ 50/60Hz 1.5A', 'refused: This is what it takes: it belongs to the input rating at Intake.'],
  ['Input 100–240 V 1.8 A', 'refused: This is what it takes: it belongs to the input rating at Intake.'],
  ['“turbo inside”', '“turbo inside”'],
  ['"fast charge"', '“fast charge”'],
  ['fast charging', 'refused: Start with a port (C1, C2, C3, A1, A2, C10), "total", "idle", "effic'],
  ['Output: 5V 3A', 'refused: Start with a port (C1, C2, C3, A1, A2, C10), "total", "idle", "effic'],
  ['5V 3A, 9V 3A', 'refused: Start with a port (C1, C2, C3, A1, A2, C10), "total", "idle", "effic'],
  ['X9 20V 3A', 'refused: Start with a port (C1, C2, C3, A1, A2, C10), "total", "idle", "effic'],
  ['C1', 'refused: C1: volts and amps are expected in pairs, such as 20 V 3.25 A, or watt'],
  ['C1 20V', 'refused: C1: 20 V has no amps: give them in pairs, such as 20 V 3.25 A.'],
  ['C1 3A 20V', 'refused: C1: 20 V has no amps: give them in pairs, such as 20 V 3.25 A.'],
  ['C1: fast', 'refused: C1: volts and amps are expected in pairs, such as 20 V 3.25 A, or watt'],
  ['C1: 5V 3A super fast', 'C1: 5 V 3 A !super fast'],
  ['C1: 5V 3A GaN inside', 'C1: 5 V 3 A !GaN inside'],
  ['C1: 20V 3.25A (laptop)', 'C1: 20 V 3.25 A !laptop'],
  ['C1: 5V 3A, 9V', 'refused: C1: 9 V has no amps: give them in pairs, such as 20 V 3.25 A.'],
  ['C1: 45W/65W', 'C1 alone: 45 W !65W'],
  ['C1+C1: 20W+20W', 'refused: names a port twice'],
  ['C10: 9V 2A', 'C10: 9 V 2 A'],
  ['C1: 9 V 3 A 2 m cable', 'C1: 9 V 3 A !2 m cable'],
  ['C1: 20V⎓3,25A', 'C1: 20 V 3.25 A'],
  ['A1: stepped high voltage', 'A1: Stepped high voltage'],
  ['c1: 5v 3a', 'C1: 5 V 3 A'],
  ['C2: 5V3A,9V3A,12V2.5A,15V2A,20V1.5A', 'C2: 5 V 3 A · C2: 9 V 3 A · C2: 12 V 2.5 A · C2: 15 V 2 A · C2: 20 V 1.5 A'],
  ['C3：5V⎓3A', 'C3: 5 V 3 A'],
];

it.each(CORPUS)('%s', (line, says) => {
  const found = said(line);
  if (!says.startsWith('refused: ')) expect(found).toBe(says);
  else {
    expect(found).toMatch(/^refused: /);
    expect(found).toContain(says.slice('refused: '.length));
  }
});

it('is a hundred and fifty lines or more, none of them twice', () => {
  expect(new Set(CORPUS.map(([line]) => line)).size).toBe(CORPUS.length);
  expect(CORPUS.length).toBeGreaterThanOrEqual(150);
});

it('of a sample with one port needs no label before its levels', () => {
  const parsed = parseClaimLine('Output: 5V⎓3A, 9V⎓2.22A', ['USB']);
  expect('promises' in parsed ? parsed.promises.map(describePromise) : parsed.reason).toEqual([
    'USB: 5 V 3 A',
    'USB: 9 V 2.22 A',
  ]);
});

it('takes ports whose labels hold signs for what they are', () => {
  const ports = ['C+', 'C', 'A+1'];
  const of = (line: string) => {
    const parsed = parseClaimLine(line, ports);
    return 'promises' in parsed ? parsed.promises.map(describePromise) : parsed.reason;
  };
  expect(of('C++C: 45W+20W')).toEqual(['C+ + C: 45 + 20 W']);
  expect(of('C + A+1: 45 W + 12 W')).toEqual(['C + A+1: 45 + 12 W']);
  expect(of('C+: 5V 3A')).toEqual(['C+: 5 V 3 A']);
});
