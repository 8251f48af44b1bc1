// The demo, filled in once: further stages begin with a copy of its files instead of working it all out again.
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { builtOf } from './build.mjs';
import { copyFilled, FIRST_PORT } from './copy-filled.mjs';
import { startMariadb } from './mariadb.mjs';
import { ROOT } from './paths.mjs';
import { scratch } from './scratch.mjs';
import { forkServer } from './stage.mjs';

const READ_MILLISECONDS = 200;

/** Until every figure on the shelf is made: a copy has nothing left to work out. */
async function untilWorkedOut(port) {
  for (let page = 1; ; ) {
    const { items, total, size } = await (await fetch(`http://127.0.0.1:${port}/api/samples?page=${page}`)).json();
    if (items.some(({ pending }) => pending)) await new Promise((resolve) => setTimeout(resolve, READ_MILLISECONDS));
    else if (page * size >= total) return;
    else page += 1;
  }
}

/** Fill the demo in, the instruments of a simulated bench among it, and stop. @param folder of the database's files */
async function fill(folder) {
  const database = await startMariadb(folder);
  try {
    const { server, exited, port } = await forkServer(database.url, folder, {
      demo: true,
      env: { BENCH_PORT: String(FIRST_PORT) },
    });
    if (port === null) throw new Error('The demo could not be filled in.');
    await untilWorkedOut(port);
    server.kill('SIGTERM');
    await exited;
  } finally {
    await database.stop();
  }
}

/**
 * The demo as what is built now fills it in: once, then kept until something else is built.
 * @returns the folder its files are in, to copy from
 */
export async function filledDemo() {
  const kept = join(ROOT, 'test-results', `demo-${builtOf().slice(0, 16)}`);
  if (existsSync(kept)) return kept;
  const folder = scratch('filled');
  try {
    await fill(folder);
    const results = join(ROOT, 'test-results');
    mkdirSync(results, { recursive: true });
    for (const name of readdirSync(results))
      if (/^demo-[0-9a-f]+$/.test(name) && !kept.endsWith(name))
        rmSync(join(results, name), { recursive: true, force: true });
    // Whole or not there: one that was cut short has another name. Of two at once the first counts.
    const unfinished = `${kept}.${process.pid}`;
    copyFilled(folder, unfinished);
    try {
      renameSync(unfinished, kept);
    } catch (error) {
      rmSync(unfinished, { recursive: true, force: true });
      if (!existsSync(kept)) throw error;
    }
    return kept;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
