// npm run lab:export -- FOLDER: everything of the lab in open formats, asked of a running server as any script could: studies of all
// samples with their files and recordings, what is kept at Bench and Rules, methods, comparisons, searches, collections, people by
// name, and the log. lab.json lists the files with their SHA-256.
import { createHash } from 'node:crypto';
import { createWriteStream, existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { giveUp, say } from './lib/say.mjs';

/** As many samples as one study may hold. */
const IN_STUDY = 50;
const PAGE = 100;
/** What is one answer each, and whether everybody may ask it. */
const LISTS = {
  'bench/instruments.json': '/instruments',
  'bench/profiles.json': '/instrument-profiles',
  'bench/rigs.json': '/rigs',
  'bench/devices.json': '/devices',
  'bench/benches.json': '/benches',
  'rules/profile.json': '/profile',
  'rules/limit-sets.json': '/limit-sets',
  'rules/methods.json': '/methods',
  'shelf/comparisons.json': '/comparisons',
  'shelf/searches.json': '/searches',
  'shelf/collections.json': '/collections',
  'shelf/column-maps.json': '/column-maps',
  'shelf/reports.json': '/reports',
  'shelf/trials.json': '/trials',
  'people.json': '/people/names',
};

const [target] = process.argv.slice(2);
if (!target)
  giveUp(
    'Where to? npm run lab:export -- FOLDER (LASTMARK_AT is the address of the server, LASTMARK_TOKEN a file with a token)',
  );
const folder = resolve(target);
if (existsSync(folder) && readdirSync(folder).length > 0)
  giveUp(`${folder} is not empty. Name another: nothing is overwritten.`);
const at = process.env.LASTMARK_AT ?? `http://127.0.0.1:${process.env.PORT ?? 4310}`;
const token = process.env.LASTMARK_TOKEN ? readFileSync(process.env.LASTMARK_TOKEN, 'utf8').trim() : null;
const files = [];

async function ask(path) {
  let answer;
  try {
    answer = await fetch(`${at}/api${path}`, { headers: token ? { Authorization: `Bearer ${token}` } : {} });
  } catch {
    throw new Error(`No server answers at ${at}. Start it, or name its address as LASTMARK_AT.`);
  }
  if (answer.ok) return answer;
  const { detail = '' } = await answer.json().catch(() => ({}));
  if (answer.status === 401)
    throw new Error('People sign in there. Put a token of an admin into a file, and name it as LASTMARK_TOKEN.');
  throw new Error(`${path}: ${answer.status} ${detail}`);
}

/** Write what comes, and note what it is. */
async function keep(name, from) {
  const path = join(folder, name);
  mkdirSync(join(path, '..'), { recursive: true, mode: 0o700 });
  const hash = createHash('sha256');
  let bytes = 0;
  const count = new Transform({
    transform(part, _encoding, done) {
      hash.update(part);
      bytes += part.length;
      done(null, part);
    },
  });
  await pipeline(from, count, createWriteStream(path, { mode: 0o600 }));
  files.push({ name, bytes, sha256: hash.digest('hex') });
}

const text = (value) => Readable.from([`${JSON.stringify(value, null, 2)}\n`]);

/** Every sample, archived ones too, each once. */
async function samples() {
  const found = new Map();
  for (const archived of ['false', 'true'])
    for (let page = 1; ; page += 1) {
      const { items, total } = await (
        await ask(`/samples?size=${PAGE}&page=${page}&sort=name&archived=${archived}`)
      ).json();
      for (const one of items) found.set(one.id, one);
      if (page * PAGE >= total) break;
    }
  return [...found.keys()].sort();
}

async function* logLines() {
  for (let before = ''; before !== null; ) {
    const { items, next } = await (await ask(`/log?size=${PAGE}${before && `&before=${before}`}`)).json();
    for (const entry of items) yield `${JSON.stringify(entry)}\n`;
    before = next;
  }
}

async function main() {
  const { version } = await (await ask('/health')).json();
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  for (const [name, path] of Object.entries(LISTS)) await keep(name, text(await (await ask(path)).json()));
  const ids = await samples();
  for (let from = 0; from < ids.length; from += IN_STUDY) {
    const part = ids.slice(from, from + IN_STUDY);
    const name = `samples/${String(from / IN_STUDY + 1).padStart(4, '0')}.study.zip`;
    await keep(name, Readable.fromWeb((await ask(`/study.zip?samples=${part.join(',')}`)).body));
    say(`${Math.min(from + IN_STUDY, ids.length)} of ${ids.length} samples`);
  }
  await keep('log.jsonl', Readable.from(logLines()));
  const lab = {
    form: 'lastmark lab',
    version: 1,
    made: new Date().toISOString(),
    by: version,
    samples: ids.length,
    files,
  };
  writeFileSync(join(folder, 'lab.json'), `${JSON.stringify(lab, null, 2)}\n`, { mode: 0o600 });
  say(`${ids.length} samples and ${files.length} files in ${folder}`);
}

await main().catch((error) => giveUp(error.message));
