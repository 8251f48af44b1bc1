// Real devices on the simulated bench: plugged by a person in the place of a load, with what goes wrong about them.
import type { SourceObject } from '@lastmark/core/pd';
import { type Battery, type BatteryTruth, charged, freshBattery } from './battery.ts';
import type { Sink } from './sink.ts';

/** What they need of the bench. */
interface Ports {
  readonly sinks: () => ReadonlyMap<string, Sink>;
  readonly plug: (label: string, plugged: boolean) => void;
  readonly offers: (label: string) => readonly SourceObject[];
  readonly request: (label: string, position: number) => boolean;
  readonly port: (label: string) => { readonly volts: number; readonly amps: number };
}

export class SimulatedDevices {
  readonly #ports: Ports;

  constructor(ports: Ports) {
    this.#ports = ports;
  }

  /** Plug a device in: it asks for the level it wants, or the next below. */
  attach(label: string, truth: BatteryTruth, level: number): void {
    const { plug, sinks, offers, request } = this.#ports;
    plug(label, false);
    plug(label, true);
    const sink = sinks().get(label);
    if (!sink) return;
    sink.battery = freshBattery(truth, level);
    let [position, best] = [1, 0];
    for (const [at, offer] of offers(label).entries()) {
      const volts = offer.kind === 'fixed' ? offer.volts : 0;
      if (volts <= truth.volts * 1.02 && volts > best) [position, best] = [at + 1, volts];
    }
    request(label, position);
  }

  /** What a device does: its screen, its sleep, power the other way, or its meter that hung when it was plugged. */
  behave(label: string, part: { screenOn?: boolean; asleep?: boolean; reversed?: boolean; hung?: boolean }): void {
    const { volts, amps } = this.#ports.port(label);
    const sink = this.#ports.sinks().get(label);
    if (!sink?.battery) return;
    if (part.screenOn !== undefined) sink.battery.screenOn = part.screenOn;
    if (part.asleep !== undefined) sink.battery.asleep = part.asleep;
    if (part.reversed !== undefined) sink.battery.reversed = part.reversed;
    if (part.hung !== undefined) sink.hung = part.hung ? { volts, amps } : null;
  }

  /** The device on a port; null for none. */
  on = (label: string): Battery | null => this.#ports.sinks().get(label)?.battery ?? null;

  /** The port whose line a meter is in: the first with a device. */
  get inLine(): string | null {
    return [...this.#ports.sinks()].find(([, { battery }]) => battery)?.[0] ?? null;
  }

  /** What the meter in a line shows where it hung; null where it moves. */
  hung = (label: string): { readonly volts: number; readonly amps: number } | null =>
    this.#ports.sinks().get(label)?.hung ?? null;

  /** Some seconds on: every device takes what flows. */
  charge(flow: (label: string) => { readonly volts: number; readonly amps: number }, seconds: number): void {
    for (const [label, { battery }] of this.#ports.sinks()) {
      if (!battery) continue;
      const { volts, amps } = flow(label);
      charged(battery, volts * amps, seconds);
    }
  }
}
