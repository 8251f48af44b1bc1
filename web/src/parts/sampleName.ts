import type { SampleRow } from '@lastmark/contract/types';

/** A sample as it is called in a list. */
export const sampleName = ({ maker, model, serial, tag }: Pick<SampleRow, 'maker' | 'model' | 'serial' | 'tag'>) =>
  `${maker} ${model}, ${serial || tag}`;
