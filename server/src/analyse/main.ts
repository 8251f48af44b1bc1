// `npm run -s analyse -- KIND FILE`: the calculations of the app from a shell. Figures on stdout, faults on stderr with their
// line and exit status 2.
import { readInput } from './input.ts';
import { analysePackage } from './judge.ts';
import { analyse } from './kinds.ts';
import { type Options, readOptions, USAGE, UsageError } from './options.ts';
import { analyseResistance } from './resistance.ts';

const REFUSED = 2;

function refuse(text: string): void {
  process.stderr.write(`${text}\n`);
  process.exitCode = REFUSED;
}

/** Words for a file that cannot be opened. */
const why = (error: unknown, file: string): string => {
  const code = (error as { code?: string }).code;
  if (code === 'ENOENT') return `There is no file ${file}.`;
  if (code === 'EACCES') return `${file} may not be read.`;
  if (code === 'EISDIR') return `${file} is a folder.`;
  return error instanceof Error ? error.message : `${file} cannot be read.`;
};

async function main(args: readonly string[]): Promise<void> {
  if (args.includes('--help') || args.includes('-h')) {
    process.stdout.write(`${USAGE}\n`);
    return;
  }
  const options = readOptions(args);
  if (options.kind === 'resistance') {
    const made = await analyseResistance(options).catch((error: unknown) => why(error, options.file));
    if (typeof made === 'string') return refuse(made);
    return print(options, made);
  }
  if (options.kind === 'judge') {
    const made = await analysePackage(options).catch((error: unknown) => why(error, options.file));
    if (typeof made === 'string') return refuse(made);
    return print(options, made);
  }
  const reading = await readInput(options).catch((error: unknown) => why(error, options.file));
  if (typeof reading === 'string') return refuse(reading);
  if (!reading.ok)
    return refuse(
      `${reading.line === null ? options.file : `${options.file}, line ${reading.line}`}: ${reading.reason}`,
    );
  print(options, analyse(reading.trace, options));
}

function print({ file, json }: Options, made: ReturnType<typeof analyse>): void {
  if ('reason' in made) refuse(`${file}: ${made.reason}`);
  else process.stdout.write(json ? `${JSON.stringify(made.figures)}\n` : `${made.says.join('\n')}\n`);
}

main(process.argv.slice(2)).catch((error: unknown) => {
  if (error instanceof UsageError) refuse(`${error.message}\n\n${USAGE}`);
  else throw error;
});
