// Operations of people: coming in and going out, one's own account, and letting others in.
import {
  accessTokenInput,
  codeInput,
  invitationInput,
  joinInput,
  nameInput,
  ownPasswordInput,
  passwordInput,
  personInput,
  signInInput,
} from './people-schemas.ts';
import type {
  AccessToken,
  AccessTokenInput,
  Invitation,
  InvitationInput,
  JoinInput,
  LetIn,
  Me,
  NewAccessToken,
  NewFactor,
  Person,
  PersonInput,
  Session,
  SignInAnswer,
  SignInInput,
  StoredPerson,
  Who,
} from './people-types.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { Items } from './route-types.ts';

/** Who comes and goes is written down where it is known who it is. */
const OPEN = { needs: 'nobody', keepsNothing: true } as const;
const OWN = { needs: 'reader' } as const;
const ADMIN = { needs: 'admin' } as const;

export const PEOPLE_ROUTES = {
  getMe: get('/me', 'Whether people are told apart here, and who asks', { answer: is<Who>(), ...OPEN }),
  signIn: write('post', '/sign-in', 'Come in with name and password, and the second factor where there is one', {
    body: of<SignInInput>(signInInput),
    answer: is<SignInAnswer>(),
    status: 200,
    ...OPEN,
  }),
  beginProvider: get('/sign-in/provider', 'Go to the lab’s own sign-in', {
    ...OPEN,
    status: 302,
    answers: 'text/html',
  }),
  backFromProvider: get('/sign-in/provider/back', 'Come back from the lab’s own sign-in', {
    ...OPEN,
    status: 302,
    answers: 'text/html',
  }),
  signOut: write('post', '/sign-out', 'Go out: this browser is forgotten', { status: 204, ...OPEN }),
  join: write('post', '/join', 'Come in for the first time, by an invitation or the code printed at the start', {
    body: of<JoinInput>(joinInput),
    answer: is<Me>(),
    ...OPEN,
  }),
  changeMe: write('put', '/me', 'Change one’s own name', {
    body: of<{ name: string }>(nameInput),
    answer: is<Me>(),
    ...OWN,
  }),
  changePassword: write('put', '/me/password', 'Choose another password; all other browsers are signed out', {
    body: of<{ ownPassword: string; password: string }>(passwordInput),
    answer: is<Me>(),
    ...OWN,
  }),
  beginFactor: write('post', '/me/factor', 'Begin a second factor: what an authenticator is to be given', {
    body: of<{ ownPassword: string }>(ownPasswordInput),
    answer: is<NewFactor>(),
    ...OWN,
  }),
  confirmFactor: write('put', '/me/factor', 'Ask for the second factor from now on; answers with recovery codes', {
    body: of<{ code: string }>(codeInput),
    answer: is<Items<string>>(),
    ...OWN,
  }),
  endFactor: write('post', '/me/factor/end', 'Ask for no second factor any more', {
    body: of<{ ownPassword: string }>(ownPasswordInput),
    answer: is<Me>(),
    status: 200,
    ...OWN,
  }),
  listSessions: get('/me/sessions', 'Where one is signed in', { answer: is<Items<Session>>() }),
  endSession: write('delete', '/me/sessions/{sessionId}', 'Sign one browser out', OWN),
  endOtherSessions: write('post', '/me/sessions/end-others', 'Sign out everywhere else', { status: 204, ...OWN }),
  listTokens: get('/me/tokens', 'Tokens for one’s scripts', { answer: is<Items<AccessToken>>() }),
  createToken: write('post', '/me/tokens', 'Make a token for a script; it is shown once', {
    body: of<AccessTokenInput>(accessTokenInput),
    answer: is<NewAccessToken>(),
    ...OWN,
  }),
  revokeToken: write('delete', '/me/tokens/{tokenId}', 'End a token', OWN),
  listNames: get('/people/names', 'Who is here, by name and role', { answer: is<Items<Person>>() }),
  listPeople: get('/people', 'Everyone, with when they were here last', {
    answer: is<Items<StoredPerson>>(),
    ...ADMIN,
  }),
  updatePerson: write('put', '/people/{personId}', 'Change name or role of somebody, or keep them out', {
    body: of<PersonInput>(personInput),
    ifMatch: true,
    answer: is<StoredPerson>(),
    ...ADMIN,
  }),
  forgetPerson: write(
    'delete',
    '/people/{personId}',
    'Forget somebody: name, sign-in and everything that lets them in go; what they measured stays, by nobody',
    { ifMatch: true, ...ADMIN },
  ),
  resetPerson: write(
    'post',
    '/people/{personId}/reset',
    'A link by which somebody who is locked out chooses a password anew; they are signed out everywhere',
    { answer: is<LetIn>(), ...ADMIN },
  ),
  listInvitations: get('/invitations', 'Invitations nobody has taken yet', {
    answer: is<Items<Invitation>>(),
    ...ADMIN,
  }),
  invite: write('post', '/invitations', 'Invite somebody: a link that lets in once', {
    body: of<InvitationInput>(invitationInput),
    answer: is<LetIn>(),
    ...ADMIN,
  }),
  withdrawInvitation: write('delete', '/invitations/{invitationId}', 'Take an invitation back', ADMIN),
} as const satisfies Record<string, Route>;
