// What somebody says of themselves when they come in for the first time.
import type { Me } from '@lastmark/contract/people';
import type { Control } from 'react-hook-form';
import { api } from '../api/client.ts';
import { TextInput } from '../parts/form/inputs.tsx';
import { PasswordInput } from './PasswordInput.tsx';

export interface JoinForm {
  secret: string;
  name: string;
  signIn: string;
  password: string;
}

export const NO_JOIN: JoinForm = { secret: '', name: '', signIn: '', password: '' };
/** What is asked of a password, in a line. */
export const PASSWORD_HINT = '12 characters or more; a few words of your own are good';

export const sendJoin = ({ secret, name, signIn, password }: JoinForm): Promise<Me> =>
  api<Me>('/join', {
    method: 'POST',
    body: { secret: secret.trim(), name: name.trim(), signIn: signIn.trim(), password },
    real: true,
  });

export function JoinFields({ control }: { readonly control: Control<JoinForm> }) {
  return (
    <>
      <TextInput
        control={control}
        name="name"
        label="Your name, as others see it"
        max={60}
        required
        more={{ helperText: ' ', autoComplete: 'name' }}
      />
      <TextInput
        control={control}
        name="signIn"
        label="Sign-in name"
        max={120}
        required
        more={{ helperText: ' ', autoComplete: 'username' }}
      />
      <PasswordInput control={control} name="password" label="Password" kind="new-password" hint={PASSWORD_HINT} />
    </>
  );
}
