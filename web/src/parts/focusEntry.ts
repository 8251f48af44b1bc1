// From a mark of a picture to the field its reading was typed into.

/** Go to the first field whose name begins so. @returns whether there is one */
export function focusEntry(name: string): boolean {
  const fields = [...document.querySelectorAll<HTMLInputElement>('input[data-entry]')];
  const field = fields.find((one) => one.getAttribute('aria-label')?.startsWith(name));
  field?.scrollIntoView({ block: 'center' });
  field?.focus();
  return field !== undefined;
}

/** Go to the first field of the grid that nothing stands in; to the first of all where every one is filled. */
export function focusFirstEmpty(): void {
  const fields = [...document.querySelectorAll<HTMLInputElement>('input[data-entry]')];
  const field = fields.find(({ value }) => value === '') ?? fields[0];
  field?.scrollIntoView({ block: 'center' });
  field?.focus();
}
