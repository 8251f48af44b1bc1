// Every answer of a test is held against the described shape of its operation; or, when asked, the shapes are learnt anew.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ANSWERS, joined, misfit, type Operation, ROUTES, type Route, type Seen, shapeOf } from '@lastmark/contract';
import type { Handlers } from '../src/http/handlers.ts';

/** Where each test file leaves what it saw, for `npm run answers`; null for tests as usual. */
const LEARN = process.env.LASTMARK_ANSWERS ?? null;
/** Whether what is learnt only widens what is known: for what a test sees only now and then. */
const WIDENS = process.env.LASTMARK_ANSWERS_ADD === 'yes';
/** Larger answers are not gone through: they are lists of what smaller ones show. */
const LARGEST = 3_000_000;
/** An example shows the thing, not all of it. */
const GOOD_EXAMPLE = 1200;
const LONGEST_EXAMPLE = 4000;

const sizeOf = (value: unknown): number => JSON.stringify(value)?.length ?? 0;

/** The better of two examples: the fullest that is short enough. */
const better = (a: unknown, b: unknown): unknown => {
  const [short, long] = sizeOf(a) <= sizeOf(b) ? [a, b] : [b, a];
  return sizeOf(long) <= GOOD_EXAMPLE ? long : short;
};

/** What two looks at one operation saw. */
const both = (a: Seen | undefined, b: Seen): Seen =>
  a === undefined
    ? b
    : {
        shape: joined(a.shape, b.shape),
        example: better(a.example, b.example),
        ...(a.sent === undefined && b.sent === undefined
          ? {}
          : { sent: a.sent === undefined ? b.sent : b.sent === undefined ? a.sent : better(a.sent, b.sent) }),
      };

/** Operations that answer the same thing: how far it has come when it is told is chance. */
const ALIKE: readonly (readonly Operation[])[] = [
  ['getRun', 'startRun', 'resumeRun', 'askOfRun', 'runSimulated'],
  ['getDrill', 'startDrill', 'placeInDrill', 'restartMeters', 'stateVerdict'],
];

/** Join what every test file saw, and write it down. Does nothing in tests as usual. */
export function writeAnswers(): void {
  if (LEARN === null) return;
  const all = new Map<string, Seen>(WIDENS ? Object.entries(ANSWERS as Readonly<Record<string, Seen>>) : []);
  for (const file of readdirSync(LEARN).sort()) {
    const seen = JSON.parse(readFileSync(join(LEARN, file), 'utf8')) as Record<string, Seen>;
    for (const [operation, one] of Object.entries(seen)) all.set(operation, both(all.get(operation), one));
  }
  for (const operations of ALIKE) {
    const shape = operations.flatMap((one) => all.get(one)?.shape ?? []).reduce(joined, {});
    for (const one of operations) {
      const own = all.get(one);
      if (own) all.set(one, { ...own, shape });
    }
  }
  const lines = [...all]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([operation, { shape, example, sent }]) => {
      const short = Object.entries({ example, sent }).filter(
        ([, one]) => one !== undefined && sizeOf(one) <= LONGEST_EXAMPLE,
      );
      return `${JSON.stringify(operation)}: ${JSON.stringify({ shape, ...Object.fromEntries(short) })}`;
    });
  // One operation a line: what changed is seen.
  writeFileSync(new URL('../../contract/src/answers.json', import.meta.url), `{\n${lines.join(',\n')}\n}\n`);
}

export class Answers {
  readonly #name: string;
  readonly #seen = new Map<Operation, Seen>();
  readonly #wrong = new Set<string>();

  /** @param name of the test file */
  constructor(name: string) {
    this.#name = name;
  }

  /** Handlers that show their answers here. */
  watch(handlers: Handlers): Handlers {
    const watched = Object.entries(handlers).map(([operation, handler]) => [
      operation,
      async (call: never) => {
        const answer = await (handler as (call: never) => Promise<{ body?: unknown }>)(call);
        // The description does not describe itself.
        if (operation !== 'openapi' && (ROUTES[operation as Operation] as Route).answers === 'application/json')
          this.#look(operation as Operation, answer.body, (call as { body?: unknown }).body);
        return answer;
      },
    ]);
    return Object.fromEntries(watched) as Handlers;
  }

  /** What answers had another shape than described. */
  get wrong(): readonly string[] {
    return [...this.#wrong];
  }

  #look(operation: Operation, body: unknown, sent: unknown): void {
    if (body === undefined) return;
    const text = body instanceof Uint8Array ? Buffer.from(body).toString() : JSON.stringify(body);
    if (text.length > LARGEST) return;
    const value: unknown = JSON.parse(text);
    const known = ANSWERS[operation];
    if (LEARN === null) {
      const wrong = known ? misfit(known.shape, value) : 'its answer is not described';
      if (wrong) this.#wrong.add(`${operation}: ${wrong}. After a change of answers run: npm run answers`);
      return;
    }
    const one: Seen = { shape: shapeOf(value), example: value, ...(sent === undefined ? {} : { sent }) };
    this.#seen.set(operation, both(this.#seen.get(operation), one));
  }

  /** Keep what was learnt, or say what was wrong. @throws Error for an answer that is described otherwise */
  end(): void {
    if (LEARN !== null) {
      mkdirSync(LEARN, { recursive: true });
      writeFileSync(join(LEARN, `${this.#name}.json`), JSON.stringify(Object.fromEntries(this.#seen)));
    } else if (this.#wrong.size > 0) throw new Error([...this.#wrong].join('\n'));
  }
}
