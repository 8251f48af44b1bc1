// Column types shared by the tables.
import { customType, datetime, varchar } from 'drizzle-orm/mysql-core';
import { authorNow } from '../who/who.ts';

/** ULID. */
export const ulidColumn = (name: string) => varchar(name, { length: 26 });

/** UTC moment with milliseconds. */
export const momentColumn = (name: string) => datetime(name, { mode: 'date', fsp: 3 });

/** A JSON value; MariaDB keeps it as checked text and hands text back. */
export const jsonColumn = <T>(name: string) =>
  customType<{ data: T; driverData: string }>({
    dataType: () => 'json',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (value) => (typeof value === 'string' ? JSON.parse(value) : value) as T,
  })(name);

/** Bytes up to 16 MiB. */
export const bytesColumn = (name: string) =>
  customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => 'mediumblob' })(name);

/** Who wrote the row: a person's id, null where people are not told apart. */
export const authorColumn = () => ulidColumn('author').$defaultFn(authorNow as () => string);
