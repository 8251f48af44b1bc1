// The words of the field in a sentence each, for whoever meets them first.
export const TERMS = {
  'four-point average':
    'Mean of the efficiencies at 25, 50, 75 and 100 % of the nameplate current, as limit sets ask for it.',
  PF: 'Power factor: watts over volts times amps at the mains. 1 is a pure resistor; small chargers often lie near 0.5.',
  U: 'Expanded uncertainty, k = 2: the truth lies within it about 95 times of 100.',
  'limit set':
    'Limits of one text for efficiency and idle by nameplate power, with where they come from and since when they hold.',
  rig: 'Which meter reads what, and what is in the line between port and load. Readings take their uncertainty from it.',
  loading: 'Which ports are loaded at which level and current, measured point by point.',
  budget: 'Power several ports share. What one takes, the others of the same budget cannot get.',
  tolerance: 'How far a voltage may lie from its level: 5 % either side for fixed levels, by the USB PD standard.',
  hold: 'A power drawn without a break, and what ended it: time, heat, or nothing.',
  'meter chain': 'Several meters on one current. Their differences are the line between them, or a meter that is off.',
} as const;

export type Term = keyof typeof TERMS;
