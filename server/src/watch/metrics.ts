// Figures for whoever watches the server from outside, in the Prometheus text format.
import type { RequestHandler } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';

/** Bounds of the buckets of an answer's time, s: around what lists, loads off and reports may take. */
const SECONDS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.2, 0.5, 1, 2, 5];

/** What is counted of a server at work. */
export interface Watched {
  readonly jobs: {
    readonly load: () => readonly { readonly lane: string; readonly running: number; readonly waiting: number }[];
  };
  readonly runner: { readonly carried: number };
  readonly live: { readonly listening: number };
  /** Connections to the database in use, and those that wait for one. */
  readonly connections: () => { readonly used: number; readonly waiting: number };
  /** Age of the newest backup, s; null for none, or where none are made. */
  readonly backupAge?: () => number | null;
}

export class Metrics {
  readonly #registry = new Registry();
  readonly #requests: Histogram<'operation' | 'status'>;

  constructor({ jobs, live, runner, connections, backupAge }: Watched) {
    const registers = [this.#registry];
    // Processor, memory, garbage collection, and how late the main thread is.
    collectDefaultMetrics({ register: this.#registry });
    this.#requests = new Histogram({
      name: 'lastmark_request_seconds',
      help: 'Time from the arrival of a request to the end of its answer, by operation and class of status',
      labelNames: ['operation', 'status'],
      buckets: SECONDS,
      registers,
    });
    new Gauge({
      name: 'lastmark_jobs',
      help: 'Jobs on worker threads, by lane: at work and waiting',
      labelNames: ['lane', 'state'],
      registers,
      collect() {
        for (const { lane, running, waiting } of jobs.load()) {
          this.set({ lane, state: 'running' }, running);
          this.set({ lane, state: 'waiting' }, waiting);
        }
      },
    });
    new Gauge({
      name: 'lastmark_runs',
      help: 'Runs this server carries out now',
      registers,
      collect() {
        this.set(runner.carried);
      },
    });
    new Gauge({
      name: 'lastmark_live_listeners',
      help: 'Open streams of live numbers',
      registers,
      collect() {
        this.set(live.listening);
      },
    });
    new Gauge({
      name: 'lastmark_database_connections',
      help: 'Connections to the database in use, and requests that wait for one',
      labelNames: ['state'],
      registers,
      collect() {
        const { used, waiting } = connections();
        this.set({ state: 'used' }, used);
        this.set({ state: 'waiting' }, waiting);
      },
    });
    new Gauge({
      name: 'lastmark_backup_age_seconds',
      help: 'Time since the newest backup that was brought back once and compared',
      registers,
      collect() {
        const age = backupAge?.() ?? null;
        // None is none, not one that is new.
        if (age === null) this.reset();
        else this.set(age);
      },
    });
  }

  /** Times every operation; what is none is counted as "other". */
  readonly measure: RequestHandler = (_request, response, next) => {
    const begun = performance.now();
    response.once('close', () => {
      const operation = typeof response.locals.operation === 'string' ? response.locals.operation : 'other';
      // A stream is open for as long as somebody looks: its time says nothing.
      if (operation === 'live') return;
      const status = `${Math.floor(response.statusCode / 100)}xx`;
      this.#requests.observe({ operation, status }, (performance.now() - begun) / 1000);
    });
    next();
  };

  text(): Promise<string> {
    return this.#registry.metrics();
  }
}
