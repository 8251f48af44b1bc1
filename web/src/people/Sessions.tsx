// Where one is signed in, and out again from here.
import type { Session } from '@lastmark/contract/people';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { FormSection } from '../parts/form/FormSection.tsx';
import { browserText, momentText } from '../parts/moment.ts';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { useNotify } from '../state/notices.tsx';
import { refreshPeople, sessionsQuery } from './queries.ts';

export function Sessions() {
  const sessions = useQuery(sessionsQuery);
  const notify = useNotify();
  const end = useMutation({
    mutationFn: (id: string | null) =>
      id === null
        ? api('/me/sessions/end-others', { method: 'POST', real: true })
        : api(`/me/sessions/${id}`, { method: 'DELETE', real: true }),
    onSuccess: refreshPeople,
    onError: (error) => notify(error.message),
  });
  return (
    <FormSection wide title="Signed in at" hint="over after 12 hours without use, and after a week">
      <QueryGate query={sessions} what="your sessions">
        {({ items }) => (
          <>
            <QuietTable<Session>
              label="Sessions"
              rows={items}
              rowKey={({ id }) => id}
              columns={[
                { head: 'Browser', cell: ({ browser, own }) => browserText(browser) + (own ? ' (this one)' : '') },
                { head: 'Address', cell: ({ address }) => address },
                { head: 'Last used', cell: ({ seenAt }) => momentText(seenAt) },
                {
                  head: 'Do',
                  cell: ({ id, own, browser }) =>
                    own ? null : (
                      <Button
                        size="small"
                        onClick={() => end.mutate(id)}
                        aria-label={`Sign out ${browserText(browser)}`}
                      >
                        Sign out
                      </Button>
                    ),
                },
              ]}
            />
            {items.length > 1 && (
              <Box>
                <Button onClick={() => end.mutate(null)}>Sign out everywhere else</Button>
              </Box>
            )}
          </>
        )}
      </QueryGate>
    </FormSection>
  );
}
