import { measureCharges } from './charge.mjs';

await measureCharges();
