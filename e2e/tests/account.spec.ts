import { randomUUID } from 'node:crypto';
import type { Browser, Page } from '@playwright/test';
import type { App } from '../src/app';
import { expect, test } from '../src/test';

const openedBy = async (browser: Browser, address: string): Promise<Page> =>
  (await browser.newContext()).newPage().then(async (page) => {
    await page.goto(address);
    return page;
  });

const signIn = async (page: Page, email: string, password: string): Promise<void> => {
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
};

const addMember = async (page: Page, name: string, email: string, password: string) => {
  await page.getByRole('link', { name: 'Club' }).click();
  await page.getByRole('button', { name: 'Add somebody' }).click();
  const people = page.getByRole('region', { name: 'People' });
  await people.getByLabel('Name').fill(name);
  await people.getByLabel('E-mail').fill(email);
  await people.getByLabel('First password').fill(password);
  await people.getByRole('button', { name: 'Add', exact: true }).click();
};

const today = (page: Page) => page.getByRole('heading', { level: 1 });

test('a password that everybody tries is refused; a forgotten one comes anew by a link, and is changed', async ({
  signedIn: page,
  browser,
}) => {
  const email = `nils-${randomUUID().slice(0, 8)}@farrow.invalid`;
  await addMember(page, 'Nils Farrow', email, 'password1234');
  await expect(page.getByText('among the first that are tried')).toBeVisible();
  await page.getByLabel('First password').fill('wet grass at seven');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Nils Farrow can sign in now.')).toBeVisible();

  const line = page.getByRole('listitem').filter({ hasText: email });
  await line.getByRole('button', { name: 'New password' }).click();
  await line.getByRole('button', { name: 'Make the link' }).click();
  const link = await line.getByLabel('For Nils Farrow only').inputValue();

  const nils = await openedBy(browser, link);
  await nils.getByLabel('New password').fill('short');
  await nils.getByRole('button', { name: 'Keep it' }).click();
  await expect(nils.getByText('A password needs at least 10 characters.')).toBeVisible();
  await nils.getByLabel('New password').fill('a hurdle in the rain');
  await nils.getByRole('button', { name: 'Keep it' }).click();
  await nils.getByRole('link', { name: 'Sign in' }).click();
  await signIn(nils, email, 'a hurdle in the rain');
  await expect(nils.getByRole('region', { name: 'One cue each' })).toBeVisible();

  const again = await openedBy(browser, link);
  await again.getByLabel('New password').fill('another in the sun');
  await again.getByRole('button', { name: 'Keep it' }).click();
  await expect(again.getByText('has been used or is too old')).toBeVisible();

  await nils.getByRole('link', { name: 'Club' }).click();
  await nils.getByRole('button', { name: 'Change your password' }).click();
  await nils.getByLabel('Password now').fill('not this one');
  await nils.getByLabel('New password').fill('two hurdles in the rain');
  await nils.getByRole('button', { name: 'Keep it' }).click();
  await expect(nils.getByText('not the password that you have now')).toBeVisible();
  await expect(nils.getByLabel('New password')).toHaveValue('two hurdles in the rain');
  await nils.getByLabel('Password now').fill('a hurdle in the rain');
  await nils.getByRole('button', { name: 'Keep it' }).click();
  await expect(nils.getByText('The new password holds.')).toBeVisible();
  await expect(again.getByText('gravek')).toBeVisible();
});

const secondClub = (email: string, password: string) => ({
  format: 'gravek-club',
  version: 3,
  clubId: randomUUID(),
  club: { name: 'Fenwick Harriers', unit: 'imperial', cueSchool: 'root-cause', timeZone: 'UTC' },
  people: [{ id: randomUUID(), person: 'Ada Fenwick', email, role: 'owner', password }],
  athletes: [],
  restrictions: [],
  trials: [],
  approaches: [],
  sessions: [],
  reps: [],
});

/** Brings somebody of the demo into a second club, by that club’s owner. */
const joinSecond = async (app: App, browser: Browser, email: string): Promise<Page> => {
  const password = 'seven lanes of cinder';
  const address = `ada-${randomUUID().slice(0, 8)}@fenwick.invalid`;
  await app.load(secondClub(address, password));
  const ada = await openedBy(browser, app.address);
  await signIn(ada, address, password);
  await addMember(ada, 'Somebody', email, 'not used at all here');
  return ada;
};

test('one account in two clubs: it opens the other, a page that shows the first is told, and what is kept goes with the membership', async ({
  signedIn: page,
  app,
  browser,
}) => {
  const email = `nils-${randomUUID().slice(0, 8)}@farrow.invalid`;
  await addMember(page, 'Nils Farrow', email, 'wet grass at seven');
  await expect(page.getByText('Nils Farrow can sign in now.')).toBeVisible();
  const ada = await joinSecond(app, browser, email);
  // The account goes by the name that it has.
  await expect(ada.getByText('Nils Farrow can sign in now.')).toBeVisible();

  const nils = await openedBy(browser, app.address);
  await signIn(nils, email, 'wet grass at seven');
  await expect(nils.getByRole('region', { name: 'One cue each' })).toBeVisible();
  const stale = await nils.context().newPage();
  await stale.goto(`${app.address}/athletes`);
  await expect(stale.getByRole('row', { name: /Roland Quist/ })).toBeVisible();

  await nils.getByRole('link', { name: 'Club' }).click();
  const account = nils.getByRole('region', { name: 'Your account' });
  const opened = nils.waitForEvent('load');
  await account.getByRole('button', { name: 'Open this club' }).click();
  await opened;
  await nils.getByRole('link', { name: 'Club' }).click();
  await expect(today(nils)).toHaveText('Fenwick Harriers');

  // The other page asks for its club, and comes back as what is open now.
  const loaded = stale.waitForEvent('load');
  await stale.getByRole('link', { name: 'Approaches' }).click();
  await loaded;
  await expect(stale.getByText('No approach yet.')).toBeVisible();
  await stale.getByRole('link', { name: 'Club' }).click();
  await expect(today(stale)).toHaveText('Fenwick Harriers');

  await stale.close();

  await nils.evaluate(() => localStorage.setItem('gravek.draft.3.x.note', '"typed"'));
  ada.on('dialog', (dialog) => void dialog.accept());
  const line = ada.getByRole('listitem').filter({ hasText: email });
  await line.getByRole('button', { name: 'Remove' }).click();
  await expect(line).toHaveCount(0);
  await expect(nils.getByText('not a member of this club any more')).toBeVisible();
  await expect(nils.getByRole('button', { name: 'Sign in' })).toBeVisible();
  expect(
    await nils.evaluate(() => Object.keys(localStorage).filter((key) => key.includes('draft'))),
  ).toEqual([]);
  await signIn(nils, email, 'wet grass at seven');
  await nils.getByRole('link', { name: 'Club' }).click();
  await expect(today(nils)).not.toHaveText('Fenwick Harriers');
});
