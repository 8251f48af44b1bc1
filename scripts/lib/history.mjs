// Doing again what came after a backup.
import { spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { BackupProblem } from './backup-file.mjs';
import { clientFor } from './current.mjs';
import { historyFolder } from './history-folder.mjs';
import { findProgram } from './install.mjs';

const NAME = /^(change-[0-9a-f]+)\.\d{6}$/;

/** A moment as it was typed: with a zone, or by the clock of this machine. @throws BackupProblem */
export function momentOf(text) {
  const at = new Date(text);
  if (Number.isNaN(at.getTime()))
    throw new BackupProblem(`--until "${text}" is no moment. Write it as "2026-11-28 13:00" or 2026-11-28T12:00:00Z.`);
  return at;
}

/** How the program that reads changes wants a moment: by the clock of this machine. */
const localText = (at) => {
  const two = (value) => String(value).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())} ${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}`;
};

/** The files of changes from a place on, oldest first. @throws BackupProblem where some are not there any more */
function filesFrom(folder, { file }) {
  const kept = existsSync(historyFolder(folder))
    ? readdirSync(historyFolder(folder)).filter((name) => NAME.exec(name)?.[1] === NAME.exec(file)?.[1])
    : [];
  const from = kept.sort().filter((name) => name >= file);
  if (from[0] !== file)
    throw new BackupProblem(
      'The changes since this backup are not kept any more. Restore it as it is, without --until, or take a newer backup. Nothing was changed.',
    );
  return from.map((name) => join(historyFolder(folder), name));
}

/**
 * Do again, in a database a backup was loaded into, what was done after the backup and before a moment.
 * @param place where in the changes the backup was made
 * @throws BackupProblem
 */
export async function bringForward(url, folder, place, name, until) {
  const files = filesFrom(folder, place);
  const { args, env, name: own } = clientFor(url);
  const reader = spawn(
    findProgram('mariadb-binlog'),
    [
      '--no-defaults',
      `--start-position=${place.position}`,
      `--stop-datetime=${localText(until)}`,
      `--rewrite-db=${own}->${name}`,
      ...files,
    ],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  );
  const client = spawn(findProgram('mariadb'), [...args, '--binary-mode', '--max-allowed-packet=64M', name], {
    env,
    stdio: [reader.stdout, 'inherit', 'inherit'],
  });
  const ended = (child) => new Promise((done) => child.once('exit', done));
  const [read, done] = await Promise.all([ended(reader), ended(client)]);
  if (read !== 0 || done !== 0)
    throw new BackupProblem(
      'What was done since this backup could not be done again; see the messages above. Nothing was changed.',
    );
}
