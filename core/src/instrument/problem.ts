/** Why an action cannot be sent, or its reply not be read. */
export class ProfileError extends Error {}
