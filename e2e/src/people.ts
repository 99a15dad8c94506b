import { expect, type Browser, type Page } from '@playwright/test';

export const openedBy = async (browser: Browser, address: string): Promise<Page> =>
  (await browser.newContext()).newPage().then(async (page) => {
    await page.goto(address);
    return page;
  });

export const signIn = async (page: Page, email: string, password: string): Promise<void> => {
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
};

export const PASSWORD = 'wet grass at seven';

/** Invites somebody, as an owner does under People. Returns the link to pass on. */
export const invite = async (page: Page, name: string, email: string): Promise<string> => {
  await page.getByRole('link', { name: 'Club' }).click();
  const people = page.getByRole('region', { name: 'People' });
  // What comes in above moves the button from under the pointer.
  await people.getByText('(you)').waitFor();
  await expect(page.getByText(/^Getting /)).toHaveCount(0);
  await people.getByRole('button', { name: 'Invite somebody' }).click();
  await people.getByLabel('Name').fill(name);
  await people.getByLabel('E-mail').fill(email);
  await people.getByRole('button', { name: 'Invite', exact: true }).click();
  const line = people.getByRole('listitem').filter({ hasText: email });
  await line.getByRole('button', { name: 'Make the link' }).click();
  return line.getByLabel(`For ${name} only`).inputValue();
};

/** Opens an invitation on a device of somebody who is new, and joins. */
export const join = async (browser: Browser, link: string): Promise<Page> => {
  const page = await openedBy(browser, link);
  await page.getByLabel('Choose a password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Club' })).toBeVisible();
  return page;
};
