// What each device took at each port, settled: a row a device, cable and state.
import type { DeviceCell } from '@lastmark/core/charge';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

/** How the device says it fares, by shape and word. */
const MARKS: Readonly<Record<string, string>> = { charging: '●', 'not charging': '○' };

function Cell({ cell }: { readonly cell: DeviceCell }) {
  return (
    <>
      <Box>
        {MARKS[cell.outcome] ?? '◐'} {formatPlain(cell.watts, 'power')}
        {cell.volts === null ? ' at the socket' : ` at ${formatPlain(cell.volts, 'voltage')}`}
      </Box>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
        {cell.outcome}
        {cell.runs > 1 ? `, ${cell.runs} runs` : ''}
      </Box>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{cell.limiter}</Box>
    </>
  );
}

/** A device over one cable, in one state. */
interface GridRow {
  readonly key: string;
  readonly name: string;
  readonly state: string;
  readonly cells: readonly DeviceCell[];
}

const stateOf = ({ lead, workload, battery }: DeviceCell): string =>
  [lead, workload, battery === 'nearly full' ? battery : ''].filter(Boolean).join(', ');

export function Grid() {
  const { dossier, verdict } = useSample();
  const { ports, cells } = verdict.results.devices;
  const rows = dossier.devices.flatMap(({ id, name }): GridRow[] => {
    const own = cells.filter(({ deviceId }) => deviceId === id);
    if (own.length === 0) return [{ key: id, name, state: '', cells: [] }];
    const states = [...new Set(own.map(stateOf))];
    return states.map((state) => ({
      key: `${id} ${state}`,
      name,
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
          cell: ({ cells: own }: GridRow) => {
            const cell = own.find((one) => one.port === port);
            return cell ? <Cell cell={cell} /> : null;
          },
          empty: 'what it takes here',
        })),
      ]}
    />
  );
}
