// Data: files copied over a cable, how quick each kind was, and what link that proves.
import type { StoredCableRun } from '@lastmark/contract/types';
import { bitsWords, type CopyGroup, rateWords } from '@lastmark/core/copy';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { CableRunList } from '../../cables/CableRunList.tsx';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { FindingList } from '../../parts/FindingList.tsx';
import { barsHeight, figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';
import { CopyDialog } from './CopyDialog.tsx';
import { CopyTableDialog } from './CopyTableDialog.tsx';

const CopyBars = lazy(async () => ({ default: (await import('./CopyBars.tsx')).CopyBars }));

export function DataPage() {
  const { verdict } = useSample();
  const { groups, findings } = verdict.results.data;
  const [open, setOpen] = useState<StoredCableRun | 'new' | 'table' | null>(null);
  return (
    <Box sx={{ maxWidth: 1100 }}>
      <PageHead title="Data">
        <Button variant="outlined" onClick={() => setOpen('table')}>
          Paste a table
        </Button>
        <Button variant="contained" onClick={() => setOpen('new')}>
          Enter copies
        </Button>
      </PageHead>
      {groups.length === 0 ? (
        <EmptyFigure says="Copy a file to the device and back, and type its size and time: how quick it was shows here.">
          <Button variant="outlined" onClick={() => setOpen('new')}>
            Enter copies
          </Button>
        </EmptyFigure>
      ) : (
        <>
          <Later what="the chart" height={figureHeight(barsHeight(groups.length))}>
            <CopyBars />
          </Later>
          <FindingList findings={findings} />
          <Box sx={{ mt: 1.5 }}>
            <QuietTable<CopyGroup>
              label="Copies"
              rows={groups}
              rowKey={({ runIds }) => runIds[0] ?? ''}
              exception={({ errors, fellBack }) => errors > 0 || fellBack}
              columns={[
                {
                  head: 'Files',
                  cell: ({ mix, direction, bends }) =>
                    `${mix}, ${direction}${bends > 0 ? `, after ${bends} bends` : ''}`,
                },
                { head: 'Over', cell: ({ host }) => host },
                { head: 'Mean', number: true, cell: ({ rate }) => rateWords(rate.mean) },
                {
                  head: '95 %',
                  cell: ({ rate }) =>
                    rate.interval &&
                    `${rateWords(Math.max(0, rate.interval[0]))} to ${rateWords(rate.interval[1])}, ${rate.count} copies`,
                  empty: 'copy it again',
                },
                { head: 'Takes a link of', cell: ({ needs }) => needs && `${needs.name} at least` },
                { head: 'Host says', cell: ({ link }) => link !== null && bitsWords(link), empty: 'not noted' },
                { head: 'Failed', number: true, cell: ({ errors }) => (errors > 0 ? String(errors) : '0') },
              ]}
            />
          </Box>
          <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
            A copy is never quicker than its link, and often slower by the drives: it proves a link and never refutes
            one.
          </Typography>
        </>
      )}
      <CableRunList title="Every copy" kind="copy" onCorrect={setOpen} />
      {open === 'table' && <CopyTableDialog onClose={() => setOpen(null)} />}
      {open && open !== 'table' && <CopyDialog run={open === 'new' ? null : open} onClose={() => setOpen(null)} />}
    </Box>
  );
}
