// Profiles of the simulated bench: a start to copy for instruments of one's own.
import type { InstrumentProfile } from './profile.ts';

export const BUILT_IN: readonly InstrumentProfile[] = [
  {
    title: 'Simulated AC source',
    class: 'AC source',
    commands: {
      volts: 'SOUR:VOLT {volts}',
      hertz: 'SOUR:FREQ {hertz}',
      on: 'OUTP ON',
      off: 'OUTP OFF',
      distortion: 'MEAS:VOLT:THD?',
    },
  },
  {
    title: 'Simulated power analyser',
    class: 'power analyser',
    commands: {
      watts: 'MEAS:POW?',
      volts: 'MEAS:VOLT?',
      powerFactor: 'MEAS:PFAC?',
      all: 'FETC?',
      startEnergy: 'INT:STAR',
      stopEnergy: 'INT:STOP',
      energy: 'INT:ENER?',
      energyTime: 'INT:TIME?',
    },
  },
  {
    title: 'Simulated DC load',
    class: 'DC load',
    commands: {
      channel: 'INST:NSEL {channel}',
      amps: 'CURR {amps}',
      on: 'INP ON',
      off: 'INP:ALL OFF',
      isOn: 'INP:ALL?',
      watchdog: 'INP:WATC {seconds}',
      connect: 'SINK:CONN ON',
      disconnect: 'SINK:CONN OFF',
      request: 'SINK:REQ {position}',
      requestVolts: 'SINK:REQ {position},{volts}',
      volts: 'MEAS:VOLT?',
      current: 'MEAS:CURR?',
      all: 'FETC?',
    },
  },
  {
    title: 'Simulated oscilloscope',
    class: 'oscilloscope',
    commands: {
      channel: 'CHAN:PORT {channel}',
      rate: 'ACQ:RATE {rate}',
      scale: 'WAV:PRE?',
      capture: 'WAV:DATA? {points}',
      mainsScale: 'WAV:MAIN:PRE?',
      mainsVolts: 'WAV:MAIN? VOLT,{points}',
      mainsAmps: 'WAV:MAIN? CURR,{points}',
      inrush: 'WAV:INRU? {points}',
    },
  },
  { title: 'Simulated thermometer', class: 'thermometer', commands: { all: 'MEAS:TEMP?' } },
  {
    title: 'Simulated thermal imager',
    class: 'thermal imager',
    commands: { hottest: 'MEAS:TEMP:MAX? {face}', all: 'FETC?' },
  },
  {
    title: 'Simulated chamber',
    class: 'climate chamber',
    commands: { celsius: 'SOUR:TEMP {celsius}', on: 'OUTP ON', off: 'OUTP OFF', temperature: 'MEAS:TEMP?' },
  },
  {
    title: 'Simulated PD analyser',
    class: 'PD analyser',
    commands: { offers: 'READ:CAP? {channel}', cable: 'READ:CABL?', info: 'READ:INFO? {channel}' },
  },
  {
    title: 'Simulated multimeter',
    class: 'bench multimeter',
    commands: { volts: 'MEAS:VOLT? {channel}', all: 'FETC?' },
  },
  { title: 'Simulated wall meter', class: 'plug-in wall meter', commands: { watts: 'MEAS:POW?' } },
  {
    title: 'Simulated inline meter',
    class: 'inline USB meter',
    commands: { channel: 'CHAN:PORT {channel}', volts: 'MEAS:VOLT?', current: 'MEAS:CURR?', all: 'FETC?' },
  },
];

/** For an instrument whose address is a growing file: its newest line, by what the columns hold. */
export const FOLLOWED: readonly InstrumentProfile[] = [
  {
    title: 'Newest line of a file',
    class: 'inline USB meter',
    // Its lines are of one port: there is no channel to choose.
    commands: { volts: 'LAST:OUT:VOLT?', current: 'LAST:OUT:CURR?', all: 'LAST:OUT?' },
  },
  {
    title: 'Newest line of a file',
    class: 'power analyser',
    commands: { watts: 'LAST:IN:POW?', volts: 'LAST:IN:VOLT?', powerFactor: 'LAST:IN:PFAC?', all: 'LAST:IN?' },
  },
  { title: 'Newest line of a file', class: 'plug-in wall meter', commands: { watts: 'LAST:IN:POW?' } },
  { title: 'Newest line of a file', class: 'thermometer', commands: { all: 'LAST:TEMP?' } },
];
