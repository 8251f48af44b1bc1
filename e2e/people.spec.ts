// A server that others can reach: the first person, an invitation, a session that ends in the middle of work, the log.
import { rmSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';
// @ts-expect-error plain script without types
import { startMariadb } from '../scripts/lib/mariadb.mjs';
// @ts-expect-error plain script without types
import { scratch } from '../scripts/lib/scratch.mjs';
// @ts-expect-error plain script without types
import { forkServer } from '../scripts/lib/stage.mjs';
import { expect, follow, test, wallCharger } from './bench.ts';
import { faintTexts } from './contrast.ts';
import { geometry } from './geometry.ts';
import { shifted, watchShifts } from './shifts.ts';

const PASSWORD = 'a lamp in every hut';
const ENV = { HOST: '0.0.0.0', LASTMARK_HOSTS: '127.0.0.2' };

async function open(name: string) {
  const folder = scratch(name);
  const database = await startMariadb(folder);
  const { server, exited, port, code } = await forkServer(database.url, folder, { env: ENV });
  return {
    url: `http://127.0.0.1:${port}`,
    code: code as string,
    close: async () => {
      server.kill('SIGTERM');
      await exited;
      await database.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

async function comeInFirst(page: Page, url: string, code: string): Promise<void> {
  await page.goto(url);
  const dialog = page.getByRole('dialog', { name: 'You are the first here' });
  await expect(dialog.getByLabel('Code of the start')).toBeFocused();
  await dialog.getByLabel('Code of the start').fill(code);
  await dialog.getByLabel('Your name, as others see it').fill('Ada Marrow');
  await dialog.getByLabel('Sign-in name').fill('ada@fernwall');
  await dialog.getByRole('textbox', { name: 'Password' }).fill('qwerty123456');
  await page.keyboard.press('Enter');
  await expect(dialog).toContainText('Password is one of those that are tried first. Take another.');
  await dialog.getByRole('textbox', { name: 'Password' }).fill(PASSWORD);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'The shelf is empty' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Ada Marrow Admin' })).toBeVisible();
}

async function signIn(page: Page, name: string): Promise<void> {
  const dialog = page.getByRole('dialog', { name: /^Sign in/ });
  await dialog.getByLabel('Sign-in name').fill(name);
  await dialog.getByRole('textbox', { name: 'Password' }).fill(PASSWORD);
  await page.keyboard.press('Enter');
}

test('the first comes in with the code, invites another, and each is known by what they do', async ({
  page,
  browser,
}) => {
  const { url, code, close } = await open('people');
  try {
    await comeInFirst(page, url, code);
    await page.reload();
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(page.getByRole('dialog')).toBeHidden();
    // Reached from elsewhere, a sample shows a phone where to send its photos.
    const made = await page.request.post(`${url}/api/samples`, { data: wallCharger('Reached') });
    expect(made.status()).toBe(201);
    const { id, tag } = (await made.json()) as { id: string; tag: string };
    const elsewhere = url.replace('127.0.0.1', '127.0.0.2');
    await page.goto(`${elsewhere}/samples/${id}/intake`);
    await signIn(page, 'ada@fernwall');
    await expect(page.getByText(`open ${elsewhere}/photo/${tag}`)).toBeVisible();
    await expect(page.getByRole('img', { name: 'The address as a code for the camera of a phone' })).toBeVisible();
    // Another is invited by a link, and comes in with a browser of their own.
    await watchShifts(page);
    await page.goto(`${url}/people`);
    await expect(page.getByRole('region', { name: 'Collections' })).toContainText('None yet');
    expect(await shifted(page), 'moved after it was shown').toEqual([]);
    await page.getByRole('button', { name: 'Invite somebody' }).click();
    await page.getByLabel('For whom').fill('Brook of the valley');
    await page.getByRole('button', { name: 'Make the link' }).click();
    const link = await page.getByLabel('Shown once').textContent();
    await expect(page.getByRole('table', { name: 'Invitations' })).toContainText('Brook of the valley');
    const theirs = await browser.newContext();
    const other = await theirs.newPage();
    await other.goto(link ?? '');
    await other.getByLabel('Your name, as others see it').fill('Brook Tarn');
    await other.getByLabel('Sign-in name').fill('brook@fernwall');
    await other.getByRole('textbox', { name: 'Password' }).fill(PASSWORD);
    await other.getByRole('button', { name: 'Come in' }).click();
    await expect(other.getByRole('link', { name: 'Brook Tarn Engineer' })).toBeVisible();
    await expect(other.getByRole('link', { name: 'People' })).toBeHidden();
    await follow(other, '/people');
    await expect(other.getByRole('main')).toContainText('Admins let people in');
    await expect(other.getByRole('button', { name: 'Invite somebody' })).toBeHidden();
    // Who is where is seen beside the station.
    await follow(other, `/samples/${id}/intake`);
    await follow(page, `/samples/${id}/verdict`);
    await expect(page.getByRole('link', { name: /^Intake.*here now: Brook Tarn$/ })).toBeVisible();
    // A question for somebody stands at their Today until it is answered.
    await page.getByRole('button', { name: 'Say something' }).click();
    const form = page.getByRole('group', { name: 'Say something' });
    await form.getByLabel('It is').click();
    await page.getByRole('option', { name: 'a question' }).click();
    await form.getByLabel('For').click();
    await page.getByRole('option', { name: 'Brook Tarn' }).click();
    await form.getByLabel('What there is to say').fill('Which lead was it?');
    await form.getByRole('button', { name: 'Say it' }).click();
    await follow(other, '/today');
    await expect(other.getByRole('region', { name: 'Asked and said' })).toContainText(
      'Ada Marrow asks: Which lead was it?',
    );
    await follow(other, `/samples/${id}/verdict`);
    await other.getByRole('button', { name: 'Answer: Which lead was it?' }).click();
    await other.getByRole('textbox', { name: 'Answer' }).fill('The short one.');
    await other.getByRole('group', { name: 'Answer the question' }).getByRole('button', { name: 'Answer' }).click();
    await expect(page.getByRole('region', { name: 'Remarks' })).toContainText('The short one.');
    // What one writes, the log tells the other, with a way back.
    await follow(other, `/samples/${id}/intake`);
    await other.getByLabel('Serial').fill('BT-1');
    await other.getByRole('button', { name: /^Save/ }).click();
    await expect(other.getByText('Saved.')).toBeVisible();
    await follow(page, `/log?sample=${id}`);
    const entries = page.getByRole('list', { name: 'Log' }).getByRole('listitem');
    await expect(entries.first()).toContainText('Brook Tarn');
    await expect(entries.first()).toContainText('Serial: ');
    await expect(entries.first()).toContainText('BT-1');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(entries.first()).toContainText('Put back');
    await expect(entries.first()).toContainText('Ada Marrow');
    await page.getByRole('button', { name: 'Check the chain' }).click();
    const chain = page.getByRole('dialog', { name: 'The chain of the log' });
    await expect(chain).toContainText(/sealed entries are as they were written/);
    await page.keyboard.press('Escape');
    await expect(chain).toBeHidden();
    // Kept out, their session is over at once; what they typed is not.
    await other.getByLabel('Serial').fill('BT-2');
    await follow(page, '/people');
    await page.getByRole('button', { name: 'Change Brook Tarn' }).click();
    await page.getByLabel('Whether they are let in').click();
    await page.getByRole('option', { name: /^Kept out/ }).click();
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByRole('table', { name: 'People' })).toContainText('kept out');
    await expect(other.getByRole('dialog', { name: 'Sign in again' })).toBeVisible();
    await expect(other.getByLabel('Serial')).toHaveValue('BT-2');
    // Loads go off all the same.
    await other.getByRole('button', { name: 'Loads off' }).last().click();
    await expect(other.getByRole('dialog')).toContainText('No load has an address.');
    await signIn(other, 'brook@fernwall');
    await expect(other.getByRole('dialog')).toContainText('You are kept out. Ask an admin.');
    await theirs.close();
    // The pages of people fit at every size and stand out in the dim theme.
    for (const path of ['/people', '/account']) {
      if (!page.url().endsWith(path)) await follow(page, path);
      await expect(page.getByRole('table').first()).toBeVisible();
      expect(await geometry(page), path).toEqual([]);
      await page.emulateMedia({ colorScheme: 'dark' });
      await expect(page.locator('html')).toHaveAttribute('data-theme', 'dim');
      expect(await faintTexts(page), path).toEqual([]);
      await page.emulateMedia({ colorScheme: 'light' });
    }
  } finally {
    await close();
  }
});

test('a second factor is set up, asked for, and its recovery codes let in when it is lost', async ({
  page,
  browser,
}) => {
  const { url, code, close } = await open('factor');
  try {
    await comeInFirst(page, url, code);
    await follow(page, '/account');
    await page.getByRole('button', { name: 'Set one up' }).click();
    await page.getByRole('textbox', { name: 'Your password' }).fill(PASSWORD);
    await page.getByRole('button', { name: 'Go on' }).click();
    const dialog = page.getByRole('dialog', { name: 'Set up the authenticator' });
    await expect(dialog.getByRole('img')).toBeVisible();
    const secret = ((await dialog.locator('code').textContent()) ?? '').replaceAll(' ', '');
    await dialog.getByLabel('The code it shows now').fill('000000');
    await page.keyboard.press('Enter');
    await expect(dialog).toContainText('This code is wrong.');
    const codes = new TOTP({ secret: Secret.fromBase32(secret) });
    await dialog.getByLabel('The code it shows now').fill(codes.generate());
    await page.keyboard.press('Enter');
    const recovery = ((await page.getByLabel('Shown once').textContent()) ?? '').split('\n');
    expect(recovery).toHaveLength(10);
    await expect(page.getByText('Asked for. 10 recovery codes are left.')).toBeVisible();
    const theirs = await browser.newContext();
    const other = await theirs.newPage();
    await other.goto(url);
    await signIn(other, 'ada@fernwall');
    const wanted = other.getByLabel('Code of your authenticator, or a recovery code');
    await expect(wanted).toBeFocused();
    await wanted.fill(recovery[0] ?? '');
    await other.keyboard.press('Enter');
    await expect(other.getByRole('heading', { name: 'The shelf is empty' })).toBeVisible();
    await theirs.close();
    await page.reload();
    await page.getByRole('button', { name: 'Sign out everywhere else' }).click();
    await expect(page.getByRole('table', { name: 'Sessions' }).getByRole('row')).toHaveCount(2);
    // A token is shown once, and ended.
    await page.getByRole('button', { name: 'Make a token' }).click();
    await page.getByLabel('What it is for').fill('night logger');
    await page.getByRole('button', { name: 'Make it' }).click();
    await expect(page.getByLabel('Shown once').last()).toContainText('lastmark_');
    await page.getByRole('button', { name: 'End the token night logger' }).click();
    await expect(page.getByRole('table', { name: 'Tokens' })).toBeHidden();
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await expect(page.getByRole('dialog', { name: 'Sign in' })).toBeVisible();
  } finally {
    await close();
  }
});

test('a sample under an embargo is seen by those who are named, and by nobody else', async ({ page, browser }) => {
  const lab = await open('embargo');
  try {
    await comeInFirst(page, lab.url, lab.code);
    const made = await page.request.post(`${lab.url}/api/invitations`, { data: { role: 'engineer', note: 'Runa' } });
    const { path } = (await made.json()) as { path: string };
    const context = await browser.newContext({ baseURL: lab.url });
    const other = await context.newPage();
    const secret = path.split('#')[1];
    await context.request.post(`${lab.url}/api/join`, {
      data: { secret, signIn: 'runa', name: 'Runa Fell', password: PASSWORD },
    });
    await follow(page, '/people');
    await page.getByRole('button', { name: 'Make a collection' }).click();
    const dialog = page.getByRole('dialog', { name: 'Make a collection' });
    await dialog.getByRole('textbox', { name: 'Name' }).fill('Spring round');
    await dialog.getByLabel('Embargo until').fill('2999-03-01T09:00');
    await dialog.getByRole('button', { name: 'Make it' }).click();
    const row = page.getByRole('table', { name: 'Collections' }).getByRole('row', { name: /Spring round/ });
    await expect(row).toContainText('under embargo until 2999-03-01 09:00');
    await expect(row).toContainText('nobody');
    const sample = await page.request.post(`${lab.url}/api/samples`, { data: wallCharger('Hidden 100') });
    const { id } = (await sample.json()) as { id: string };
    await other.goto('/');
    await expect(other.getByRole('link', { name: /Hidden 100/ })).toBeVisible();
    await follow(page, `/samples/${id}/intake`);
    await page.getByRole('combobox', { name: 'Collection' }).click();
    await page.getByRole('option', { name: /^Spring round: under embargo/ }).click();
    await expect(page.getByText('◆ Spring round, under embargo until 2999-03-01 09:00')).toBeVisible();
    // It leaves the shelf of those who look at it, as they say so.
    await other.getByRole('button', { name: /by others: show/ }).click();
    await expect(other.getByRole('heading', { name: 'The shelf is empty' })).toBeVisible();
    await follow(other, `/samples/${id}/intake`);
    await expect(other.getByText(/There is no such sample/)).toBeVisible();
    // Named, they see it.
    await follow(page, '/people');
    await page.getByRole('button', { name: 'Change Spring round' }).click();
    await page.getByRole('combobox', { name: 'People who see it' }).click();
    await page.getByRole('option', { name: 'Runa Fell' }).click();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(row).toContainText('Runa Fell');
    await other.goto('/');
    await other.getByRole('link', { name: /Hidden 100/ }).click();
    await expect(other.getByRole('heading', { level: 1 })).toBeVisible();
    // Named no more, they see it no more, wherever they are.
    await page.getByRole('button', { name: 'Change Spring round' }).click();
    await page.getByRole('button', { name: 'Runa Fell' }).press('Backspace');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(row).toContainText('nobody');
    await expect(other.getByText(/There is no such sample/)).toBeVisible();
    // What is in it, from the list of collections and on the shelf.
    await page.request.post(`${lab.url}/api/samples`, { data: wallCharger('Open 65') });
    await page.reload();
    await page.getByRole('link', { name: '1 in Spring round, on the shelf' }).click();
    await expect(page.getByRole('link', { name: /Hidden 100/ })).toBeVisible();
    await expect(page.getByText('1 sample', { exact: true })).toBeVisible();
    await page.getByRole('combobox', { name: 'Collection' }).selectOption('All collections');
    await expect(page.getByRole('link', { name: /Open 65/ })).toBeVisible();
    await page.getByRole('combobox', { name: 'Collection' }).selectOption('Spring round');
    await expect(page.getByRole('link', { name: /Open 65/ })).toBeHidden();
    expect(await geometry(page)).toEqual([]);
    expect(await faintTexts(page)).toEqual([]);
    await context.close();
  } finally {
    await lab.close();
  }
});
