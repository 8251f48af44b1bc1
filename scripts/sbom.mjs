// What Lastmark ships with, as a CycloneDX list: every package with its version and licence. npm run -s sbom [-- FILE]
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { ROOT } from './lib/paths.mjs';

/** Licences that may be shipped with the program. */
const ALLOWED = new Set([
  '0BSD',
  'Apache-2.0',
  'Bitstream-Vera',
  'BlueOak-1.0.0',
  'BSD-2-Clause',
  'BSD-3-Clause',
  'BSL-1.0',
  'CC0-1.0',
  'ISC',
  'LGPL-3.0-or-later',
  'MIT',
  'OFL-1.1',
  'Zlib',
]);
/** Packages that name their licence in a file only. */
const IN_A_FILE = { 'dejavu-fonts-ttf': 'Bitstream-Vera', 'png-js': 'MIT' };

/** Every licence of a component, of an expression each part; empty where none is named. */
export const licencesOf = ({ name, licenses = [] }) => {
  const said = licenses.map(({ license, expression }) => expression ?? license?.id ?? license?.name ?? '');
  const known = said.length > 0 ? said : [IN_A_FILE[name] ?? ''];
  return known.flatMap((one) => one.split(/[()\s]+|\bAND\b|\bOR\b/)).filter(Boolean);
};

/** Components nobody may ship as they stand, a line each. */
export const unfit = (components) =>
  components.flatMap((component) => {
    const licences = licencesOf(component);
    const strange = licences.filter((one) => !ALLOWED.has(one));
    if (licences.length > 0 && strange.length === 0) return [];
    return [`${component.name} ${component.version}: ${strange.join(', ') || 'no licence named'}`];
  });

/** The list, without the parts of the program itself. */
export function billOfMaterials() {
  const text = execFileSync('npm', ['sbom', '--sbom-format', 'cyclonedx', '--omit', 'dev'], {
    cwd: ROOT,
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  const bill = JSON.parse(text);
  const components = bill.components
    .filter(({ purl = '' }) => !purl.startsWith('pkg:npm/%40lastmark/'))
    .map((component) =>
      component.licenses?.length || !IN_A_FILE[component.name]
        ? component
        : { ...component, licenses: [{ license: { name: IN_A_FILE[component.name] } }] },
    );
  return { ...bill, components };
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const bill = billOfMaterials();
  const wrong = unfit(bill.components);
  if (wrong.length > 0) {
    console.error(`Not to be shipped as it stands:\n  ${wrong.join('\n  ')}`);
    process.exitCode = 1;
  } else {
    const text = `${JSON.stringify(bill, null, 2)}\n`;
    const [file] = process.argv.slice(2);
    if (file) writeFileSync(file, text);
    else process.stdout.write(text);
  }
}
