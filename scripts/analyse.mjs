// npm run -s analyse -- KIND FILE [--json]: the calculations from a shell.
import { pathToFileURL } from 'node:url';
import { analyseProgram } from './lib/analyse-program.mjs';
import { needNode, needPackages } from './lib/install.mjs';
import { sayOnStderr } from './lib/say.mjs';

// What a script reads on stdout is the result and nothing else.
sayOnStderr();
needNode();
needPackages();
await import(pathToFileURL(await analyseProgram()).href);
