// Which world this page is in: the real one, or that of practice, which has addresses of its own and shares nothing.

const PRACTICE = '/practice';

/** Whether what stands here is practice. A page is in one world for as long as it is open. */
export const PRACTISING: boolean = /^\/practice(\/|$)/.test(globalThis.location?.pathname ?? '');

/** What every address of this world begins with. */
export const BASE: string = PRACTISING ? PRACTICE : '';

/** Address of the server for this world. @param path below /api */
export const apiUrl = (path: string): string => `${BASE}/api${path}`;
/** The same in the real world, wherever this page is: drills are begun and ended there. */
export const realUrl = (path: string): string => `/api${path}`;

/** Where practice begins. */
export const PRACTICE_HOME = `${PRACTICE}/`;
