// What became of a sample after months.

export const FATES = ['held up well', 'died', 'repaired', 'recalled'] as const;
export type Fate = (typeof FATES)[number];
