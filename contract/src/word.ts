// What a field is called.
import type { QuantityId } from '@lastmark/core/quantity';

/** A field's name, and what its number measures. */
export type Word = readonly [name: string, quantity?: QuantityId];
