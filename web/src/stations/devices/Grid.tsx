// What each device took at each port, settled: a row a device, cable and state.
import type { DeviceCell } from '@lastmark/core/charge';
import { formatPlain } from '@lastmark/core/quantity';
import { aloneWatts } from '@lastmark/core/split';
import Box from '@mui/material/Box';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

/** How a device says it fares, by shape. */
export const markOf = (outcome: DeviceCell['outcome']): string =>
  outcome === 'charging' ? '●' : outcome === 'not charging' ? '○' : '◐';

function Cell({ cell }: { readonly cell: DeviceCell }) {
  return (
    <>
      <Box>
        {markOf(cell.outcome)} {formatPlain(cell.watts, 'power')}
        {cell.volts === null ? ' at the socket' : ` at ${formatPlain(cell.volts, 'voltage')}`}
      </Box>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
        {cell.outcome}
        {cell.runs > 1 ? `, ${cell.runs} runs` : ''}
      </Box>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{cell.limiter}</Box>
      {cell.message !== '' && <Box sx={{ fontSize: 13 }}>“{cell.message}”</Box>}
    </>
  );
}

/** A device over one cable, in one state. */
interface GridRow {
  readonly key: string;
  readonly name: string;
  /** Most it takes, W; null where no ceiling is on record. */
  readonly most: number | null;
  readonly state: string;
  readonly cells: readonly DeviceCell[];
}

const stateOf = ({ lead, workload, battery }: DeviceCell): string =>
  [lead, workload, battery === 'nearly full' ? battery : ''].filter(Boolean).join(', ');

/** What a run would settle: a device shows at least what it takes, and no more than it can. */
function wouldSettle(most: number | null, promised: number | null): string {
  if (promised === null || most === null) return 'what it takes here';
  return most >= promised
    ? `could prove ${formatPlain(promised, 'power')}`
    : `at least ${formatPlain(most, 'power')} of ${formatPlain(promised, 'power')}`;
}

export function Grid() {
  const { dossier, verdict } = useSample();
  const { ports, cells } = verdict.results.devices;
  const promised = new Map(ports.map((port) => [port, aloneWatts(port, dossier.claims, [])]));
  const rows = dossier.devices.flatMap(({ id, name, ceilings }): GridRow[] => {
    const most = ceilings.length > 0 ? Math.max(...ceilings.map(({ watts }) => watts)) : null;
    const own = cells.filter(({ deviceId }) => deviceId === id);
    if (own.length === 0) return [{ key: id, name, most, state: '', cells: [] }];
    const states = [...new Set(own.map(stateOf))];
    return states.map((state) => ({
      key: `${id} ${state}`,
      name,
      most,
      state,
      cells: own.filter((cell) => stateOf(cell) === state),
    }));
  });
  return (
    <QuietTable<GridRow>
      label="Devices by port"
      rows={rows}
      rowKey={({ key }) => key}
      columns={[
        {
          head: 'Device',
          cell: ({ name, state }) => (
            <>
              {name}
              <Box sx={{ fontSize: 13, fontWeight: 400, color: 'text.secondary' }}>{state}</Box>
            </>
          ),
        },
        ...ports.map((port) => ({
          head: port,
          cell: ({ cells: own, most }: GridRow) => {
            const cell = own.find((one) => one.port === port);
            return cell ? (
              <Cell cell={cell} />
            ) : (
              <span data-empty="">{wouldSettle(most, promised.get(port) ?? null)}</span>
            );
          },
        })),
      ]}
    />
  );
}
