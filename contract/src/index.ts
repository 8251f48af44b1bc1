// The contract between browser and server.
export * from './answers.ts';
export * from './method-schemas.ts';
export * from './openapi.ts';
export * from './plan-schemas.ts';
export * from './plan-types.ts';
export * from './practice-schemas.ts';
export * from './practice-types.ts';
export * from './proof-schemas.ts';
export * from './routes.ts';
export * from './schemas.ts';
export * from './shape.ts';
export * from './types.ts';
export * from './validate.ts';
