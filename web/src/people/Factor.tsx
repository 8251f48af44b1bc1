// The second factor: set up with an authenticator, confirmed by its code, with recovery codes for when it is lost.
import type { Me, NewFactor } from '@lastmark/contract/people';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { QRCodeSVG } from 'qrcode.react';
import { useState } from 'react';
import { api } from '../api/client.ts';
import type { Items } from '../api/queries.ts';
import { refreshWho } from '../api/who.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { FormSection } from '../parts/form/FormSection.tsx';
import { TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { PasswordInput } from './PasswordInput.tsx';
import { refreshPeople } from './queries.ts';
import { Shown } from './Shown.tsx';

const CODE_PIXELS = 176;

interface SureProps {
  readonly title: string;
  readonly action: string;
  readonly onSure: (ownPassword: string) => Promise<unknown>;
  readonly onClose: () => void;
}

/** Asks for the password once more: what follows changes how somebody comes in. */
function SureDialog({ title, action, onSure, onClose }: SureProps) {
  const form = useTyped({ ownPassword: '' });
  return (
    <FormDialog
      title={title}
      form={form}
      action={action}
      ready={form.values.ownPassword !== ''}
      onClose={onClose}
      onSave={({ ownPassword }) => onSure(ownPassword)}
    >
      <PasswordInput
        control={form.control}
        name="ownPassword"
        label="Your password"
        kind="current-password"
        autoFocus
      />
    </FormDialog>
  );
}

interface ConfirmProps {
  readonly factor: NewFactor;
  readonly onCodes: (codes: readonly string[]) => void;
  readonly onClose: () => void;
}

function ConfirmDialog({ factor: { secret, uri }, onCodes, onClose }: ConfirmProps) {
  const form = useTyped({ code: '' });
  return (
    <FormDialog
      title="Set up the authenticator"
      form={form}
      action="Ask for it from now on"
      ready={form.values.code.trim() !== ''}
      onClose={onClose}
      onSave={async ({ code }) => {
        const { items } = await api<Items<string>>('/me/factor', {
          method: 'PUT',
          body: { code: code.trim() },
          real: true,
        });
        onCodes(items);
        await Promise.all([refreshWho(), refreshPeople()]);
      }}
    >
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
        <Box sx={{ bgcolor: '#fff', p: 1, lineHeight: 0 }}>
          <QRCodeSVG value={uri} size={CODE_PIXELS} title="For the camera of your authenticator" />
        </Box>
        <Box sx={{ flex: 1, minWidth: 200 }}>
          <Typography>Take it with the camera of your authenticator, or type this into it:</Typography>
          <Box component="code" sx={{ overflowWrap: 'anywhere', fontSize: 15 }}>
            {secret.match(/.{1,4}/g)?.join(' ')}
          </Box>
        </Box>
      </Box>
      <TextInput
        control={form.control}
        name="code"
        label="The code it shows now"
        max={40}
        required
        more={{ autoComplete: 'one-time-code', helperText: ' ', autoFocus: true }}
      />
    </FormDialog>
  );
}

export function Factor({ me }: { readonly me: Me }) {
  const [step, setStep] = useState<'begin' | 'end' | NewFactor | null>(null);
  const [codes, setCodes] = useState<readonly string[] | null>(null);
  const close = () => setStep(null);
  return (
    <FormSection wide title="Second factor" hint="a code by time, besides the password">
      {codes && (
        <Shown
          says="Ten codes for when the authenticator is lost; each lets in once. Print them, or keep them where you keep passwords. They are shown this once."
          text={codes.join('\n')}
          onDone={() => setCodes(null)}
        />
      )}
      <Box>
        {me.factor
          ? `Asked for. ${me.recovery} recovery ${me.recovery === 1 ? 'code is' : 'codes are'} left.`
          : 'Not asked for: whoever has your password is in.'}
      </Box>
      <Box>
        {me.factor ? (
          <Button onClick={() => setStep('end')}>End it</Button>
        ) : (
          <Button variant="outlined" onClick={() => setStep('begin')}>
            Set one up
          </Button>
        )}
      </Box>
      {step === 'begin' && (
        <SureDialog
          title="Set up a second factor"
          action="Go on"
          onClose={() => setStep((now) => (now === 'begin' ? null : now))}
          onSure={async (ownPassword) =>
            setStep(await api<NewFactor>('/me/factor', { method: 'POST', body: { ownPassword }, real: true }))
          }
        />
      )}
      {step === 'end' && (
        <SureDialog
          title="End the second factor"
          action="End it"
          onClose={close}
          onSure={async (ownPassword) => {
            await api('/me/factor/end', { method: 'POST', body: { ownPassword }, real: true });
            await Promise.all([refreshWho(), refreshPeople()]);
          }}
        />
      )}
      {step !== null && typeof step === 'object' && <ConfirmDialog factor={step} onCodes={setCodes} onClose={close} />}
    </FormSection>
  );
}
