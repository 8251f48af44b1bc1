// Asked once per browser of a server that is open to the network: the token that was printed where it was started.
import { lazy, Suspense, useEffect, useState } from 'react';
import { onTokenAsked } from '../api/client.ts';

const DoorDialog = lazy(async () => ({ default: (await import('./DoorDialog.tsx')).DoorDialog }));

export function Door() {
  const [asked, setAsked] = useState(false);
  useEffect(() => onTokenAsked(() => setAsked(true)), []);
  if (!asked) return null;
  return (
    <Suspense fallback={null}>
      <DoorDialog />
    </Suspense>
  );
}
