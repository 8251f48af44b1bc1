/** How what can be opened looks in a read-out. */
export const details = {
  border: 1,
  borderColor: 'divider',
  borderRadius: 1,
  px: 1,
  py: 0.5,
  mt: 0.5,
  '& > summary': { cursor: 'pointer', fontWeight: 600 },
} as const;
