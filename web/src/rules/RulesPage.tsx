// Rules: the choices of method, and the limit sets with where they come from.
import { type LimitedQuantity, type LimitSet, limitAt, type Piece } from '@lastmark/core/limits';
import { formatPlain, formatValue } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { limitSetsQuery, profileQuery } from '../api/queries.ts';
import { typedSi } from '../parts/fields.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { ProfileForm } from './ProfileForm.tsx';
import { SignalModes } from './SignalModes.tsx';

const QUANTITY_WORDS: Record<LimitedQuantity, string> = {
  'average-efficiency': 'average efficiency, at least',
  'light-load-efficiency': 'efficiency at 10 %, at least',
  'no-load-power': 'no load, at most',
};

/** A piece as a formula: `0.071·ln P − 0.0014·P + 0.67`. */
function formulaOf({ constant, perWatt, perLog }: Piece): string {
  const terms = [
    perLog === 0 ? '' : `${perLog}·ln P`,
    perWatt === 0 ? '' : `${perWatt}·P`,
    constant === 0 && (perLog !== 0 || perWatt !== 0) ? '' : String(constant),
  ].filter(Boolean);
  return terms.join(' + ').replaceAll('+ -', '− ');
}

/** The range of a piece; a formula of one endless piece holds everywhere. */
function rangeOf({ upTo, inclusive }: Piece, alone: boolean): string {
  if (upTo === null) return alone ? 'any' : 'above';
  return `${inclusive ? '≤' : '<'} ${upTo} W`;
}

function SetCard({ set, watts }: { readonly set: LimitSet; readonly watts: number }) {
  return (
    <Box
      component="details"
      sx={{
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        bgcolor: 'background.paper',
        mb: 1,
        '& > summary': { px: 2, py: 1, cursor: 'pointer' },
      }}
    >
      <summary>
        <Box component="span" sx={{ fontWeight: 600 }}>
          {set.title}
        </Box>{' '}
        <Box component="span" sx={{ color: 'text.secondary' }}>
          {set.jurisdiction}, verdict at {mainsLabel(set.mains)}, since {set.validFrom}
          {set.validTo ? ` until ${set.validTo}` : ''}
        </Box>
      </summary>
      <Box sx={{ px: 2, pb: 1.5 }}>
        <Typography variant="body2" color="text.secondary">
          {set.source}. Checked {set.checked}. {set.note}
        </Typography>
        <Table size="small" aria-label={set.title}>
          <TableHead>
            <TableRow>
              {['Quantity', 'Class', 'By nameplate output P, W', `At ${watts} W`].map((head) => (
                <TableCell key={head}>{head}</TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {set.formulas.map(({ quantity, nameplateClass, pieces }) => {
              const at = limitAt(set, quantity, nameplateClass, watts);
              return (
                <TableRow key={`${quantity} ${nameplateClass}`}>
                  <TableCell>{QUANTITY_WORDS[quantity]}</TableCell>
                  <TableCell>{nameplateClass}</TableCell>
                  <TableCell>
                    {pieces.map((piece) => `${rangeOf(piece, pieces.length === 1)}: ${formulaOf(piece)}`).join(' · ')}
                  </TableCell>
                  <TableCell>
                    {at === null
                      ? 'not covered'
                      : quantity === 'no-load-power'
                        ? formatPlain(at, 'power')
                        : formatValue(at, 'efficiency', 3)}
                  </TableCell>
                </TableRow>
              );
            })}
          </TableBody>
        </Table>
      </Box>
    </Box>
  );
}

export function RulesPage() {
  const profile = useQuery(profileQuery);
  const sets = useQuery(limitSetsQuery);
  const [typed, setTyped] = useState('45');
  const watts = typedSi(typed, 'power');
  return (
    <Box sx={{ p: 3, maxWidth: 1180 }}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        Rules
      </Typography>
      <Typography variant="h2" sx={{ mb: 1 }}>
        Method
      </Typography>
      <QueryGate query={profile} what="the method">
        {(found) => <ProfileForm key={found.version} profile={found} />}
      </QueryGate>
      {profile.data && <SignalModes profile={profile.data} />}
      <Box sx={{ display: 'flex', alignItems: 'center', mt: 4, mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Limit sets
        </Typography>
        <TextField
          label="Try a nameplate, W"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          sx={{ width: 170 }}
        />
      </Box>
      <QueryGate query={sets} what="the limit sets">
        {({ items }) => (
          <>
            {items.map((set) => (
              <SetCard key={set.id} set={set} watts={watts && watts > 0 ? watts : 45} />
            ))}
          </>
        )}
      </QueryGate>
      <Typography variant="body2" color="text.secondary">
        Limits are data taken from the texts named. Confirm each against its current text before relying on it.
      </Typography>
    </Box>
  );
}
