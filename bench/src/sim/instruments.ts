// The instruments of the simulated bench: each a handful of SCPI commands around the one physics.

import { encodeInfo, wordText } from '@lastmark/core/pd';
import { seededRandom } from '@lastmark/core/random';
import { oscilloscope } from './oscilloscope.ts';
import { type Device, illegal, numberArg, switchArg } from './scpi-server.ts';
import { celsius, identity, meter, number, type Surroundings } from './surroundings.ts';

/** Every class of instrument, in the order of their ports. */
export const CLASSES = [
  'ac-source',
  'power-analyser',
  'dc-load',
  'oscilloscope',
  'thermometer',
  'thermal-imager',
  'chamber',
  'pd-analyser',
  'multimeter',
  'wall-meter',
  'inline-meter',
] as const;
export type InstrumentClass = (typeof CLASSES)[number];

function acSource({ bench }: Surroundings): Device {
  const off = { on: false, volts: 230, hertz: 50 };
  return {
    identity: identity('AC source'),
    reset: () => bench.setSupply(off),
    commands: {
      'SOUR:VOLT': (args) => {
        bench.setSupply({ volts: numberArg(args, 0, 0, 300) });
        return null;
      },
      'SOUR:VOLT?': () => number(bench.supply.volts),
      'SOUR:FREQ': (args) => {
        bench.setSupply({ hertz: numberArg(args, 0, 0, 400) });
        return null;
      },
      'SOUR:FREQ?': () => number(bench.supply.hertz),
      OUTP: (args) => {
        bench.setSupply({ on: switchArg(args, 0) });
        return null;
      },
      'OUTP?': () => (bench.supply.on ? '1' : '0'),
      'MEAS:VOLT:THD?': () => number(0.006),
    },
  };
}

function powerAnalyser({ bench, clock, seed }: Surroundings): Device {
  const watts = meter(seed, 1, { gain: 0.0006, offset: 0.001, noise: 0.002, step: 0.0001 });
  const volts = meter(seed, 2, { gain: 0.0005, offset: 0.01, noise: 0.02, step: 0.001 });
  const factor = meter(seed, 3, { gain: 0.001, offset: 0, noise: 0.0006, step: 0.0001 });
  const energyGain = 1 + (seededRandom(seed * 101 + 4)() * 2 - 1) * 0.0008;
  let since: { at: number; joules: number } | null = null;
  let kept: { seconds: number; joules: number } = { seconds: 0, joules: 0 };
  const integral = () => {
    if (since) kept = { seconds: clock.now() - since.at, joules: (bench.energy() - since.joules) * energyGain };
    return kept;
  };
  return {
    identity: identity('Power analyser'),
    reset: () => {
      since = null;
      kept = { seconds: 0, joules: 0 };
    },
    commands: {
      'MEAS:POW?': () => number(watts(bench.input().watts)),
      'MEAS:VOLT?': () => number(volts(bench.supply.on ? bench.supply.volts : 0)),
      'MEAS:CURR?': () => number(bench.input().amps * 1.0004),
      'MEAS:PFAC?': () => number(factor(bench.input().powerFactor)),
      'MEAS:CURR:CRES?': () => number(bench.input().crest),
      // Instrument time, W, V, A, power factor: what a run reads ten times a second.
      'FETC?': () => {
        const { watts: truth, amps, powerFactor } = bench.input();
        return [clock.now(), watts(truth), volts(bench.supply.on ? bench.supply.volts : 0), amps, factor(powerFactor)]
          .map(number)
          .join(',');
      },
      'INT:STAR': () => {
        since = { at: clock.now(), joules: bench.energy() };
        return null;
      },
      'INT:STOP': () => {
        integral();
        since = null;
        return null;
      },
      'INT:ENER?': () => number(integral().joules / 3600),
      'INT:TIME?': () => number(integral().seconds),
    },
  };
}

function dcLoad({ bench, clock, seed }: Surroundings): Device {
  const volts = meter(seed, 11, { gain: 0.0004, offset: 0.003, noise: 0.0006, step: 0.0001 });
  const amps = meter(seed, 12, { gain: 0.0007, offset: 0.002, noise: 0.0005, step: 0.0001 });
  let channel = 0;
  // The load's own watchdog, in real time: nobody speaks to it any more, so it goes off.
  let silence = 0;
  let timer: NodeJS.Timeout | null = null;
  const heard = () => {
    if (timer) clearTimeout(timer);
    timer = silence > 0 ? setTimeout(() => bench.loadsOff(), silence * 1000).unref() : null;
  };
  const label = () => {
    const found = bench.charger.ports[channel]?.label;
    if (found === undefined) throw illegal(`channel ${channel + 1}`);
    return found;
  };
  const set = (amperes: number) => {
    bench.setLoad(label(), { amps: amperes });
    return null;
  };
  return {
    identity: identity('DC load'),
    reset: () => {
      bench.loadsOff();
      for (const { label: port } of bench.charger.ports) bench.plug(port, false);
      channel = 0;
      silence = 0;
    },
    heard,
    commands: {
      'INP:WATC': (args) => {
        silence = numberArg(args, 0, 0, 600);
        heard();
        return null;
      },
      'INP:WATC?': () => String(silence),
      'INST:COUN?': () => String(bench.charger.ports.length),
      'INST:NSEL': (args) => {
        channel = numberArg(args, 0, 1, bench.charger.ports.length) - 1;
        return null;
      },
      'INST:NSEL?': () => String(channel + 1),
      CURR: (args) => set(numberArg(args, 0, 0, 6)),
      INP: (args) => {
        bench.setLoad(label(), { on: switchArg(args, 0) });
        return null;
      },
      'INP?': () => (bench.isOn(label()) ? '1' : '0'),
      'INP:ALL': (args) => {
        if (switchArg(args, 0)) throw illegal('loads go on one by one');
        bench.loadsOff();
        return null;
      },
      // How many channels are on.
      'INP:ALL?': () => String(bench.charger.ports.filter(({ label: port }) => bench.isOn(port)).length),
      'MEAS:VOLT?': () => number(volts(bench.port(label()).endVolts)),
      'MEAS:CURR?': () => number(amps(bench.port(label()).amps)),
      // Instrument time, then V and A of every channel.
      'FETC?': () =>
        [
          clock.now(),
          ...bench.charger.ports.flatMap(({ label: port }) => {
            const { endVolts, amps: truth } = bench.port(port);
            return [volts(endVolts), amps(truth)];
          }),
        ]
          .map(number)
          .join(','),
      'SINK:CONN': (args) => {
        bench.plug(label(), switchArg(args, 0));
        return null;
      },
      // Position in the list of offers and, for a range, volts.
      'SINK:REQ': (args) => {
        const position = numberArg(args, 0, 1, 15);
        const at = args[1] === undefined ? null : numberArg(args, 1, 3, 50);
        if (!bench.request(label(), position, at)) throw illegal(`request ${position} refused`);
        return null;
      },
    },
  };
}

function thermometer({ bench, seed }: Surroundings): Device {
  const channel = meter(seed, 31, { gain: 0, offset: 0.4, noise: 0.05, step: 0.1 });
  return {
    identity: identity('Thermometer, 8 points'),
    reset: () => undefined,
    commands: {
      // Room, front, back, side; the rest is open.
      'MEAS:TEMP?': () => {
        const { front, back, side } = bench.faces();
        const points = [bench.room, front, back, side].map((kelvin) => number(channel(celsius(kelvin))));
        return [...points, ...Array<string>(4).fill('9.91E37')].join(',');
      },
    },
  };
}

function thermalImager({ bench, seed }: Surroundings): Device {
  const shown = meter(seed, 41, { gain: 0.01, offset: 1, noise: 0.2, step: 0.1 });
  return {
    identity: identity('Thermal imager'),
    reset: () => undefined,
    commands: {
      'MEAS:TEMP:MAX?': (args) => {
        const faces = bench.faces();
        const word = (args[0] ?? '').toUpperCase();
        const face = word.startsWith('FRON')
          ? faces.front
          : word === 'BACK'
            ? faces.back
            : word === 'SIDE'
              ? faces.side
              : null;
        if (face === null) throw illegal(word);
        return number(shown(celsius(face)));
      },
      'FETC?': () => {
        const { front, back, side } = bench.faces();
        return [front, back, side].map((kelvin) => number(shown(celsius(kelvin)))).join(',');
      },
    },
  };
}

function chamber({ bench }: Surroundings): Device {
  let target = 25;
  let on = false;
  const apply = () => bench.setRoom(273.15 + (on ? target : 24.5));
  return {
    identity: identity('Climate chamber'),
    reset: () => {
      target = 25;
      on = false;
      apply();
    },
    commands: {
      'SOUR:TEMP': (args) => {
        target = numberArg(args, 0, -20, 60);
        apply();
        return null;
      },
      'SOUR:TEMP?': () => number(target),
      OUTP: (args) => {
        on = switchArg(args, 0);
        apply();
        return null;
      },
      'MEAS:TEMP?': () => number(celsius(bench.room)),
    },
  };
}

function pdAnalyser({ bench }: Surroundings): Device {
  const labelOf = (args: readonly string[]) => {
    const index = numberArg(args, 0, 1, bench.charger.ports.length) - 1;
    return bench.charger.ports[index]?.label ?? '';
  };
  return {
    identity: identity('PD analyser'),
    reset: () => undefined,
    commands: {
      // Offers of a port as words, in the state the bench is in.
      'READ:CAP?': (args) => bench.words(labelOf(args)).map(wordText).join(',') || '0',
      'READ:SIGN?': (args) => bench.signals(labelOf(args)).join(',') || '0',
      // What the port states of its own power.
      'READ:INFO?': (args) => {
        const info = bench.info(labelOf(args));
        return info ? wordText(encodeInfo(info)) : '0';
      },
      'READ:CABL?': () => bench.cable.marker.join(',') || '0',
    },
  };
}

function multimeter({ bench, clock, seed, drift = 1 }: Surroundings): Device {
  const own = meter(seed, 51, { gain: 0.00015, offset: 0.001, noise: 0.0002, step: 0.0001 });
  const volts = (truth: number) => own(truth * drift);
  return {
    identity: identity('Bench multimeter'),
    reset: () => undefined,
    commands: {
      'MEAS:VOLT?': (args) => {
        const index = args[0] === undefined ? 0 : numberArg(args, 0, 1, bench.charger.ports.length) - 1;
        return number(volts(bench.port(bench.charger.ports[index]?.label ?? '').volts));
      },
      // Instrument time, then V of every port.
      'FETC?': () =>
        [clock.now(), ...bench.charger.ports.map(({ label }) => volts(bench.port(label).volts))].map(number).join(','),
    },
  };
}

function wallMeter({ bench, seed }: Surroundings): Device {
  const watts = meter(seed, 61, { gain: 0.008, offset: 0.05, noise: 0.03, step: 0.1 });
  return {
    identity: identity('Plug-in wall meter'),
    reset: () => undefined,
    commands: {
      'MEAS:POW?': () => {
        const truth = bench.input().watts;
        // Below its floor it shows nothing at all.
        return number(truth < 0.2 ? 0 : watts(truth));
      },
    },
  };
}

function inlineMeter({ bench, clock, seed }: Surroundings): Device {
  const volts = meter(seed, 71, { gain: 0.0004, offset: 0.004, noise: 0.0007, step: 0.001 });
  const amps = meter(seed, 72, { gain: 0.0012, offset: 0.003, noise: 0.0007, step: 0.001 });
  let channel = 0;
  // It is in the line of the port it is set to, or of the one a device hangs on.
  const label = () => bench.devices.inLine ?? bench.charger.ports[channel]?.label ?? '';
  const state = () => bench.port(label());
  return {
    identity: identity('Inline USB meter'),
    reset: () => {
      channel = 0;
    },
    commands: {
      'CHAN:PORT': (args) => {
        channel = numberArg(args, 0, 1, bench.charger.ports.length) - 1;
        return null;
      },
      'MEAS:VOLT?': () => number(volts(state().volts)),
      'MEAS:CURR?': () => number(amps(state().amps)),
      'FETC?': () => {
        const hung = bench.devices.hung(label());
        if (hung) return [clock.now(), hung.volts, hung.amps].map(number).join(',');
        const { volts: v, amps: a } = state();
        return [clock.now(), volts(v), amps(a)].map(number).join(',');
      },
    },
  };
}

const MAKERS: Readonly<Record<InstrumentClass, (around: Surroundings) => Device>> = {
  'ac-source': acSource,
  'power-analyser': powerAnalyser,
  'dc-load': dcLoad,
  oscilloscope,
  thermometer,
  'thermal-imager': thermalImager,
  chamber,
  'pd-analyser': pdAnalyser,
  multimeter,
  'wall-meter': wallMeter,
  'inline-meter': inlineMeter,
};

/** An instrument of a class around a bench. */
export const deviceOf = (kind: InstrumentClass, around: Surroundings): Device => MAKERS[kind](around);
