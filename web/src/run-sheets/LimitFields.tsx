// Limits of this sample, at which every load goes off. Empty takes the bench's.
import type { Sample } from '@lastmark/contract/types';
import { ZERO_CELSIUS } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api } from '../api/client.ts';
import { profileQuery, refreshSample } from '../api/queries.ts';
import { QuantityField } from '../parts/fields.tsx';
import { fromLimitText, LIMIT_FIELDS, toLimitText } from '../parts/limitText.ts';
import { useNotify } from '../state/notices.tsx';

export function LimitFields({ sample }: { readonly sample: Sample }) {
  const notify = useNotify();
  const { data: profile } = useQuery(profileQuery);
  const [text, setText] = useState(() => toLimitText(sample.limits));
  /** What stood there when these fields were filled: a newer save is not overwritten unseen. */
  const [began, setBegan] = useState(sample.etag);
  const save = useMutation({
    mutationFn: () => {
      const limits = fromLimitText(text);
      const none = Object.values(limits).every((value) => value === null);
      return api<Sample>(`/samples/${sample.id}/limits`, {
        method: 'PUT',
        body: { limits: none ? null : limits },
        ifMatch: began,
      });
    },
    onSuccess: async ({ etag }) => {
      setBegan(etag);
      await refreshSample(sample.id);
      notify('Limits of this sample saved.');
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  const hottest = profile?.limits.hottest ?? null;
  return (
    <Box component="details" sx={{ mb: 2 }}>
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        Loads go off at these limits
        {sample.limits
          ? ': this sample has its own'
          : hottest !== null
            ? `: hottest spot ${(hottest - ZERO_CELSIUS).toFixed(0)} °C, as on the whole bench`
            : ''}
      </Box>
      <Box
        component="form"
        onSubmit={submit}
        noValidate
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(150px, 1fr))', gap: 1.5, mt: 1.5 }}
      >
        {LIMIT_FIELDS.map(({ key, label, quantity }) => (
          <QuantityField
            key={key}
            label={label}
            quantity={quantity}
            value={text[key]}
            onChange={(typed) => setText({ ...text, [key]: typed })}
          />
        ))}
        <Button type="submit" variant="outlined" disabled={save.isPending} sx={{ height: 40 }}>
          Save the limits
        </Button>
      </Box>
      {save.error && <Alert severity="error">{save.error.message}</Alert>}
    </Box>
  );
}
