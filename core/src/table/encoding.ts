// Text from the bytes of a file, whoever wrote it: by its mark, by its shape, and else as the old Western code page.

const MARKS: readonly (readonly [readonly number[], string])[] = [
  [[0xef, 0xbb, 0xbf], 'utf-8'],
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
];
/** So much is looked at to tell UTF-16 without a mark. */
const LOOKED_AT = 2048;

/** UTF-16 of plain text has a zero in every other place. */
function sixteen(bytes: Uint8Array): string | null {
  const most = Math.min(bytes.length, LOOKED_AT);
  let even = 0;
  let odd = 0;
  for (let at = 0; at < most; at += 1) {
    if (bytes[at] !== 0) continue;
    if (at % 2 === 0) even += 1;
    else odd += 1;
  }
  if (odd > most * 0.3 && even < most * 0.05) return 'utf-16le';
  return even > most * 0.3 && odd < most * 0.05 ? 'utf-16be' : null;
}

/**
 * Decode a file: UTF-8 and UTF-16 by their marks, UTF-16 without one by its zeros, UTF-8 where it is valid, and
 * windows-1252 for everything else. Never throws.
 * @example decodeText(new Uint8Array([0x56, 0xb5])) // 'Vµ'
 */
export function decodeText(bytes: Uint8Array): string {
  const marked = MARKS.find(([mark]) => mark.every((byte, at) => bytes[at] === byte))?.[1] ?? sixteen(bytes);
  if (marked) return new TextDecoder(marked).decode(bytes).replace(/^\ufeff/, '');
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
