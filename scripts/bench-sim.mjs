// npm run bench-sim: the simulated bench alone, for any SCPI client.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { needBuild } from './lib/build.mjs';
import { needNode, needPackages } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';

needNode();
needPackages();
needBuild();
const bench = spawn('node', [join(ROOT, 'bench', 'dist', 'main.js')], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => bench.kill(signal));
bench.once('exit', (code) => process.exit(code ?? 0));
