// Loaded into a server that is measured: how late the events of its main thread are, told on SIGUSR2.
import { writeFileSync } from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { isMainThread } from 'node:worker_threads';

if (isMainThread && process.env.LASTMARK_LOOP) {
  const resolution = 5;
  const delay = monitorEventLoopDelay({ resolution });
  delay.enable();
  process.on('SIGUSR2', () => {
    const late = (nanoseconds) => Math.max(0, nanoseconds / 1e6 - resolution);
    writeFileSync(
      process.env.LASTMARK_LOOP,
      JSON.stringify({ p50: late(delay.percentile(50)), p99: late(delay.percentile(99)), longest: late(delay.max) }),
    );
    delay.reset();
  });
}
