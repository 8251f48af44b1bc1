// What people may type to come in, and what may be asked about them.
import { boolean, string } from 'yup';
import { oneOf, optionalText, record, text, whole } from './parts.ts';
import { ROLES } from './roles.ts';

/** Shortest password somebody may choose, and longest that is looked at. */
export const PASSWORD_LEAST = 12;
const PASSWORD_MOST = 200;
/** Longest time a token lives, days. */
const TOKEN_DAYS = 366;

/** As somebody typed it: spaces are part of it. */
const typedPassword = () => string().strict().max(PASSWORD_MOST).defined('${path} is missing');
const chosenPassword = () =>
  typedPassword().min(PASSWORD_LEAST, `\${path} must have at least ${PASSWORD_LEAST} characters`);

const signInName = () =>
  text(120).matches(/^\S+$/, '${path} has spaces in it').min(2, '${path} must have at least 2 characters');

export const signInInput = record({ signIn: text(120), password: typedPassword(), code: optionalText(40) });
export const joinInput = record({
  secret: text(80),
  signIn: signInName(),
  name: text(60),
  password: chosenPassword(),
});
export const nameInput = record({ name: text(60) });
export const passwordInput = record({ ownPassword: typedPassword(), password: chosenPassword() });
export const ownPasswordInput = record({ ownPassword: typedPassword() });
export const codeInput = record({ code: text(40) });
const guest = () => boolean().strict().optional().default(undefined);
export const personInput = record({
  name: text(60),
  role: oneOf(ROLES),
  disabled: boolean().strict().required(),
  guest: guest(),
});
export const invitationInput = record({ role: oneOf(ROLES), note: optionalText(80), guest: guest() });
export const accessTokenInput = record({ name: text(60), role: oneOf(ROLES), days: whole(1, TOKEN_DAYS) });
