// A server that is open to the network asks each browser once for its token.
import { rmSync } from 'node:fs';
// @ts-expect-error plain script without types
import { startMariadb } from '../scripts/lib/mariadb.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../scripts/lib/stage.mjs';
import { expect, test, wallCharger } from './bench.ts';

test('the token is asked for, a wrong one is refused, and this browser is asked once', async ({ page, browser }) => {
  const folder = scratch('door');
  const database = await startMariadb(folder);
  const env = { HOST: '0.0.0.0', LASTMARK_TOKEN: 'hut-31-open', LASTMARK_HOSTS: '127.0.0.2' };
  const { server, exited, port } = await forkServer(database.url, folder, { env });
  const url = `http://127.0.0.1:${port}`;
  try {
    await page.goto(url);
    const dialog = page.getByRole('dialog', { name: 'This bench is open to the network' });
    await expect(dialog).toBeVisible();
    await expect(dialog.getByLabel('Token')).toBeFocused();
    await page.keyboard.type('guess');
    await page.keyboard.press('Enter');
    await expect(dialog).toContainText('This is not the token.');
    await expect(dialog.getByLabel('Token')).toHaveValue('guess');
    await dialog.getByLabel('Token').fill('hut-31-open');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(dialog).toBeHidden();
    await page.reload();
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(dialog).toBeHidden();
    // Reached from elsewhere, a sample shows a phone where to send its photos.
    const made = await page.request.post(`${url}/api/samples`, { data: wallCharger('Reached') });
    expect(made.status()).toBe(201);
    const { id, tag } = (await made.json()) as { id: string; tag: string };
    const elsewhere = url.replace('127.0.0.1', '127.0.0.2');
    await page.goto(`${elsewhere}/samples/${id}/intake`);
    await dialog.getByLabel('Token').fill('hut-31-open');
    await page.keyboard.press('Enter');
    await expect(page.getByText(`open ${elsewhere}/photo/${tag}`)).toBeVisible();
    await expect(page.getByRole('img', { name: 'The address as a code for the camera of a phone' })).toBeVisible();
    // Another browser is asked for itself.
    const other = await browser.newPage();
    await other.goto(url);
    await expect(other.getByRole('dialog', { name: 'This bench is open to the network' })).toBeVisible();
    await other.close();
  } finally {
    server.kill('SIGTERM');
    await exited;
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
