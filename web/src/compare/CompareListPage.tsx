// Comparisons somebody keeps.
import type { StoredComparison } from '@lastmark/contract/types';
import { ruleWords } from '@lastmark/core/compare';
import { measureAbout } from '@lastmark/core/measure';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { comparisonsQuery } from './queries.ts';

const measuresWords = ({ measures, own }: StoredComparison): string =>
  measures.map(({ measure }) => own.find(({ id }) => id === measure)?.title ?? measureAbout(measure).title).join(', ');

export function CompareListPage() {
  const query = useQuery(comparisonsQuery);
  return (
    <Page
      title="Compare"
      actions={
        <Button variant="contained" component={Link} to="/compare/new">
          New comparison
        </Button>
      }
    >
      <QueryGate query={query} what="the comparisons">
        {({ items }) =>
          items.length === 0 ? (
            <Typography color="text.secondary">
              Nothing is compared yet. A comparison has a set with a rule, and one condition for all in each measure.
            </Typography>
          ) : (
            <QuietTable<StoredComparison>
              label="Comparisons"
              rows={items}
              rowKey={({ id }) => id}
              columns={[
                {
                  head: 'Comparison',
                  cell: ({ id, title, note }) => (
                    <>
                      <Box
                        component={Link}
                        to={`/compare/${id}`}
                        sx={{ color: 'primary.main', display: 'inline-block', minHeight: 24 }}
                      >
                        {title}
                      </Box>
                      {note && <Box sx={{ fontSize: 13, fontWeight: 400, color: 'text.secondary' }}>{note}</Box>}
                    </>
                  ),
                },
                { head: 'Set', cell: ({ rule }) => ruleWords(rule) },
                { head: 'Samples then', cell: ({ members }) => String(members.length) },
                { head: 'Measures', cell: measuresWords },
                { head: 'Kept', cell: ({ updatedAt }) => updatedAt.slice(0, 10) },
              ]}
            />
          )
        }
      </QueryGate>
    </Page>
  );
}
