// Talking to instruments: SCPI over raw TCP.
export * from './client.ts';
export * from './manner.ts';
export * from './reply.ts';
export * from './watch.ts';
