// Running one of the scripts a person would run, as a process of its own that gives way to this one.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { SCRIPTS } from '../paths.ts';

export interface Running {
  /** Its status, null where it could not be started, and what it complained of. */
  readonly ended: Promise<{ readonly status: number | null; readonly complaint: string }>;
  /** End it, and the programs it started. */
  readonly stop: () => void;
}

/** @param name of the script, without its ending @param env besides that of this process */
export function runScript(name: string, args: readonly string[], env: Record<string, string>): Running {
  const child = spawn('nice', [process.execPath, join(SCRIPTS, `${name}.mjs`), ...args], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'ignore', 'pipe'],
    // A group of its own, so that all of it can be ended.
    detached: true,
  });
  let complaint = '';
  child.stderr.on('data', (piece) => {
    complaint += piece;
  });
  const ended = new Promise<number | null>((resolve) => {
    child.once('error', (error) => {
      complaint += error.message;
      resolve(null);
    });
    child.once('close', resolve);
  }).then((status) => ({ status, complaint: complaint.trim() }));
  const stop = () => {
    if (child.pid === undefined) return;
    try {
      process.kill(-child.pid, 'SIGTERM');
    } catch {
      // It has ended by itself.
    }
  };
  return { ended, stop };
}
