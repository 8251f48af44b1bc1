// npm run attack: the long forms of the attacks whose short forms are part of npm test. Loopback only; it ends by itself.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { attackStarts } from './attack/starts.mjs';
import { needBuild } from './lib/build.mjs';
import { needNode, needPackages, needPrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

const wanted = process.argv.slice(2);
const asked = (name) => wanted.length === 0 || wanted.includes(name);

needNode();
needPackages();
needPrograms({ 'mariadb-server': 'mariadbd' });
needBuild();
let failed = 0;
if (asked('api')) {
  say('attacks on the server, long');
  const { status } = spawnSync(
    join(ROOT, 'node_modules', '.bin', 'vitest'),
    [
      'run',
      '--project',
      'api',
      'guards',
      'start-cut-short',
      'restore',
      'hostile',
      'two-servers',
      'benches',
      'collections',
      'silent-database',
    ],
    { cwd: ROOT, stdio: 'inherit', env: { ...process.env, LASTMARK_ATTACK: '1' } },
  );
  if (status !== 0) failed += 1;
}
if (asked('starts')) {
  say('first starts cut short');
  const { good, of } = await attackStarts((text) => console.log(`  ${text}`));
  say(`${good} of ${of} started again with everything there`);
  if (good < of) failed += 1;
}
say(failed === 0 ? 'nothing broke' : `${failed} kinds of attack broke something`);
process.exit(failed === 0 ? 0 : 1);
