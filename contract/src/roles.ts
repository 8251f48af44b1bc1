// Who may do what: four roles, each of which may do all that the ones before it may.

export const ROLES = ['reader', 'engineer', 'keeper', 'admin'] as const;
export type Role = (typeof ROLES)[number];

/** What each role is called and may do, in one line. */
export const ROLE_WORDS: Readonly<Record<Role, { readonly title: string; readonly says: string }>> = {
  reader: { title: 'Reader', says: 'sees everything, writes nothing; may always press Loads off' },
  engineer: { title: 'Engineer', says: 'measures, runs sheets, concludes and issues reports' },
  keeper: { title: 'Bench keeper', says: 'also keeps instruments, rigs, limit sets and methods' },
  admin: { title: 'Admin', says: 'also lets people in, and gives them their roles' },
};

/**
 * Whether a role is enough.
 * @example isEnough('keeper', 'engineer') // true
 */
export const isEnough = (has: Role, needed: Role): boolean => ROLES.indexOf(has) >= ROLES.indexOf(needed);

/** The lesser of two roles: what somebody may do through something that may do less. */
export const lesser = (one: Role, other: Role): Role => (isEnough(one, other) ? other : one);
