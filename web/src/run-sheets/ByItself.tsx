// What a run of this sheet does by itself: its conditions, and as a tree what may follow from each step.
import type { StoredSheet } from '@lastmark/contract/plan';
import { branchesOf, type Condition, conditionWords, mostSeconds } from '@lastmark/core/plan';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { ConditionFields } from '../parts/ConditionFields.tsx';
import { fromConditionText, toConditionText } from '../parts/conditionText.ts';
import { howLong } from './words.ts';

type Of = Pick<StoredSheet, 'steps' | 'conditions'>;

function Tree({ steps, conditions }: Of) {
  const nodes = useMemo(
    () =>
      steps.flatMap((step, at) => {
        const branches = branchesOf(conditions, steps, step);
        return branches.length > 0 ? [{ step, number: at + 1, branches }] : [];
      }),
    [steps, conditions],
  );
  if (nodes.length === 0)
    return <Typography color="text.secondary">No step of this sheet depends on how another turns out.</Typography>;
  return (
    <Box
      component="ul"
      aria-label="What may follow"
      tabIndex={0}
      sx={{
        m: 0,
        p: 1.5,
        maxHeight: 320,
        overflow: 'auto',
        listStyle: 'none',
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        bgcolor: 'background.paper',
        fontSize: 14,
        '& ul': { listStyle: 'none', m: 0, mb: 0.75, ml: 1, pl: 0, borderLeft: 2, borderColor: 'divider' },
        '& ul li': { position: 'relative', pl: 2.5, py: 0.25 },
        '& ul li::before': {
          content: '""',
          position: 'absolute',
          left: 0,
          top: 12,
          width: 12,
          borderTop: 2,
          borderColor: 'divider',
        },
      }}
    >
      {nodes.map(({ step, number, branches }) => (
        <li key={step.id}>
          <strong>
            {number} {step.title}
          </strong>
          <ul>
            {branches.map(({ kind, when, then, seconds }) => (
              <li key={kind}>
                If {when}: {then}
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {' '}
                  · {seconds < 0 ? `${howLong(-seconds)} less` : `up to ${howLong(seconds)} more`}
                </Box>
              </li>
            ))}
          </ul>
        </li>
      ))}
    </Box>
  );
}

interface Props extends Of {
  readonly onChange: (conditions: Condition[]) => void;
}

function Editor({ conditions, onChange }: Pick<Props, 'conditions' | 'onChange'>) {
  const [text, setText] = useState(() => toConditionText(conditions));
  const problems: string[] = [];
  const typed = fromConditionText(text, problems);
  const changed = JSON.stringify(typed) !== JSON.stringify(conditions);
  return (
    <>
      <ConditionFields value={text} onChange={(part) => setText({ ...text, ...part })} />
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <Button variant="outlined" disabled={!changed || problems.length > 0} onClick={() => onChange(typed)}>
          Keep the conditions
        </Button>
        <Box role="status" sx={{ color: 'error.main' }}>
          {problems.join(' ')}
        </Box>
      </Box>
    </>
  );
}

export function ByItself({ steps, conditions, onChange }: Props) {
  const most = mostSeconds(conditions, steps);
  return (
    <Box component="details" sx={{ mb: 2 }}>
      <Box component="summary" sx={{ cursor: 'pointer', minHeight: 24 }}>
        By itself:{' '}
        {conditions.length === 0
          ? 'nothing, it goes from step to step'
          : `${conditions.length === 1 ? 'one condition' : `${conditions.length} conditions`}, ${howLong(most)} more at worst`}
      </Box>
      <Box sx={{ display: 'grid', gap: 1.5, mt: 1 }}>
        {conditions.length > 0 && (
          <Box component="ul" aria-label="Conditions" sx={{ m: 0, pl: 2.5 }}>
            {conditions.map((one) => (
              <li key={one.kind}>{conditionWords(one)}</li>
            ))}
          </Box>
        )}
        {conditions.length > 0 && <Tree steps={steps} conditions={conditions} />}
        {/* Kept or taken back, it is typed anew. */}
        <Editor key={JSON.stringify(conditions)} conditions={conditions} onChange={onChange} />
      </Box>
    </Box>
  );
}
