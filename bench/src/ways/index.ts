// The ways to an instrument: a socket, HiSLIP, a serial port, a growing file.
export * from './follow.ts';
export * from './hislip.ts';
export * from './ports.ts';
export * from './serial.ts';
export * from './way.ts';
