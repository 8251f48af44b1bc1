// Where people are told apart: asks who it is when nobody is signed in, or when a session ended meanwhile.
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef } from 'react';
import { onSignInAsked } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { refreshWho, whoQuery } from '../api/who.ts';
import { useSettings } from '../state/settings.tsx';

const SignInDialog = lazy(async () => ({ default: (await import('../people/SignInDialog.tsx')).SignInDialog }));

export function Door() {
  const { data } = useQuery(whoQuery);
  const { person, change } = useSettings();
  const last = useRef<string | null>(null);
  // Asked again who it is: an answer that was on its way while somebody came in says nothing of now.
  useEffect(() => onSignInAsked(() => void refreshWho()), []);
  const me = data?.me ?? null;
  useEffect(() => {
    if (!me) return;
    last.current = me.id;
    // What is done here is done in this name.
    if (person !== me.name) change({ person: me.name });
  }, [me, person, change]);
  if (!data?.people || me) return null;
  return (
    <Suspense fallback={null}>
      <SignInDialog
        who={data}
        again={last.current !== null}
        onDone={(now) => {
          // Somebody else sits here, or nobody did: everything is asked for anew. The same person goes on where they were.
          if (last.current !== now.id) window.location.reload();
          void refreshWho();
          void queryClient.invalidateQueries();
        }}
      />
    </Suspense>
  );
}
