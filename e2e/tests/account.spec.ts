import { randomUUID } from 'node:crypto';
import { text } from 'node:stream/consumers';
import type { Browser, Page } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';
import type { App } from '../src/app';
import { invite, join, openedBy, PASSWORD, signIn } from '../src/people';
import { clean, logOf, runAlone, up } from '../src/field';
import { enterDemo, expect, test } from '../src/test';

const today = (page: Page) => page.getByRole('heading', { level: 1 });

test('an invitation is taken up by a link, once; a forgotten password comes anew by another, and is changed', async ({
  signedIn: page,
  browser,
}) => {
  const email = `nils-${randomUUID().slice(0, 8)}@farrow.invalid`;
  const invitation = await invite(page, 'Nils Farrow', email);
  const joining = await openedBy(browser, invitation);
  await expect(joining.getByText(`invites ${email} as assistant`)).toBeVisible();
  await joining.getByLabel('Choose a password').fill('password1234');
  await joining.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(joining.getByText('among the first that are tried')).toBeVisible();
  await joining.getByLabel('Choose a password').fill(PASSWORD);
  await joining.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(joining.getByRole('region', { name: 'One cue each' })).toBeVisible();
  const late = await openedBy(browser, invitation);
  await expect(late.getByText('has been accepted, was taken back or is too old')).toBeVisible();

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

const secondClub = (email: string) => ({
  format: 'gravek-club',
  version: 3,
  clubId: randomUUID(),
  club: { name: 'Fenwick Harriers', unit: 'imperial', cueSchool: 'root-cause', timeZone: 'UTC' },
  people: [{ id: randomUUID(), person: 'Ada Fenwick', email, role: 'owner' }],
  athletes: [],
  restrictions: [],
  trials: [],
  approaches: [],
  sessions: [],
  reps: [],
});

/** A second club, with its owner signed in. */
const openSecond = async (app: App, browser: Browser): Promise<Page> => {
  const said = await app.load(secondClub(`ada-${randomUUID().slice(0, 8)}@fenwick.invalid`));
  const [place] = /\/invitation#\S+/.exec(said)!;
  return join(browser, `${app.address}${place}`);
};

test('one account in two clubs: it opens the other, a page that shows the first is told, and what is kept goes with the membership', async ({
  signedIn: page,
  app,
  browser,
}) => {
  const email = `nils-${randomUUID().slice(0, 8)}@farrow.invalid`;
  const nils = await join(browser, await invite(page, 'Nils Farrow', email));
  const ada = await openSecond(app, browser);
  const link = await invite(ada, 'Somebody', email);
  // Until the invitation is accepted, the inviter sees what was typed and nothing else.
  await expect(ada.getByText('Nils Farrow')).toHaveCount(0);
  const elsewhere = await openedBy(browser, link);
  await elsewhere.getByRole('button', { name: 'I have an account with this address' }).click();
  await elsewhere.getByLabel('Password').fill('not the password');
  await elsewhere.getByRole('button', { name: 'Sign in and join' }).click();
  await expect(elsewhere.getByText('do not go together')).toBeVisible();
  await nils.goto(link);
  await nils.getByRole('button', { name: 'Join Fenwick Harriers' }).click();
  await nils.getByRole('link', { name: 'Club' }).click();
  await expect(today(nils)).toHaveText('Fenwick Harriers');
  await ada.reload();
  await expect(ada.getByText('Nils Farrow')).toBeVisible();
  const back = nils.waitForEvent('load');
  await nils.getByRole('button', { name: 'Open this club' }).click();
  await back;
  const stale = await nils.context().newPage();
  await stale.goto(`${app.address}/athletes`);
  await expect(stale.getByRole('row', { name: /Roland Quist/ })).toBeVisible();

  await nils.getByRole('link', { name: 'Club' }).click();
  const account = nils.getByRole('region', { name: 'Your account' });
  const opened = Promise.all([nils.waitForEvent('load'), stale.waitForEvent('load')]);
  await account.getByRole('button', { name: 'Open this club' }).click();
  await opened;
  await nils.getByRole('link', { name: 'Club' }).click();
  await expect(today(nils)).toHaveText('Fenwick Harriers');

  // The other page comes back by itself as what is open now.
  await stale.getByRole('link', { name: 'Approaches' }).click();
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
  await signIn(nils, email, PASSWORD);
  await nils.getByRole('link', { name: 'Club' }).click();
  await expect(today(nils)).not.toHaveText('Fenwick Harriers');
});

test('devices are signed out from afar; a code is asked for besides the password; who did what stands in the log', async ({
  signedIn: page,
  browser,
  app,
}) => {
  const email = `nils-${randomUUID().slice(0, 8)}@farrow.invalid`;
  const nils = await join(browser, await invite(page, 'Nils Farrow', email));
  const line = page.getByRole('listitem').filter({ hasText: email });
  await line.getByLabel('Role of Nils Farrow').selectOption('owner');
  const phone = await openedBy(browser, app.address);
  await signIn(phone, email, PASSWORD);
  await expect(phone.getByRole('link', { name: 'Club' })).toBeVisible();

  await nils.reload();
  await nils.getByRole('link', { name: 'Club' }).click();
  const devices = nils.getByRole('list', { name: 'Signed in on' });
  await expect(devices.getByRole('listitem')).toHaveCount(2);
  await devices.getByRole('button', { name: 'Sign out' }).click();
  await expect(devices.getByRole('listitem')).toHaveCount(1);
  await phone.reload();
  await expect(phone.getByRole('button', { name: 'Sign in' })).toBeVisible();

  await nils.getByRole('button', { name: 'Second step when signing in' }).click();
  const secret = (await nils.getByText('Or type it in:').textContent())!
    .replace('Or type it in:', '')
    .replaceAll(' ', '');
  const codeIn = (aheadS: number): string =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({
      timestamp: Date.now() + aheadS * 1000,
    });
  await nils.getByLabel('Code').fill('12');
  await nils.getByRole('button', { name: 'Turn it on' }).click();
  await expect(nils.getByText('not the code that belongs to it')).toBeVisible();
  await nils.getByLabel('Code').fill(codeIn(0));
  await nils.getByRole('button', { name: 'Turn it on' }).click();
  const codes = nils.getByRole('list', { name: 'Recovery codes' }).getByRole('listitem');
  await expect(codes).toHaveCount(10);
  const recovery = (await codes.allTextContents())[0]!;
  await nils.getByRole('button', { name: 'I have them' }).click();
  await expect(nils.getByText('10 recovery codes are left')).toBeVisible();

  await signIn(phone, email, PASSWORD);
  await phone.getByLabel('Code').fill(recovery);
  await phone.getByRole('button', { name: 'Sign in' }).click();
  await expect(phone.getByRole('link', { name: 'Club' })).toBeVisible();

  // Ten minutes later the password is asked for again, and what was begun goes on by itself.
  await app.sql(`update http_session set sess = jsonb_set(sess::jsonb, '{confirmed}', '0')::json`);
  const member = nils.getByRole('listitem').filter({ hasText: 'Aldo Penhale' });
  await member.getByLabel('Role of Aldo Penhale').selectOption('coach');
  const again = nils.getByRole('dialog', { name: 'Your password again' });
  await again.getByLabel('Password').fill('not the password');
  await again.getByRole('button', { name: 'Go on' }).click();
  await expect(again.getByText('not the password that you have now')).toBeVisible();
  await again.getByLabel('Password').fill(PASSWORD);
  await again.getByRole('button', { name: 'Go on' }).click();
  await expect(again).toBeHidden();
  await expect(member.getByLabel('Role of Aldo Penhale')).toHaveValue('coach');

  await nils.getByRole('link', { name: 'Who did what' }).click();
  await expect(
    nils.getByRole('row', { name: /Nils Farrow changed a role: Aldo Penhale/ }),
  ).toBeVisible();
  await nils.getByLabel('Search the log').fill('second step');
  await expect(nils.getByRole('row', { name: /turned the second step on/ })).toBeVisible();
  await expect(nils.getByRole('row', { name: /changed a role/ })).toHaveCount(0);
  const saved = nils.waitForEvent('download');
  await nils.getByRole('button', { name: 'Save as CSV' }).click();
  const file = await text(await (await saved).createReadStream());
  expect(file).toContain('turned the second step on');
  expect(file).not.toContain('changed a role');
});

test('three tabs and two people on one device: signing out reaches every tab, and what was tapped waits for its own', async ({
  signedIn: page,
  browser,
  app,
}) => {
  const email = `nils-${randomUUID().slice(0, 8)}@farrow.invalid`;
  await (await join(browser, await invite(page, 'Nils Farrow', email))).context().close();
  const session = await runAlone(page, 'Shared phone', ['Roland', 'Signe'], 2);
  await expect(up(page)).toHaveText('Roland');
  const tabs = await Promise.all([1, 2].map(() => page.context().newPage()));
  for (const tab of tabs) {
    await tab.goto(`${app.address}/athletes`);
    await expect(tab.getByRole('row', { name: /Roland Quist/ })).toBeVisible();
  }
  // No tab gets through: whichever is first would send it.
  await page.context().route('**/api/reps', (route) => route.abort());
  await clean(page).click();
  await expect(page.getByRole('button', { name: 'Send now' })).toContainText('1 rep waiting');
  tabs[0]!.on('dialog', (dialog) => void dialog.accept());
  await tabs[0]!.getByRole('button', { name: 'Sign out' }).click();
  for (const tab of [page, ...tabs]) {
    await expect(tab.getByRole('button', { name: 'Sign in' })).toBeVisible();
    await expect(tab.getByText('Roland')).toHaveCount(0);
  }
  await page.context().unrouteAll();

  await signIn(tabs[0]!, email, PASSWORD);
  await tabs[0]!.getByRole('navigation').getByRole('link', { name: 'Run', exact: true }).click();
  await expect(tabs[0]!.getByText('1 rep of Runa Telford waits on this device')).toBeVisible();
  expect(await logOf(tabs[0]!, session)).toEqual([]);
  // Another tab goes along, in and out.
  await expect(tabs[1]!.getByRole('button', { name: 'Sign out' })).toBeVisible();
  await tabs[0]!.getByRole('button', { name: 'Sign out' }).click();
  await expect(tabs[1]!.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await enterDemo(tabs[1]!, app);
  await expect.poll(async () => (await logOf(tabs[1]!, session)).length).toBe(1);
  await tabs[1]!.getByRole('navigation').getByRole('link', { name: 'Run', exact: true }).click();
  await expect(tabs[1]!.getByText(/waits on this device/)).toHaveCount(0);
});
