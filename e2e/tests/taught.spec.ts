import { readdirSync } from 'node:fs';
import path from 'node:path';
import { expect, goTo, seen, test } from '../src/test';

const MOVEMENTS = readdirSync(new URL('../../library/data/movements', import.meta.url)).map(
  (file) => path.basename(file, '.json'),
);

type Session = {
  id: string;
  drillSets: {
    work: { drill?: string };
    stand: string;
    restS: number;
    freeze: boolean;
    watch: number;
  }[];
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
  // By hand somebody is moved to a drill, whatever the reps say.
  const move = (i: number) => order.nth(i).getByLabel(/^Move somebody to/);
  const who = (await move(2).locator('option').nth(1).textContent())!;
  await move(2).selectOption(who);
  await expect(order.nth(2)).toContainText(`${who} (`);
  await move(1).selectOption(who);
  await expect(order.nth(1)).toContainText(`${who} (`);
  await expect(order.nth(2).getByText(/says so/)).toHaveCount(0);
  const answer = page.waitForResponse(
    (response) => response.request().method() === 'PUT' && response.url().includes('/sessions/'),
  );
  await order.nth(1).getByRole('button', { name: /^Into/ }).click();
  const stored = (await (await answer).json()) as Session;
  expect(stored.drillSets.at(-1)).toMatchObject({
    work: { drill: 'one-freeze' },
    ...{ stand: 'row', restS: 5, freeze: true, watch: 4 },
  });
  await goTo(page, `/run/${stored.id}`);
  await page
    .locator('.run-sets button', { hasText: 'Wall switches: one and freeze' })
    .last()
    .click();
  await page.getByRole('button', { name: 'Call', exact: true }).waitFor();
  await expect(page.getByLabel('How many you watch at a call')).toHaveValue('4');

  await goTo(page, '/sessions/new');
  await page.getByLabel('Add a set').fill('touch at each end, slow and fast');
  await seen(page.getByRole('list', { name: 'What can be added' }).getByRole('listitem'));
  await page.getByLabel('Add a set').press('Enter');
  const line = page.getByRole('listitem').filter({ hasText: 'touch at each end' }).first();
  const until = line.locator('.set-until');
  await expect(until).toHaveText('as the drill asks');
  await expect(line.getByLabel('Touches a rep')).toHaveValue('10');
  // What is otherwise here is told, and nothing else.
  await line.getByLabel('Touches a rep').fill('12');
  await expect(until).toContainText('12 touches');
  await expect(until).not.toContainText('round');
});

test('words beside a drawing light up as it is played, and a drill with steps of its own shows them', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/post-footwork');
  const legend = page.getByRole('list', { name: 'Steps by phase' });
  await expect(
    legend.getByRole('listitem').filter({ hasText: 'Meet the ball with a hop' }),
  ).toContainText('3');
  await page.getByLabel(/^Part/).selectOption({ label: 'Close finishes from side to side' });
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

test('a blocker is seen from the front with the hands up, and hands that are let down are said', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/block-jump');
  const side = page.getByRole('region', { name: 'From the side' });
  await side.getByRole('button', { name: 'Show Ready' }).click();
  const front = side.getByRole('img', { name: 'The body from the front: Ready' });
  await expect(front).toContainText(/feet 4\d cm apart/);
  await expect(front.locator('.side-hand')).toHaveCount(4);
  await page.getByRole('button', { name: 'Copy and change' }).click();
  await page.getByRole('button', { name: 'Ready', exact: true }).click();
  const laws = page.getByRole('region', { name: 'Would a coach teach it so?' });
  await expect(laws).toContainText('No foot on another', { timeout: 60_000 });
  for (const raised of await page.getByLabel('Upper arm, raised, °').all()) await raised.fill('5');
  for (const elbow of await page.getByLabel('Elbow, inside, °').all()) await elbow.fill('170');
  await expect(laws).toContainText(
    'In “Ready”, “Hands” asks for 0.94 to 1.06 of eye height (height of the hands)',
    { timeout: 60_000 },
  );
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

test('every movement of the library can be planned: each opens with its drawing', async ({
  signedIn: page,
}) => {
  for (const code of MOVEMENTS) {
    await goTo(page, `/approaches/new?movement=${code}`);
    await seen(page.locator('svg.plan-view, svg.strip'));
    await expect(page.getByText('This page could not be shown')).toHaveCount(0);
  }
});

test('a movement is set at a spot of its place: the tapes go by it, and the plan keeps it', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/post-footwork');
  const spot = page.getByLabel('Spot', { exact: true });
  await spot.selectOption('right block');
  const read = page.getByLabel(/^Read: where the defender leans/);
  await read.selectOption('End-line side');
  await page.getByRole('link', { name: 'Plan it' }).click();
  await expect(page.getByRole('heading', { name: 'The plan' })).toBeVisible();
  await expect(spot.locator('option:checked')).toHaveText('right block');
  const tapes = page.getByRole('region', { name: 'To set out' });
  await expect(tapes.getByRole('columnheader')).toHaveText([
    'Mark',
    'left lane corner',
    'right lane corner',
  ]);
  const atRight = await tapes.getByRole('row', { name: /^start/ }).innerText();
  await spot.selectOption('left elbow');
  await expect(tapes.getByRole('row', { name: /^start/ })).not.toHaveText(atRight);
  await page.getByLabel('Name of the approach').fill('From the elbow');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('From the elbow is saved')).toBeVisible();
  await page.reload();
  await expect(spot.locator('option:checked')).toHaveText('left elbow');

  // What lies there is what is thrown to, and the feet are told as they go there.
  await goTo(page, '/movements/corner-fielder');
  const ground = page.locator('svg.plan-view').first();
  await expect(ground).toContainText('first base,');
  await spot.selectOption('first base');
  await expect(ground).toContainText('second base,');
  await expect(page.getByText(/^Comes round by the glove side/)).toBeVisible();
  await spot.selectOption('third base');
  await expect(ground).toContainText('first base,');
  await expect(page.getByText(/^Comes round by the glove side/)).toHaveCount(0);
});

test('two ways of teaching stand side by side in a set, and their reps answer which does better', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/give-ground');
  const schools = page.getByRole('region', { name: 'Schools' });
  const turn = schools.locator('.school').filter({ hasText: 'A slide first, or open' });
  await expect(turn.getByRole('row', { name: /^Clean/ }).first()).toContainText(
    /% of \d+.*% of \d+/,
  );
  const answer = page.waitForResponse(
    (response) => response.request().method() === 'PUT' && response.url().includes('/sessions/'),
  );
  await turn.getByRole('button', { name: /^Both into/ }).click();
  const stored = (await (await answer).json()) as {
    id: string;
    drillSets: { order: string; vary: { ways: string[] } }[];
  };
  expect(stored.drillSets.at(-1)).toMatchObject({
    ...{ order: 'mixed', vary: { ways: ['turn:slide', 'turn:open'] } },
  });
  await goTo(page, `/sessions/${stored.id}`);
  await page.getByRole('button', { name: 'Give-ground mirror', exact: true }).last().click();
  const ways = page.getByRole('group', { name: 'Ways of teaching' });
  await expect(ways.getByRole('button', { pressed: true })).toHaveText([
    'Slide, plant, cross over',
    'Open at once',
  ]);
  await ways.getByRole('button', { name: 'Open at once' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(/is saved\./)).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Give-ground mirror', exact: true }).last().click();
  await expect(ways.getByRole('button', { pressed: true })).toHaveText([
    'Slide, plant, cross over',
  ]);
});

test('how a drill is run, the order of drills and the place are changed in the club’s copy', async ({
  signedIn: page,
}) => {
  await goTo(page, '/movements/wall-switches');
  await page.getByRole('button', { name: 'Copy and change' }).click();
  const change = (part: string) =>
    page.getByRole('group', { name: 'What to change' }).getByText(part, { exact: true }).click();
  await change('Drills');
  await page.getByRole('button', { name: 'One and freeze' }).first().click();
  await page.getByLabel('How they stand').selectOption('in pairs');
  await page.getByLabel('Rest, s', { exact: true }).fill('x');
  await expect(page.getByRole('alert').filter({ hasText: /number/i })).toBeVisible();
  await page.getByLabel('Rest, s', { exact: true }).fill('25');
  await change('Order of drills');
  await page.getByRole('button', { name: /^Move One and freeze up/ }).click();
  await page.getByLabel('On when').fill('the knee stays up');
  await change('Place');
  await page.getByLabel('It is done before something that is built').check();
  await page.getByLabel('Out from its line').fill('7');
  await page.getByLabel('Beside the middle').fill('2');
  await page.getByLabel('Called', { exact: true }).fill('near end');
  await page.getByLabel('On the other side, where it is something else').fill('far end');
  await page.getByLabel('Other steps on the other side, for the same hand').check();
  const other = page.getByRole('group', { name: 'On the other side' });
  await other.getByRole('button', { name: 'Look at something else' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert').first()).toBeVisible();
  await other.getByLabel('What is looked at').fill('Head');
  await other.getByLabel('What right looks like').fill('Turned to the far post');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/is saved/)).toBeVisible();
  const first = page.getByRole('list', { name: 'Progression' }).getByRole('listitem').first();
  await expect(first).toContainText('One and freeze');
  await expect(first).toContainText('On when the knee stays up.');
  await expect(first).toContainText(/in pairs.*rest 25 s/);
  await expect(page.getByText('Turned to the far post')).toHaveCount(0);
  await page.getByLabel('Spot', { exact: true }).selectOption('far end');
  await expect(page.getByText('Turned to the far post')).toBeVisible();
});
