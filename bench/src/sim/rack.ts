// The whole rack: every instrument on its own loopback port, and a control port for what a person does by hand.
import { BATTERIES } from './battery.ts';
import { SimulatedBench } from './bench.ts';
import { RunningClock } from './clock.ts';
import { CLASSES, deviceOf, type InstrumentClass } from './instruments.ts';
import { cablesOn, type RigTruth, SOUND_RIG } from './rig-truth.ts';
import { type Device, FAULTS, type Fault, illegal, numberArg, ScpiServer } from './scpi-server.ts';
import { number } from './surroundings.ts';
import type { CableTruth, ChargerTruth } from './truth.ts';
import { CHARGERS, named } from './world.ts';

export interface RackOptions {
  /** First port; the instruments follow it, the control port is the first. 0 takes any free ports. */
  readonly firstPort: number;
  readonly speed: number;
  readonly seed: number;
  /** Chargers beside those of the world. */
  readonly chargers?: readonly ChargerTruth[] | undefined;
  /** Cables beside those of the world. */
  readonly cables?: readonly CableTruth[] | undefined;
  readonly rig?: RigTruth | undefined;
}

export interface Rack {
  /** Truth, for tests beside the wire; nothing of it is readable over SCPI. */
  readonly bench: SimulatedBench;
  readonly clock: RunningClock;
  readonly ports: Readonly<Record<InstrumentClass | 'control', number>>;
  readonly fault: (kind: InstrumentClass, fault: Fault | 'none') => void;
  readonly close: () => Promise<void>;
}

const unquoted = (text: string | undefined): string => (text ?? '').replace(/^["']|["']$/g, '');

function control(
  chargers: readonly ChargerTruth[],
  cables: readonly CableTruth[],
  bench: SimulatedBench,
  clock: RunningClock,
  fault: (kind: InstrumentClass, fault: Fault | 'none') => void,
): Device {
  return {
    identity: 'Fernwall Workshop,Simulated bench,FW-0000,1.0',
    reset: () => undefined,
    commands: {
      'BENC:CAT?': () => chargers.map(({ name }) => `"${name}"`).join(','),
      'BENC:CHAR': (args) => {
        const found = named(chargers, unquoted(args.join(',')));
        if (!found) throw illegal('no such charger');
        bench.load(found);
        return null;
      },
      'BENC:CHAR?': () => `"${bench.charger.name}"`,
      // What its own display shows of the power it gives, W; nothing on one without a display.
      'BENC:DISP?': () => {
        const { display, ports } = bench.charger;
        const states = ports.map(({ label }) => bench.port(label));
        return display === null
          ? 'NONE'
          : number(states.reduce((sum, { volts, amps }) => sum + volts * amps, 0) * display);
      },
      'BENC:CABL:CAT?': () => cables.map(({ name }) => `"${name.replaceAll('"', "'")}"`).join(','),
      'BENC:CABL': (args) => {
        const wanted = unquoted(args.join(', ').replace(/,\s+/g, ', ')).replaceAll("'", '"');
        const found = named(cables, wanted);
        if (!found) throw illegal('no such cable');
        bench.lay(found);
        return null;
      },
      // Bent so often more; pulled and plugged in again.
      'BENC:CABL:BEND': (args) => {
        bench.laid.bend(numberArg(args, 0, 1, 1_000_000));
        return null;
      },
      'BENC:CABL:BEND?': () => String(bench.laid.bends),
      'BENC:CABL:PLUG': () => {
        bench.laid.plug();
        return null;
      },
      'BENC:SPE': (args) => {
        clock.speed = numberArg(args, 0, 0.1, 3600);
        return null;
      },
      'BENC:SPE?': () => String(clock.speed),
      'BENC:DEV:CAT?': () => BATTERIES.map(({ name }) => `"${name}"`).join(','),
      // Port, device, level: a person plugs a device in. Without a device the port is pulled.
      'BENC:DEV': ([port, device, level]) => {
        const found = named(BATTERIES, unquoted(device));
        if (device !== undefined && !found) throw illegal('no such device');
        if (found) bench.devices.attach(unquoted(port), found, numberArg([level ?? '0'], 0, 0, 1));
        else bench.plug(unquoted(port), false);
        return null;
      },
      // Port, what, on or off.
      'BENC:DEV:DOES': ([port, what, on]) => {
        const part = { screen: 'screenOn', sleep: 'asleep', reverse: 'reversed', hang: 'hung' }[what ?? ''];
        if (!part) throw illegal(`${what}`);
        bench.devices.behave(unquoted(port), { [part]: on === '1' });
        return null;
      },
      'BENC:CUT': () => {
        bench.cutOut();
        return null;
      },
      'BENC:FAUL': (args) => {
        const kind = CLASSES.find((one) => one === args[0]);
        const wanted = [...FAULTS, 'none' as const].find((one) => one === args[1]);
        if (!kind || !wanted) throw illegal(`${args[0]},${args[1]}`);
        fault(kind, wanted);
        return null;
      },
    },
  };
}

/** Start every instrument. */
export async function startRack({
  firstPort,
  speed,
  seed,
  chargers = [],
  cables: more = [],
  rig = SOUND_RIG,
}: RackOptions): Promise<Rack> {
  const clock = new RunningClock(speed);
  const [charger] = CHARGERS;
  const cables = cablesOn(rig, more);
  const [cable] = cables;
  if (!charger || !cable) throw new Error('The world has no charger or no cable.');
  const bench = new SimulatedBench(charger, cable, clock);
  const servers = new Map(
    CLASSES.map((kind) => [kind, new ScpiServer(deviceOf(kind, { bench, clock, seed, drift: rig.drift }))] as const),
  );
  const fault = (kind: InstrumentClass, what: Fault | 'none') => servers.get(kind)?.fault(what);
  const hand = new ScpiServer(control([...CHARGERS, ...chargers], cables, bench, clock, fault));
  if (rig.frozen) fault(rig.frozen, 'freeze');
  const at = (offset: number) => (firstPort === 0 ? 0 : firstPort + offset);
  const ports: Record<string, number> = { control: await hand.listen(at(0)) };
  for (const [index, kind] of CLASSES.entries()) ports[kind] = (await servers.get(kind)?.listen(at(index + 1))) ?? 0;
  return {
    bench,
    clock,
    ports: ports as Rack['ports'],
    fault,
    close: async () => {
      await Promise.all([hand, ...servers.values()].map((server) => server.close()));
    },
  };
}
