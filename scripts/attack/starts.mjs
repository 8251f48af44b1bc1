// The whole start command killed, or asked to stop, at many moments of a first start; each is then started again.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from '../lib/paths.mjs';

const START = join(ROOT, 'scripts', 'start.mjs');
const MOMENTS = 32;
const READY_MILLISECONDS = 90_000;

function startOn(folder, benchPort) {
  const env = { ...process.env, LASTMARK_DATA: folder, PORT: '0', DATABASE_URL: '', BENCH_PORT: String(benchPort) };
  const child = spawn('node', [START], { env, stdio: ['ignore', 'pipe', 'pipe'], detached: true });
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (piece) => {
      said += piece;
    });
  const ended = new Promise((resolve) => child.once('exit', (code, signal) => resolve(signal ?? code)));
  const ready = async () => {
    for (let waited = 0; waited < READY_MILLISECONDS; waited += 50) {
      const url = /Lastmark is at {2}(http:\S+)/.exec(said)?.[1];
      if (url) return url;
      if (child.exitCode !== null) break;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error(`It did not start:\n${said}`);
  };
  return { child, ended, ready, said: () => said };
}

/** A signal to the command and all it started; one that has ended by itself is told by how it ended. */
function signalAll({ child }, signal) {
  try {
    process.kill(-child.pid, signal);
  } catch (error) {
    if (error.code !== 'ESRCH') throw error;
  }
}

const left = (folder) =>
  spawnSync('pgrep', ['-f', `datadir=${folder}`], { encoding: 'utf8' })
    .stdout.split('\n')
    .filter(Boolean);

async function shelf(url) {
  const { total } = await (await fetch(`${url}/api/samples`)).json();
  return total;
}

/** @returns how many of the moments ended with a whole start */
export async function attackStarts(say) {
  const fresh = () => mkdtempSync(join(tmpdir(), 'lastmark-attack-'));
  let folder = fresh();
  const began = performance.now();
  const whole = startOn(folder, 5450);
  const total = await shelf(await whole.ready());
  const took = performance.now() - began;
  signalAll(whole, 'SIGINT');
  await whole.ended;
  rmSync(folder, { recursive: true, force: true });
  let good = 0;
  for (let moment = 0; moment < MOMENTS; moment += 1) {
    folder = fresh();
    const signal = moment % 2 === 0 ? 'SIGKILL' : 'SIGINT';
    const after = ((moment + 0.5) / MOMENTS) * took;
    const cut = startOn(folder, 5470);
    await new Promise((resolve) => setTimeout(resolve, after));
    if (signal === 'SIGKILL') cut.child.kill(signal);
    else signalAll(cut, signal);
    const how = await cut.ended;
    const again = startOn(folder, 5490);
    try {
      const found = await shelf(await again.ready());
      if (found === total) good += 1;
      say(`${signal} after ${Math.round(after)} ms (ended ${how}): ${found} of ${total} samples`);
    } catch (error) {
      say(`${signal} after ${Math.round(after)} ms (ended ${how}): ${error.message}`);
    }
    signalAll(again, 'SIGINT');
    await again.ended;
    if (left(folder).length > 0) {
      say('a database process was left behind');
      good -= 1;
    }
    rmSync(folder, { recursive: true, force: true });
  }
  return { good, of: MOMENTS };
}
