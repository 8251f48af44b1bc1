// Collections of samples, and who may see them.

export interface CollectionInput {
  name: string;
  /** Moment until which only those named see its samples, ISO; null for no embargo: the whole lab sees them. */
  embargo: string | null;
  /** People who see its samples, embargo or not: guests see nothing else. */
  people: string[];
}

export interface Collection extends CollectionInput {
  id: string;
  /** How many samples are in it. */
  samples: number;
  /** Whether its embargo lasts now. */
  closed: boolean;
  version: number;
}

/** Where a sample is; null for what is the lab's own. */
export interface InCollection {
  collectionId: string | null;
}
