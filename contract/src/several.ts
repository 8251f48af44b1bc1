// Several of one kind in a query: `a,b`.
import { string } from 'yup';

export const several = (of: RegExp, message: string, longest = 400) =>
  string().strict().max(longest).matches(of, message).optional();

const ULID = '[0-9A-HJKMNP-TV-Z]{26}';

/** Ids. @param most how many at once @param things what they are of, in plural */
export const ids = (most: number, things: string) =>
  several(new RegExp(`^${ULID}(,${ULID}){0,${most - 1}}$`), `\${path} are not ids of ${things}`, 27 * most);

/** What a query lists. @example listOf('a,b') // ['a', 'b'] */
export const listOf = (listed: string | undefined): string[] => listed?.split(',') ?? [];
