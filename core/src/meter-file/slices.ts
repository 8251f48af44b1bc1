// A long text in slices that end at line ends: some milliseconds of reading each, and short-lived memory.

/** Characters a slice has at least. */
const SLICE = 60_000;
/** A line, or a text in quotes that runs over lines, longer than this is cut: it belongs to no meter file. */
const LONGEST_LINE = 100_000;

const QUOTE = 34;

/** Whether a quote opened in a stretch of text stays open at its end. */
function leavesOpen(text: string, from: number, to: number): boolean {
  let open = false;
  for (let at = text.indexOf('"', from); at >= 0 && at < to; at = text.indexOf('"', at + 1)) open = !open;
  return open;
}

/**
 * A file in slices, to be added to a reader one after the other. A cell in quotes may span lines and stays whole, unless
 * its quote has no end.
 * @param least characters of a slice
 * @example [...slicesOf('a\nb\n', 1)] // ['a\n', 'b\n']
 */
export function* slicesOf(text: string, least = SLICE): Generator<string> {
  const quoted = text.includes('"');
  for (let from = 0; from < text.length; ) {
    const most = Math.min(text.length, from + least + LONGEST_LINE);
    let end = text.indexOf('\n', from + least - 1);
    let open = quoted && end >= 0 && end < most && leavesOpen(text, from, end);
    while (open && end >= 0 && end < most) {
      const next = text.indexOf('\n', end + 1);
      for (let at = end; at < Math.min(next < 0 ? most : next, most); at += 1)
        if (text.charCodeAt(at) === QUOTE) open = !open;
      end = next;
    }
    const to = end < 0 || end >= most ? most : end + 1;
    yield text.slice(from, to);
    from = to;
  }
}
