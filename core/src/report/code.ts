// The code a printed report carries: enough of a hash to know it by, in signs no eye confuses, with one that checks it.

/** Crockford's signs: no I, L, O, U. */
const SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const LENGTH = 15;
/** A prime above the number of signs, so that one wrong sign and two exchanged ones are noticed. */
const PRIME = 31;

const checkOf = (body: string): string => {
  const sum = [...body].reduce((total, sign, at) => (total + SIGNS.indexOf(sign) * (at + 1)) % PRIME, 0);
  return SIGNS[sum] ?? '0';
};

/**
 * The code of what was issued.
 * @param hash SHA-256 as 64 hexadecimal signs
 * @returns `XXXX-XXXX-XXXX-XXXX`, the last sign the check
 * @throws RangeError for what is no hash
 */
export function codeOf(hash: string): string {
  if (!/^[0-9a-f]{64}$/i.test(hash)) throw new RangeError('A hash has 64 hexadecimal signs.');
  let bits = BigInt(`0x${hash}`) >> BigInt(256 - LENGTH * 5);
  let body = '';
  for (let at = 0; at < LENGTH; at += 1) {
    body = `${SIGNS[Number(bits & 31n)] ?? ''}${body}`;
    bits >>= 5n;
  }
  return `${body}${checkOf(body)}`.replace(/(.{4})(?=.)/g, '$1-');
}

/**
 * A code as somebody typed it.
 * @returns the code as it is printed, or why it is none
 * @example readCode('7k2m pq4x 8n3v 5th0') // reads small letters and blanks; O is 0, I and L are 1
 */
export function readCode(text: string): { readonly code: string } | { readonly reason: string } {
  const plain = text
    .toUpperCase()
    .replace(/[\s–—-]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1');
  if (plain.length !== LENGTH + 1) return { reason: `A code has ${LENGTH + 1} signs; this has ${plain.length}.` };
  const strange = [...plain].find((sign) => !SIGNS.includes(sign));
  if (strange !== undefined) return { reason: `“${strange}” stands in no code.` };
  if (checkOf(plain.slice(0, LENGTH)) !== plain[LENGTH])
    return { reason: 'A sign is wrong, or two changed places: compare it with the print.' };
  return { code: plain.replace(/(.{4})(?=.)/g, '$1-') };
}
