// A copy of the database before its tables are changed, made by the same script a person would use.
import { join } from 'node:path';
import { DATA } from '../paths.ts';
import { MigrationProblem } from './alone.ts';
import { runScript } from './script.ts';

export interface Upgrade {
  readonly databaseUrl: string;
  readonly upgradeBackup: boolean;
  /** The version that is about to change the tables. */
  readonly version: string;
}

/** Make it, unless the settings say not to. @throws MigrationProblem with why it could not be made */
export async function backUpBeforeUpgrade({ databaseUrl, upgradeBackup, version }: Upgrade): Promise<void> {
  if (!upgradeBackup) return;
  const stamp = new Date().toISOString().replace(/[:.]/g, '-');
  const file = join(DATA, 'backups', `before-${version}-${stamp}.sql.gz`);
  const { status, complaint } = await runScript('db-backup', [file], { DATABASE_URL: databaseUrl }).ended;
  if (status !== 0)
    throw new MigrationProblem(
      `This version changes the tables, and the copy to be made before that failed: ${complaint}\nMend that, or keep a copy of your own and start with LASTMARK_UPGRADE_BACKUP=0.`,
    );
}
