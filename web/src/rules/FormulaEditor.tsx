// One formula of a limit set: its pieces as a grid, its worked values, both checked while typed.
import { QUANTITY_WORDS, type TestOutcome } from '@lastmark/core/limits';
import { formatPlain, parseDecimal } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Choice } from '../parts/fields.tsx';
import { EMPTY_PIECE, type FormulaText, type PieceText } from './limitForm.ts';

interface Props {
  readonly formula: FormulaText;
  readonly tests: readonly TestOutcome[];
  readonly onChange: (formula: FormulaText) => void;
  readonly onRemove: () => void;
}

const COLUMNS = [
  { key: 'upTo', head: 'Up to, W', hint: 'no end' },
  { key: 'perLog', head: '× ln P', hint: '0' },
  { key: 'perWatt', head: '× P', hint: '0' },
  { key: 'constant', head: 'constant', hint: '0' },
] as const satisfies readonly { key: keyof PieceText; head: string; hint: string }[];

export function FormulaEditor({ formula, tests, onChange, onRemove }: Props) {
  const name = `${QUANTITY_WORDS[formula.quantity]}, ${formula.nameplateClass}`;
  const setPiece = (at: number, part: Partial<PieceText>) =>
    onChange({
      ...formula,
      pieces: formula.pieces.map((piece, index) => (index === at ? { ...piece, ...part } : piece)),
    });
  return (
    <Box component="fieldset" sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1.5, m: 0, minWidth: 0 }}>
      <Box component="legend" sx={{ px: 0.5, fontWeight: 600 }}>
        {name}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 110px 1fr 1fr 1fr 40px', gap: 1, alignItems: 'center' }}>
        {formula.pieces.map((piece, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no identity but their place
          <Box key={index} sx={{ display: 'contents' }}>
            {COLUMNS.map(({ key, head, hint }, column) => [
              column === 1 && (
                <Choice
                  key="end"
                  label="End"
                  value={piece.inclusive ? 'included' : 'excluded'}
                  options={['included', 'excluded']}
                  onChange={(chosen) => setPiece(index, { inclusive: chosen === 'included' })}
                  more={{ size: 'small', disabled: piece.upTo.trim() === '' }}
                />
              ),
              <TextField
                key={key}
                size="small"
                label={`${head}, piece ${index + 1}`}
                placeholder={hint}
                error={piece[key].trim() !== '' && Number.isNaN(parseDecimal(piece[key]))}
                value={piece[key]}
                onChange={(event) => setPiece(index, { [key]: event.target.value })}
                slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' }, inputLabel: { shrink: true } }}
              />,
            ])}
            <Button
              size="small"
              aria-label={`Remove piece ${index + 1} of ${name}`}
              disabled={formula.pieces.length === 1}
              onClick={() => onChange({ ...formula, pieces: formula.pieces.filter((_, at) => at !== index) })}
              sx={{ minWidth: 32 }}
            >
              ×
            </Button>
          </Box>
        ))}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button size="small" onClick={() => onChange({ ...formula, pieces: [...formula.pieces, EMPTY_PIECE] })}>
          Add a piece
        </Button>
        <Button size="small" color="error" onClick={onRemove}>
          Remove this formula
        </Button>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5, mt: 1, alignItems: 'start' }}>
        <TextField
          size="small"
          label="Worked values of the text, watts = value"
          placeholder="10 = 0.81948"
          multiline
          minRows={2}
          value={formula.worked}
          onChange={(event) => onChange({ ...formula, worked: event.target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <Box>
          {tests.map(({ test, gives, met }) => (
            <Typography key={`${test.watts} ${test.value}`} variant="body2" color={met ? 'text.primary' : 'error'}>
              {met ? '✓' : '✗'} {formatPlain(test.watts, 'power')}: gives{' '}
              {gives === null ? 'nothing' : gives.toFixed(5)}
              {met ? '' : `, the text says ${test.value}`}
            </Typography>
          ))}
        </Box>
      </Box>
    </Box>
  );
}
