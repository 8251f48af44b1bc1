// The simulated bench: physics, instruments and faults.
export * from './battery.ts';
export * from './bench.ts';
export * from './cables.ts';
export * from './clock.ts';
export * from './faults.ts';
export * from './instruments.ts';
export * from './laid-cable.ts';
export * from './physics.ts';
export * from './rack.ts';
export * from './scpi-server.ts';
export * from './seeded.ts';
export * from './supply-side.ts';
export * from './truth.ts';
export * from './world.ts';
