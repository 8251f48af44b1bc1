// Holds the layout: imports go one way, and the core has no clock, no chance and no outside world.
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOT } from './lib/paths.mjs';

const filesBelow = (folder) =>
  readdirSync(join(ROOT, folder), { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name))
    .map((entry) => relative(ROOT, join(entry.parentPath, entry.name)));

const importsOf = (file) =>
  [...readFileSync(join(ROOT, file), 'utf8').matchAll(/(?:from|import)\s*\(?\s*'([^'\s]+)'/g)].map(
    ([, target]) => target,
  );

const isTest = (file) => /\.test\.tsx?$|\/testing\/|^server\/test\//.test(file);

/** What each part may import besides its own files. */
const ALLOWED = {
  core: /^(papaparse|ml-matrix|fft\.js|mathjs$|@stdlib\/)/,
  bench: /^(@lastmark\/core\/|node:|serialport$)/,
  contract: /^(@lastmark\/core\/|yup$)/,
  server: /^(?!@lastmark\/(web|server))/,
  web: /^(?!@lastmark\/(server|web)|node:|express|drizzle|mysql2)/,
};

/** Packages that a package we use asks us for, or whose files are read. */
const WANTED_OTHERWISE = ['@emotion/styled', 'dejavu-fonts-ttf'];

describe.each(Object.entries(ALLOWED))('%s', (part, allowed) => {
  const sources = filesBelow(`${part}/src`).filter((file) => !isTest(file));

  it('has sources', () => expect(sources.length).toBeGreaterThan(3));

  it('imports only what it may', () => {
    const wrong = sources.flatMap((file) =>
      importsOf(file)
        .filter((target) =>
          target.startsWith('.')
            ? relative(ROOT, join(ROOT, file, '..', target)).split('/')[0] !== part
            : !allowed.test(target),
        )
        .map((target) => `${file} imports ${target}`),
    );
    expect(wrong).toEqual([]);
  });

  it('asks for no package that it does not import: whoever installs waits for each', () => {
    const { dependencies = {} } = JSON.parse(readFileSync(join(ROOT, part, 'package.json'), 'utf8'));
    const imported = sources.flatMap(importsOf);
    const idle = Object.keys(dependencies).filter(
      (name) => !WANTED_OTHERWISE.includes(name) && !imported.some((target) => `${target}/`.startsWith(`${name}/`)),
    );
    expect(idle).toEqual([]);
  });
});

/** A file a newcomer reads in one go, lines. */
const LONGEST = 400;

it('no file is longer than somebody reads in one go', () => {
  const long = [...Object.keys(ALLOWED).flatMap((part) => filesBelow(part)), ...filesBelow('e2e')]
    .filter((file) => !/node_modules|\/dist\//.test(file))
    .map((file) => ({ file, lines: readFileSync(join(ROOT, file), 'utf8').split('\n').length - 1 }))
    .filter(({ lines }) => lines > LONGEST);
  expect(long).toEqual([]);
});

/** Folders of a part with the folders they import from, tests left out. */
function folderImports(part) {
  const graph = new Map();
  for (const file of filesBelow(`${part}/src`).filter((one) => !isTest(one))) {
    const folder = file.split('/')[2];
    const own = graph.get(folder) ?? new Set();
    graph.set(folder, own);
    for (const target of importsOf(file).filter((one) => one.startsWith('.'))) {
      const other = relative(ROOT, join(ROOT, file, '..', target)).split('/')[2];
      if (other !== folder) own.add(other);
    }
  }
  return graph;
}

/** A way from a folder back to itself, if there is one. */
function circleFrom(graph, start) {
  const seen = new Set();
  const visit = (folder, way) => {
    for (const next of graph.get(folder) ?? []) {
      if (next === start) return [...way, next];
      if (seen.has(next)) continue;
      seen.add(next);
      const found = visit(next, [...way, next]);
      if (found) return found;
    }
    return null;
  };
  return visit(start, [start]);
}

it.each(['core', 'bench', 'contract', 'server', 'web'])('folders of %s import in no circles', (part) => {
  const graph = folderImports(part);
  expect(graph.size).toBeGreaterThan(1);
  expect([...graph.keys()].flatMap((folder) => circleFrom(graph, folder)?.join(' → ') ?? [])).toEqual([]);
});

it('the core is pure: no clock, no chance, no input or output', () => {
  const impure =
    /\bDate\.now\(|\bnew Date\(\)|\bMath\.random\(|\bfetch\(|\bprocess\.|\bconsole\.|\bwindow\.|\bdocument\./;
  const found = filesBelow('core/src').filter(
    (file) => !isTest(file) && impure.test(readFileSync(join(ROOT, file), 'utf8')),
  );
  expect(found).toEqual([]);
});

it('the first view needs neither the calculations nor the schemas', () => {
  const eager = new Set();
  const visit = (file) => {
    if (eager.has(file)) return;
    eager.add(file);
    const text = readFileSync(join(ROOT, file), 'utf8');
    for (const [, target] of text.matchAll(/^(?:import|export)(?! type)[^'"]*?from '(\.[^']+)'/gm))
      visit(relative(ROOT, join(ROOT, file, '..', target)));
  };
  visit('web/src/main.tsx');
  const heavy = /^import (?!type)[^;]*'@lastmark\/(core\/(verdict|claim|efficiency)|contract\/schemas)'/m;
  expect([...eager].filter((file) => heavy.test(readFileSync(join(ROOT, file), 'utf8')))).toEqual([]);
  expect(eager.size).toBeGreaterThan(10);
});
