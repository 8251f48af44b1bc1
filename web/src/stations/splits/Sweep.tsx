// What is left of the sweep, in an order that disturbs least; with one meter only, where it sits.
import { meterMoves, plugOrder, setKey } from '@lastmark/core/split';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useSample } from '../../state/sample.tsx';

const SHOWN = 16;

export function Sweep({ onMeasure }: { readonly onMeasure: (set: readonly string[]) => void }) {
  const { dossier, verdict } = useSample();
  const { sweep, left } = verdict.results.splits;
  const ports = dossier.sample.model.ports.map(({ label }) => label);
  const moves = meterMoves(
    ports,
    left.filter((set) => set.length > 1),
  );
  return (
    <Box component="section" aria-label="Sweep" sx={{ mb: 2 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Sweep: {sweep.sets.length - left.length} of {sweep.sets.length}
      </Typography>
      <Typography color="text.secondary" sx={{ mb: 1 }}>
        {sweep.says}
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
        {left.slice(0, SHOWN).map((set) => (
          <Button
            key={setKey(set)}
            size="small"
            variant="outlined"
            onClick={() => onMeasure(plugOrder(set))}
            aria-label={`Measure ${setKey(set)}`}
          >
            {setKey(set)}
          </Button>
        ))}
        {left.length > SHOWN && <Typography sx={{ alignSelf: 'center' }}>and {left.length - SHOWN} more</Typography>}
      </Box>
      {moves.length > 0 && (
        <Box component="details" sx={{ mt: 1 }}>
          <Box component="summary" sx={{ cursor: 'pointer' }}>
            With one meter: {moves.length} readings, {moves.filter(({ moves: moved }) => moved).length} places of the
            meter
          </Box>
          <Box component="ol" sx={{ m: 0, pl: 3, columns: 2 }}>
            {moves.slice(0, 60).map(({ meterAt, occupied, plug, pull, moves: moved }) => (
              <li key={`${meterAt} ${setKey(occupied)}`}>
                {moved ? <strong>Meter into {meterAt}. </strong> : ''}
                {setKey(occupied)}
                {plug.length > 0 && `, plug ${plug.join(', ')}`}
                {pull.length > 0 && `, pull ${pull.join(', ')}`}
              </li>
            ))}
          </Box>
        </Box>
      )}
    </Box>
  );
}
