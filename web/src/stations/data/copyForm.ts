// Links as they are chosen.
/** What links are called, bit/s. */
export const LINKS = [
  { value: '', label: 'not noted' },
  { value: '480e6', label: '480 Mbit/s' },
  { value: '5e9', label: '5 Gbit/s' },
  { value: '10e9', label: '10 Gbit/s' },
  { value: '20e9', label: '20 Gbit/s' },
  { value: '40e9', label: '40 Gbit/s' },
  { value: '80e9', label: '80 Gbit/s' },
] as const;

export const linkOf = (value: string): number | null => (value === '' ? null : Number(value));
export const linkValue = (bits: number | null): string =>
  LINKS.find(({ value }) => value !== '' && Number(value) === bits)?.value ?? '';
