// Jobs on worker threads, so that the thread that holds the loads has nothing to do but that: a bounded queue a lane, work
// whose client has left is dropped, and what does not fit is refused politely.
import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import { ProblemError } from '../http/problem.ts';
import { WORKER } from '../paths.ts';
import { scopeNow } from '../who/scope.ts';
import { deedNow } from '../who/who.ts';
import { JOBS, type JobName, LANES, type Lane, type Needs, type Result } from './table.ts';
import type { Ended, Task } from './worker.ts';

interface LaneShape {
  readonly threads: number;
  /** Jobs that may wait. */
  readonly waiting: number;
  /** Memory of a thread for what is no raw bytes, MB: more ends the job, not the server. */
  readonly memory: number;
}

const cores = availableParallelism();
const SHAPES: Readonly<Record<Lane, LaneShape>> = {
  screen: { threads: Math.max(1, Math.floor(cores / 4)), waiting: 48, memory: 512 },
  file: { threads: Math.max(1, Math.floor(cores / 4)), waiting: 24, memory: 1024 },
  background: { threads: 1, waiting: 1, memory: 512 },
};
/** Room for what is made and dropped within a job: of ten thousand rows, a thread's usual room is cleared dozens of times. */
const YOUNG_MEGABYTES = 96;
/** A job that takes longer is ended, ms. */
const LONGEST_MILLISECONDS = 120_000;
/** When to try again, s. */
const AGAIN_SECONDS = 2;

const full = () =>
  new ProblemError(503, 'Busy', `Too much is being asked at once. Try again in ${AGAIN_SECONDS} seconds.`, {
    again: AGAIN_SECONDS,
  });
const gone = () => new ProblemError(499, 'Left', 'Whoever asked has left.');
const tooLong = () =>
  new ProblemError(503, 'Too long', 'This took longer than it may and was ended. Nothing was half-saved.');
const tooLarge = () =>
  new ProblemError(413, 'Too large', 'This needs more memory than a job may take. Split it. Nothing was half-saved.');

/** Files go over to the thread whole rather than as a copy; whoever gives one has it to themselves. */
const bytesIn = (needs: object): ArrayBuffer[] =>
  Object.values(needs).flatMap((one: unknown) =>
    one instanceof Uint8Array && one.buffer instanceof ArrayBuffer ? [one.buffer] : [],
  );

interface Waiting {
  readonly start: () => void;
  readonly drop: () => void;
}

/** The threads of every lane. Whoever has several databases may have one set for all: each job says where it is done. */
export type Threads = ReadonlyMap<Lane, Piscina>;

const threadsOf = ({ threads, memory }: LaneShape): Piscina =>
  new Piscina({
    filename: WORKER,
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: 60_000,
    concurrentTasksPerWorker: 1,
    resourceLimits: { maxOldGenerationSizeMb: memory, maxYoungGenerationSizeMb: YOUNG_MEGABYTES },
  });

/** Threads that start as they are needed. */
export const startThreads = (): Threads => new Map(LANES.map((lane) => [lane, threadsOf(SHAPES[lane])]));

class Queue {
  readonly #pool: Piscina;
  readonly #shape: LaneShape;
  #running = 0;
  #waiting: Waiting[] = [];

  constructor(shape: LaneShape, pool: Piscina) {
    this.#shape = shape;
    this.#pool = pool;
  }

  async run(task: Task, signal: AbortSignal | undefined): Promise<Ended> {
    await this.#turn(signal);
    try {
      return (await this.#pool.run(task, {
        signal: AbortSignal.timeout(JOBS[task.name].longest ?? LONGEST_MILLISECONDS),
        transferList: bytesIn(task.needs),
      })) as Ended;
    } catch (error) {
      const { name, code } = error as { name?: string; code?: string };
      if (name === 'AbortError') throw tooLong();
      if (code === 'ERR_WORKER_OUT_OF_MEMORY') throw tooLarge();
      throw error;
    } finally {
      this.#running -= 1;
      this.#waiting.shift()?.start();
    }
  }

  /** Wait for a thread. @throws ProblemError when too many wait already, or who asked has left */
  #turn(signal: AbortSignal | undefined): Promise<void> {
    if (signal?.aborted) return Promise.reject(gone());
    if (this.#running < this.#shape.threads) {
      this.#running += 1;
      return Promise.resolve();
    }
    if (this.#waiting.length >= this.#shape.waiting) return Promise.reject(full());
    return new Promise((resolve, reject) => {
      const left = () => {
        this.#waiting = this.#waiting.filter((one) => one !== own);
        reject(gone());
      };
      const own: Waiting = {
        start: () => {
          signal?.removeEventListener('abort', left);
          this.#running += 1;
          resolve();
        },
        drop: left,
      };
      signal?.addEventListener('abort', left, { once: true });
      this.#waiting.push(own);
    });
  }

  get load(): { readonly running: number; readonly waiting: number } {
    return { running: this.#running, waiting: this.#waiting.length };
  }

  /** What waits is dropped. */
  close(): void {
    for (const one of [...this.#waiting]) one.drop();
  }
}

export class Jobs {
  readonly #queues = new Map<Lane, Queue>();
  readonly #databaseUrl: string;
  readonly #own: Threads | null;
  readonly #going = new Set<Promise<unknown>>();

  /** @param shared threads that are somebody else's to close; its own where left out */
  constructor(databaseUrl: string, shared: Threads | null = null) {
    this.#databaseUrl = databaseUrl;
    this.#own = shared ? null : startThreads();
    for (const [lane, pool] of shared ?? this.#own ?? []) this.#queues.set(lane, new Queue(SHAPES[lane], pool));
  }

  /** How busy each lane is. */
  load(): readonly { readonly lane: Lane; readonly running: number; readonly waiting: number }[] {
    return [...this.#queues].map(([lane, queue]) => ({ lane, ...queue.load }));
  }

  /**
   * Have a job done.
   * @param signal who asked has left: a job that still waits is dropped
   * @throws ProblemError with what the job refused, or that there is too much to do
   */
  async run<N extends JobName>(name: N, needs: Needs<N>, signal?: AbortSignal): Promise<Result<N>> {
    const queue = this.#queues.get(JOBS[name].lane);
    if (!queue) throw new Error(`There is no lane for ${name}.`);
    // Whose work it is goes along: what it writes is written in their name.
    const background = JOBS[name].lane === 'background';
    const deed = (!background && deedNow()) || null;
    const scope = background ? null : scopeNow();
    const going = queue.run({ name, needs, deed, scope, databaseUrl: this.#databaseUrl }, signal);
    this.#going.add(going);
    const ended = await going.finally(() => this.#going.delete(going));
    if ('problem' in ended) throw ProblemError.of(ended.problem);
    return ended.result as Result<N>;
  }

  /** What waits is dropped, what is being done is done. */
  async close(): Promise<void> {
    for (const queue of this.#queues.values()) queue.close();
    await Promise.allSettled(this.#going);
    for (const pool of this.#own?.values() ?? []) await pool.close().catch(() => undefined);
  }
}
