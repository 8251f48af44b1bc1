// A folder of a database begun as a copy of one that has the demo.
import { cpSync } from 'node:fs';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';

/** Where the instruments of the simulated bench stand until a stage says where its own are. */
export const FIRST_PORT = 5300;

/** Begin a folder as a copy of a filled one. */
export function copyFilled(filled, folder) {
  for (const part of ['mariadb', 'database.secret'])
    cpSync(join(filled, part), join(folder, part), { recursive: true });
}

/** Say where the simulated bench of a copy stands; null where none stands beside it. */
export async function moveBench(databaseUrl, port) {
  const connection = await createConnection(databaseUrl);
  await connection.query(
    `UPDATE instruments SET address = CONCAT('127.0.0.1:', SUBSTRING_INDEX(address, ':', -1) - ? + ?)
     WHERE address LIKE '127.0.0.1:%'`,
    [FIRST_PORT, port],
  );
  await connection.end();
}
