// Trials this sample was compared in: evidence of its own, for questions no meter answers.
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQueries, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { trialQuery, trialsQuery } from '../../api/queries.ts';
import { trialSays } from '../../trials/trialSays.ts';

const MOST_SHOWN = 5;

export function TrialsOfSample({ sampleId }: { readonly sampleId: string }) {
  const { data } = useQuery(trialsQuery(sampleId));
  const rows = (data?.items ?? []).slice(0, MOST_SHOWN);
  const trials = useQueries({ queries: rows.map(({ id }) => trialQuery(id)) });
  if (rows.length === 0) return null;
  return (
    <Box component="section" aria-label="Trials" sx={{ mb: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        Trials
      </Typography>
      {rows.map(({ id, question, done, planned }, at) => {
        const stored = trials[at]?.data;
        return (
          <Box key={id} sx={{ mb: 1 }}>
            <Box component={Link} to={`/trials/${id}`} sx={{ color: 'primary.main', fontWeight: 600 }}>
              {question}
            </Box>{' '}
            <Box component="span" sx={{ color: 'text.secondary', fontSize: 14 }}>
              {done < planned ? `${done} of ${planned} runs` : `${planned} runs`}
            </Box>
            {stored && trialSays(stored, sampleId).map((sentence) => <Box key={sentence}>{sentence}</Box>)}
          </Box>
        );
      })}
    </Box>
  );
}
