// Instruments of the bench, with their accuracy, their calibration, and whose run has them.
import type { Lease } from '@lastmark/contract/plan';
import type { BenchPlace, StoredInstrument } from '@lastmark/contract/types';
import { SUPPLY_WORDS } from '@lastmark/core/pd';
import { formatPlain } from '@lastmark/core/quantity';
import { type Sees, VISIBLE_KINDS } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { QuietTable } from '../parts/QuietTable.tsx';
import { none } from './none.tsx';
import { describeSpec } from './spec.ts';

const isOverdue = (due: string | null): boolean => due !== null && due < new Date().toISOString().slice(0, 10);

function Due({ due }: { readonly due: string }) {
  return isOverdue(due) ? <Box sx={{ color: 'error.main', fontWeight: 600 }}>▼ overdue since {due}</Box> : due;
}

/** What an analyser can see, by what it cannot: absent then means not visible. */
function seesWords({ supplies, signals }: Sees): string {
  const hidden = VISIBLE_KINDS.filter((kind) => !supplies.includes(kind));
  const modes = `${signals.length} modes outside PD`;
  return hidden.length === 0
    ? `sees every kind of offer, ${modes}`
    : `cannot see ${hidden.map((kind) => SUPPLY_WORDS[kind]).join(', ')}; sees ${modes}`;
}

const ratingWords = ({ volts, amps, watts }: NonNullable<StoredInstrument['ratings']>): string =>
  [
    volts === null ? '' : formatPlain(volts, 'voltage'),
    amps === null ? '' : formatPlain(amps, 'current'),
    watts === null ? '' : formatPlain(watts, 'power'),
  ]
    .filter(Boolean)
    .join(', ');

/** Whether values are read with it, so that its accuracy counts. */
const readsSomething = (one: StoredInstrument): boolean =>
  !one.sees && one.class !== 'thermometer' && one.class !== 'AC source';

/** Whose run has an instrument. */
function InUse({ lease }: { readonly lease: Lease | undefined }) {
  if (!lease) return null;
  return (
    <Box sx={{ fontSize: 13 }}>
      ◆ in use by {lease.person}:{' '}
      <Box component={Link} to={`/runs/${lease.runId}`} sx={{ color: 'text.primary' }}>
        {lease.title}
      </Box>
    </Box>
  );
}

function Accuracy({ of: one }: { readonly of: StoredInstrument }) {
  return (
    <>
      {(['power', 'voltage', 'current'] as const).map((quantity) => {
        const spec = one.specs[quantity];
        return spec && <Box key={quantity}>{`${quantity} ${describeSpec(spec, quantity)}`}</Box>;
      })}
      {readsSomething(one) && Object.keys(one.specs).length === 0 && (
        <Box sx={{ color: 'warning.main', fontWeight: 600 }}>◆ not stated: nothing can be decided with it</Box>
      )}
      {one.sees && seesWords(one.sees)}
      {one.ratings && <Box>takes at most {ratingWords(one.ratings)}</Box>}
    </>
  );
}

/** Where an instrument stands, and louder where nobody can speak to it. */
function Beside({ place }: { readonly place: BenchPlace | undefined }) {
  if (!place) return null;
  return place.there ? (
    place.name || 'this one'
  ) : (
    <Box sx={{ color: 'warning.main', fontWeight: 600 }}>◆ {place.name || 'no bench'}: no server stands beside it</Box>
  );
}

interface Props {
  readonly items: readonly StoredInstrument[];
  readonly benches: readonly BenchPlace[];
  readonly leases: readonly Lease[];
  readonly onChange: (one: StoredInstrument) => void;
  readonly onConsole: (one: StoredInstrument) => void;
}

export function Instruments({ items, benches, leases, onChange, onConsole }: Props) {
  if (items.length === 0) return none('No instruments yet. Readings take their uncertainty from the meters’ accuracy.');
  return (
    <QuietTable<StoredInstrument>
      label="Instruments"
      rows={items}
      rowKey={({ id }) => id}
      exception={({ calibrationDue }) => isOverdue(calibrationDue)}
      columns={[
        {
          head: 'Name',
          cell: ({ id, name }) => (
            <>
              {name}
              <InUse lease={leases.find(({ instrumentId }) => instrumentId === id)} />
            </>
          ),
        },
        {
          head: 'Class',
          cell: (one) => (
            <>
              {one.class}
              {one.firmware && `, firmware ${one.firmware}`}
              {one.address && <Box sx={{ color: 'text.secondary', fontSize: 13 }}>{one.address}</Box>}
            </>
          ),
        },
        ...(benches.length > 1
          ? [
              {
                head: 'Bench',
                cell: ({ bench, address }: StoredInstrument) =>
                  address === null ? null : <Beside place={benches.find(({ name }) => name === bench)} />,
                empty: 'read by eye',
              },
            ]
          : []),
        { head: 'Accuracy', cell: (one) => <Accuracy of={one} /> },
        {
          head: 'Calibration due',
          cell: ({ calibrationDue, calibratedOn }) =>
            calibrationDue === null && !calibratedOn ? null : (
              <>
                {calibrationDue !== null && <Due due={calibrationDue} />}
                {calibratedOn && <Box sx={{ color: 'text.secondary', fontSize: 13 }}>calibrated {calibratedOn}</Box>}
              </>
            ),
          empty: 'not stated',
        },
        {
          head: '',
          cell: (one) => (
            <Box sx={{ whiteSpace: 'nowrap' }}>
              {one.address && (
                <Button size="small" onClick={() => onConsole(one)} aria-label={`Console of ${one.name}`}>
                  Console
                </Button>
              )}
              <Button size="small" onClick={() => onChange(one)} aria-label={`Change ${one.name}`}>
                Change
              </Button>
            </Box>
          ),
        },
      ]}
    />
  );
}
