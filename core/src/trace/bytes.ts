// Bytes before they are lines: put together, and which of them are UTF-16.

/** Pieces of bytes as one. */
export function joined(pieces: readonly Uint8Array[], length: number): Uint8Array {
  const all = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
}

/** UTF-16, by its mark or by its zeros. */
export function wideOf(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  if (bytes.length > 3 && bytes[1] === 0 && bytes[3] === 0 && bytes[0] !== 0) return 'utf-16le';
  return bytes.length > 3 && bytes[0] === 0 && bytes[2] === 0 && bytes[1] !== 0 ? 'utf-16be' : null;
}
