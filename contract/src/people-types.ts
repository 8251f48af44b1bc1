// People and what lets them in.
import type { Role } from './roles.ts';

/** Somebody as they are known to everyone. */
export interface Person {
  id: string;
  name: string;
  role: Role;
}

/** Whoever asks. */
export interface Me extends Person {
  /** From outside the lab: sees what they are named for only. */
  guest: boolean;
  /** What they sign in with. */
  signIn: string;
  /** Whether a second factor is asked of them. */
  factor: boolean;
  /** Recovery codes that are left. */
  recovery: number;
  /** Whether they have a password of their own; not where the lab's provider lets them in. */
  password: boolean;
}

/** Whether people are told apart here, and who asks. */
export interface Who {
  /** False on a server for one person on one machine: nobody signs in. */
  people: boolean;
  /** Nobody is here yet: the first comes in with the code printed at the start. */
  first: boolean;
  /** Name of the lab's own sign-in; null without one. */
  provider: string | null;
  me: Me | null;
}

export interface SignInInput {
  signIn: string;
  password: string;
  /** Of the second factor, or a recovery code; empty until it is asked for. */
  code: string;
}

/** Signed in, or what is still wanted. */
export interface SignInAnswer {
  me: Me | null;
  codeWanted: boolean;
}

export interface JoinInput {
  secret: string;
  signIn: string;
  name: string;
  password: string;
}

/** A person as admins see them. */
export interface StoredPerson extends Person {
  signIn: string;
  factor: boolean;
  /** Whether they are kept out. */
  disabled: boolean;
  /** From outside the lab. */
  guest: boolean;
  /** When they were here last; null for never. */
  seenAt: string | null;
  createdAt: string;
  version: number;
}

export interface PersonInput {
  name: string;
  role: Role;
  disabled: boolean;
  /** From outside the lab: sees samples of the collections they are named in, and no others. Left out for no. */
  guest?: boolean | undefined;
}

export interface InvitationInput {
  role: Role;
  /** From outside the lab. Left out for no. */
  guest?: boolean | undefined;
  /** For whom, so that it is known which to take back. */
  note: string;
}

export interface Invitation extends InvitationInput {
  id: string;
  by: string | null;
  endsAt: string;
}

/** A link that lets somebody in once; shown once and kept by nobody. */
export interface LetIn {
  path: string;
  endsAt: string;
}

export interface Session {
  id: string;
  madeAt: string;
  seenAt: string;
  endsAt: string;
  address: string;
  /** What the browser calls itself. */
  browser: string;
  /** The one that asks. */
  own: boolean;
}

export interface AccessTokenInput {
  name: string;
  /** The most it may do, and never more than whoever made it. */
  role: Role;
  days: number;
}

export interface AccessToken {
  id: string;
  name: string;
  role: Role;
  madeAt: string;
  endsAt: string;
  seenAt: string | null;
}

/** A new token with what is sent as it: shown once. */
export interface NewAccessToken extends AccessToken {
  token: string;
}

/** A second factor to be set up: what an authenticator is given. */
export interface NewFactor {
  secret: string;
  uri: string;
}
