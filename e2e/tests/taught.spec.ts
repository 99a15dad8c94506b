import { expect, goTo, test } from '../src/test';

type Session = {
  drillSets: { work: { drill?: string }; stand: string; restS: number; freeze: boolean }[];
};

test('a drill goes into the session just as it is taught, from its movement and from the line to add a set', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/wall-switches');
  const drills = page.getByRole('region', { name: 'Drills' });
  const order = drills.getByRole('list', { name: 'Progression' }).getByRole('listitem');
  await expect(order.nth(1)).toContainText('One and freeze');
  await expect(order.nth(1)).toContainText(
    /all at once · 6 reps of each · both sides.*1 single steps on the call/,
  );
  const answer = page.waitForResponse(
    (response) => response.request().method() === 'PUT' && response.url().includes('/sessions/'),
  );
  await order.nth(1).getByRole('button', { name: /^Into/ }).click();
  const stored = (await (await answer).json()) as Session;
  expect(stored.drillSets.at(-1)).toMatchObject({
    work: { drill: 'one-freeze' },
    ...{ stand: 'row', restS: 5, freeze: true },
  });

  await goTo(page, '/sessions/new');
  await page.getByLabel('Add a set').fill('touch at each end, slow and fast');
  await page.getByLabel('Add a set').press('Enter');
  const line = page.getByRole('listitem').filter({ hasText: 'touch at each end' }).first();
  await expect(line).toContainText('half, full');
  await expect(
    page.getByRole('region', { name: /What decides/ }).or(page.locator('main')),
  ).toContainText('10 touches');
});

test('words beside a drawing light up as it is played, and a drill with steps of its own shows them', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/post-footwork');
  const legend = page.getByRole('list', { name: 'Steps by phase' });
  await expect(
    legend.getByRole('listitem').filter({ hasText: 'Meet the ball with a hop' }),
  ).toContainText('3');
  await page.getByLabel('Part').selectOption({ label: 'Close finishes from side to side' });
  await expect(legend).toContainText('Beside the goal');
  await expect(legend).not.toContainText('Meet the ball with a hop');
  await page.getByRole('button', { name: 'Play' }).click();
  await expect(legend.locator('.now')).toHaveCount(1);
});

test('a word that is no movement says so and offers the nearest; movements stand by who does them', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements');
  await expect(page.getByRole('region', { name: 'Defenders' }).getByRole('listitem')).toHaveCount(
    3,
  );
  await page.getByLabel('Find a movement').fill('screen');
  await expect(page.getByText(/A screen by a teammate has no movement of its own/)).toBeVisible();
  await expect(page.getByRole('link', { name: 'Slide and close out' })).toBeVisible();
  await page.getByLabel('Find a movement').fill('jam');
  await expect(page.locator('.movement-name').first()).toHaveText('Give-ground mirror');
});

test('a chain of four moves is drawn, planned and kept in its address', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/chains?moves=jab-cross,hesitation,change-behind&end=floater');
  await expect(
    page.getByRole('heading', { name: /Jab, cross over, Hesitation, Change behind the back/ }),
  ).toBeVisible();
  await page
    .getByRole('region', { name: 'Then, move 4' })
    .getByRole('button', { name: 'In and out' })
    .click();
  await expect(page).toHaveURL(/in-and-out/);
  await expect(page.getByRole('list', { name: 'Steps by phase' })).toContainText('One dribble');
  await page.getByRole('link', { name: 'Faults and drills' }).click();
  await page.getByRole('link', { name: 'Change its parts' }).click();
  await expect(page.getByRole('region', { name: 'Then, move 4' })).toBeVisible();
});

test('a movement of the club is held to the laws of the ground while it is changed', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/gaps');
  await page.getByRole('button', { name: 'Copy and change' }).click();
  const laws = page.getByRole('region', { name: 'Would a coach teach it so?' });
  await expect(laws).toContainText('No foot on another', { timeout: 60_000 });
  // Sideways with the wrong foot first: the feet cross in every gap.
  await page
    .getByRole('button', { name: /Sideways/ })
    .first()
    .click();
  await page.getByLabel('First foot').first().selectOption('left');
  await expect(laws).toContainText(/In “Sideways” the feet cross/, { timeout: 60_000 });
});
