// What the scripts tell the person who started them.

const started = Date.now();
let write = console.log;

/** Keep stdout for results. */
export function sayOnStderr() {
  write = console.error;
}

/** One line of progress with the seconds since the start. */
export function say(text) {
  const seconds = ((Date.now() - started) / 1000).toFixed(1).padStart(5);
  write(`${seconds} s  ${text}`);
}

/** Say what is wrong and stop. */
export function giveUp(text) {
  console.error(`\n${text}\n`);
  process.exit(1);
}
