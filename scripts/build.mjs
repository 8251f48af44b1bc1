// npm run build: browser, server and simulated bench, where their sources changed.
import { needBuild } from './lib/build.mjs';

needBuild();
