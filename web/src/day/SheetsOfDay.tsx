// The run sheets of a day: which are to be done, when their samples are there, and where their soaks stand.
import type { SheetRow } from '@lastmark/contract/plan';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { instrumentsQuery } from '../api/queries.ts';
import { Choice } from '../parts/fields.tsx';
import { sampleName } from '../parts/sampleName.ts';
import { howLong } from '../run-sheets/words.ts';
import { loanWords, MOST_SHEETS, type SheetForm } from './dayForm.ts';

export const nameOfRow = ({ sample }: SheetRow): string => sampleName(sample);

interface Props {
  readonly rows: readonly SheetRow[];
  readonly day: string;
  readonly chosen: readonly SheetForm[];
  readonly onChosen: (chosen: readonly SheetForm[]) => void;
}

interface OneProps {
  readonly name: string;
  readonly own: SheetForm;
  readonly chambers: readonly { readonly value: string; readonly label: string }[];
  readonly onOwn: (own: SheetForm) => void;
}

/** When a sample is there, and where its soaks stand. */
function There({ name, own, chambers, onOwn }: OneProps) {
  const field = (label: string, key: 'from' | 'due') => (
    <TextField
      size="small"
      label={label}
      value={own[key]}
      placeholder="all day"
      onChange={({ target }) => onOwn({ ...own, [key]: target.value })}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { 'aria-label': `${label}: ${name}` } }}
      sx={{ width: 110 }}
    />
  );
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', pl: 4, pb: 1 }}>
      {field('There from', 'from')}
      {field('Back by', 'due')}
      {chambers.length > 0 && (
        <Choice
          label="Soaks in"
          value={own.chamberId}
          options={[{ value: '', label: 'open room' }, ...chambers]}
          onChange={(chamberId) => onOwn({ ...own, chamberId })}
          more={{ size: 'small', sx: { width: 190 } }}
        />
      )}
    </Box>
  );
}

export function SheetsOfDay({ rows, day, chosen, onChosen }: Props) {
  const { data: instruments } = useQuery(instrumentsQuery);
  const chambers = (instruments?.items ?? [])
    .filter(({ class: kind }) => kind === 'climate chamber')
    .map(({ id, name }) => ({ value: id, label: name }));
  const full = chosen.length >= MOST_SHEETS;
  return (
    <Box
      component="fieldset"
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1.5, m: 0, maxHeight: 300, overflow: 'auto' }}
    >
      <Typography component="legend" variant="body2" sx={{ fontWeight: 600 }}>
        Run sheets to be done{full ? `, ${MOST_SHEETS} at most` : ''}
      </Typography>
      {rows.length === 0 && (
        <Typography color="text.secondary">No run sheet is open. Make one at Run sheets, or at Verdict.</Typography>
      )}
      {rows.map((row) => {
        const own = chosen.find(({ sheetId }) => sheetId === row.id);
        const loan = loanWords(row, day);
        return (
          <Box key={row.id}>
            <FormControlLabel
              sx={{ display: 'flex' }}
              label={
                <>
                  {nameOfRow(row)}: {row.title}, {howLong(row.seconds)}
                  {loan && (
                    <Box component="span" sx={{ color: 'error.main', fontWeight: 600 }}>
                      {' '}
                      ▼ {loan}
                    </Box>
                  )}
                </>
              }
              control={
                <Checkbox
                  size="small"
                  checked={own !== undefined}
                  disabled={full && !own}
                  onChange={(event) =>
                    onChosen(
                      event.target.checked
                        ? [...chosen, { sheetId: row.id, from: '', due: '', chamberId: '' }]
                        : chosen.filter(({ sheetId }) => sheetId !== row.id),
                    )
                  }
                />
              }
            />
            {own && (
              <There
                name={nameOfRow(row)}
                own={own}
                chambers={chambers}
                onOwn={(next) => onChosen(chosen.map((one) => (one.sheetId === row.id ? next : one)))}
              />
            )}
          </Box>
        );
      })}
    </Box>
  );
}
