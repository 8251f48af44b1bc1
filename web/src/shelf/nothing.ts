// What a shelf says that shows nothing, by what it was narrowed to.

/** What the shelf is narrowed to; empty and false for not at all. */
export interface Narrowed {
  readonly q: string;
  readonly kind: string;
  readonly label: string;
  readonly collection: string;
  readonly archived: boolean;
}

interface Said {
  readonly title: string;
  readonly says: string;
}

/** @returns what is said; null where nothing narrows the shelf: then it is empty */
export function nothingSays({ q, kind, label, collection, archived }: Narrowed): Said | null {
  const searched = q !== '' || kind !== '' || label !== '';
  if (searched)
    return {
      title: 'Nothing on the shelf matches',
      says: collection || archived ? 'Try fewer words, or the whole shelf.' : 'Try fewer words, or another kind.',
    };
  if (archived)
    return {
      title: collection ? 'Nothing of this collection is archived' : 'Nothing is archived',
      says: 'Mark samples on the shelf to archive them: they leave it, and nothing of them is lost.',
    };
  if (collection)
    return { title: 'Nothing in this collection yet', says: 'A sample is put into a collection at its Intake.' };
  return null;
}
