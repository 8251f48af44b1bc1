// Addresses below which the API answers: of the bench itself, and of the world of practice.

/** Where the world of practice begins. */
export const PRACTICE = '/practice';

/** The same address without the world it is in: `/practice/api/live` is `/api/live` there. */
export const inItsWorld = (path: string): string =>
  path.startsWith(`${PRACTICE}/api`) ? path.slice(PRACTICE.length) : path;

export const isApi = (path: string): boolean => inItsWorld(path).startsWith('/api');
