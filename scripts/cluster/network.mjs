// A network of its own for each host of the cluster, inside a network of its own for all: nothing outside is touched, and a
// host can be cut off as if its cable were pulled. Needs the rights of root.
import { spawnSync } from 'node:child_process';

const INSIDE = 'LASTMARK_INSIDE';
const NET = '10.77.0';

const run = (program, ...words) => {
  const { status, stderr } = spawnSync(program, words, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${program} ${words.join(' ')}: ${stderr}`);
};
const can = () => spawnSync('unshare', ['--net', '--mount', '--propagation', 'private', 'true']).status === 0;

/**
 * Go on in a network of its own where that is allowed: this very script is run again in it.
 * @returns whether this is inside; where it was run inside, this one ends with its status
 */
export function goInside() {
  if (process.env[INSIDE] === '1') return true;
  if (!can()) return false;
  const { status } = spawnSync(
    'unshare',
    ['--net', '--mount', '--propagation', 'private', process.execPath, ...process.argv.slice(1)],
    { stdio: 'inherit', env: { ...process.env, [INSIDE]: '1' } },
  );
  process.exit(status ?? 1);
}

/** Lay the cables. @returns addresses of the hosts, what each is started within, and ways to cut and mend */
export function layNetwork(hosts) {
  run('mkdir', '-p', '/run/netns');
  run('mount', '-t', 'tmpfs', 'tmpfs', '/run/netns');
  run('ip', 'link', 'set', 'lo', 'up');
  run('ip', 'link', 'add', 'lab', 'type', 'bridge');
  run('ip', 'addr', 'add', `${NET}.254/24`, 'dev', 'lab');
  run('ip', 'link', 'set', 'lab', 'up');
  const addresses = [];
  for (let at = 1; at <= hosts; at += 1) {
    const [space, cable] = [`host${at}`, `cable${at}`];
    run('ip', 'netns', 'add', space);
    run('ip', 'link', 'add', cable, 'type', 'veth', 'peer', 'name', 'eth0', 'netns', space);
    run('ip', 'link', 'set', cable, 'master', 'lab', 'up');
    run('ip', '-n', space, 'addr', 'add', `${NET}.${at}/24`, 'dev', 'eth0');
    run('ip', '-n', space, 'link', 'set', 'eth0', 'up');
    run('ip', '-n', space, 'link', 'set', 'lo', 'up');
    addresses.push(`${NET}.${at}`);
  }
  return {
    addresses,
    within: (at) => ['ip', 'netns', 'exec', `host${at + 1}`],
    cut: (at) => run('ip', 'link', 'set', `cable${at + 1}`, 'down'),
    mend: (at) => run('ip', 'link', 'set', `cable${at + 1}`, 'up'),
  };
}
