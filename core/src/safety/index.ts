// The safety look: what was read and seen, against limits that are data. Never a certificate.
export * from './bond.ts';
export * from './checks.ts';
export * from './describe.ts';
export * from './harmonics.ts';
export * from './lever.ts';
export * from './limits.ts';
export * from './station.ts';
export * from './touch.ts';
