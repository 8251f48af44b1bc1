// What the scripts tell the person who started them.

const started = Date.now();

/** One line of progress with the seconds since the start. */
export function say(text) {
  const seconds = ((Date.now() - started) / 1000).toFixed(1).padStart(5);
  console.log(`${seconds} s  ${text}`);
}

/** Say what is wrong and stop. */
export function giveUp(text) {
  console.error(`\n${text}\n`);
  process.exit(1);
}
