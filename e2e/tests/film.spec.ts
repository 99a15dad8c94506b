import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Locator, Page } from '@playwright/test';
import type { Review } from '@gravek/contract/watched';
import { axeFinds } from '../src/axe';
import { expect, goTo, LONG, test, seen } from '../src/test';

/** A film is opened, looked at, marked and measured; the truth behind the film that ships is known. */

const at = (file: string): string => fileURLToPath(new URL(`../../${file}`, import.meta.url));
type Flat = { x: number; y: number };
type Truth = {
  film: { frames: number; width: number; height: number };
  marks: { px: Flat; ground: { alongM: number; acrossM: number } }[];
  contacts: {
    foot: 'left' | 'right';
    alongM: number;
    acrossM: number;
    onS: number;
    offS: number;
    px: Flat;
    joints: Record<'shoulder' | 'hip' | 'knee' | 'ankle' | 'toe', Flat>;
  }[];
  frames: number[];
};
const truth = JSON.parse(readFileSync(at('demo/data/film.json'), 'utf8')) as Truth;
/** Two hundredths of a second lie between frames where none is missing, twice that where one is. */
const frameOf = (momentS: number): number => truth.frames.findIndex((atS) => atS >= momentS - 1e-9);
const gapS = (i: number): number => truth.frames[i]! - truth.frames[i - 1]!;

const openFilms = (page: Page): Promise<unknown> => goTo(page, '/film');

/** Opens the film that ships for somebody, as it is held against a plan or movement. */
const begin = async (page: Page, athlete: string, against: string): Promise<void> => {
  await openFilms(page);
  await page.getByRole('button', { name: 'The film that ships' }).click();
  const form = page.getByRole('region', { name: 'What the film shows' });
  await form.getByLabel('Whom does it show?').selectOption(athlete);
  await form.getByLabel('Held against').selectOption(against);
  await form.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('slider', { name: 'Frame' })).toBeVisible();
};

const tool = (page: Page, name: string): Promise<void> =>
  page
    .getByRole('group', { name: 'What to do with the film' })
    .getByRole('button', { name, exact: true })
    .click();

/** Presses a place of the picture, wherever the picture is on the screen. */
const pressAt = async (page: Page, { x, y }: Flat): Promise<void> => {
  const layer = page.getByRole('group', { name: 'Marks on the film' });
  // Near as it is, the place is brought before the eyes first.
  await layer.evaluate(
    (drawing, part) => {
      const pane = drawing.closest('.film-window')!;
      const { width, height } = drawing.getBoundingClientRect();
      pane.scrollTo(part.x * width - pane.clientWidth / 2, part.y * height - pane.clientHeight / 2);
    },
    { x: x / truth.film.width, y: y / truth.film.height },
  );
  const box = (await layer.boundingBox())!;
  await page.mouse.click(
    box.x + (x / truth.film.width) * box.width,
    box.y + (y / truth.film.height) * box.height,
  );
};

const toFrame = async (page: Page, frame: number): Promise<void> => {
  await page.getByRole('slider', { name: 'Frame' }).fill(String(frame));
  await expect(page.getByText(`frame ${frame + 1} of ${truth.film.frames}`)).toBeVisible();
};

const metres = async (cell: Locator): Promise<number> =>
  Number.parseFloat((await cell.textContent())!);

test(
  'the film that ships is marked on the page, and tells the truth within three centimetres and a frame',
  LONG,
  async ({ signedIn: page }) => {
    test.setTimeout(180_000);
    const sent: number[] = [];
    page.on('request', (request) => sent.push(request.postDataBuffer()?.length ?? 0));
    await begin(page, 'Mirela Dussault', 'Long jump, 8 steps');

    // Twice at full speed before anything slower is offered.
    const play = page.getByRole('button', { name: 'Play at full speed' });
    await expect(page.getByRole('group', { name: 'Speed' })).toBeHidden();
    await play.click();
    await expect(page.getByText('Once more at full speed, then slowly.')).toBeVisible({
      timeout: 20_000,
    });
    await play.click();
    await expect(page.getByRole('group', { name: 'Speed' })).toBeVisible({ timeout: 20_000 });

    const nearer = page.getByRole('button', { name: 'Nearer' });
    while (await nearer.isEnabled()) await nearer.click();
    await tool(page, 'Ground');
    await expect(page.getByText('Mark the ground first')).toBeVisible();
    await page.getByLabel('First tape, before the line').fill('12 m');
    await page.getByLabel('A tape every').fill('3 m');
    const lane = truth.marks.filter(({ ground }) => ground.alongM >= -12);
    for (const mark of lane) await pressAt(page, mark.px);
    await expect(page.getByRole('button', { name: /^Remove ground mark/ })).toHaveCount(
      lane.length,
    );

    await tool(page, 'Contacts');
    const [standing, ...landed] = truth.contacts;
    await toFrame(page, frameOf(standing!.offS));
    await pressAt(page, standing!.px);
    for (const contact of landed) {
      await toFrame(page, frameOf(contact.onS));
      await pressAt(page, contact.px);
      await toFrame(page, frameOf(contact.offS));
      await page.keyboard.press('o');
    }
    await tool(page, 'Ground');
    await expect(page.getByText('The marks agree within')).toBeVisible();

    // What the page says of each step, beside the truth.
    const table = page.getByRole('table', { name: 'Step by step beside the plan' });
    await expect(table.getByRole('row')).toHaveCount(landed.length + 1);
    for (const [i, contact] of landed.entries()) {
      const before = i === 0 ? standing! : landed[i - 1]!;
      const beganS = i === 0 ? standing!.offS : before.onS;
      const cells = table
        .getByRole('row')
        .nth(i + 1)
        .getByRole('cell');
      const lengthM = Math.hypot(contact.alongM - before.alongM, contact.acrossM - before.acrossM);
      expect(Math.abs((await metres(cells.nth(1))) - lengthM)).toBeLessThan(0.03);
      const seenMs = Number.parseFloat((await cells.nth(4).textContent())!);
      expect(Math.abs(seenMs / 1000 - (contact.onS - beganS))).toBeLessThanOrEqual(
        gapS(frameOf(contact.onS)) + 0.001,
      );
      const groundMs = Number.parseFloat((await cells.nth(7).textContent())!);
      expect(Math.abs(groundMs / 1000 - (contact.offS - contact.onS))).toBeLessThanOrEqual(
        Math.max(gapS(frameOf(contact.onS)), gapS(frameOf(contact.offS))) + 0.001,
      );
    }
    await expect(
      page.getByText(/^Step 5: .* shorter than planned .*step 8: .* longer/),
    ).toBeVisible();

    // The body at the last contact, beside the plan's own.
    await tool(page, 'Posture');
    const last = truth.contacts.at(-1)!;
    await toFrame(page, frameOf(last.onS));
    await page.getByRole('button', { name: 'Left leg' }).click();
    for (const joint of ['shoulder', 'hip', 'knee', 'ankle', 'toe'] as const) {
      await expect(page.getByText('Press on this frame:')).toContainText(joint);
      await pressAt(page, last.joints[joint]);
    }
    const posture = page.getByRole('region', { name: 'Posture 1' });
    await expect(posture.getByRole('button', { name: 'As step 8 lands' })).toBeVisible();
    await expect(posture.getByText(/off the side; that is allowed for/)).toBeVisible();

    // What comes of it: a fault to accept, the one cue, a measured run, a still.
    await tool(page, 'Result');
    await page.getByRole('button', { name: 'Accept: Reaches on the last step' }).click();
    await page.getByRole('button', { name: 'Accept: Chops to fit' }).click();
    const cue = page.getByRole('region', { name: 'The one cue' });
    await expect(cue).toContainText('reaches on the last step');
    await expect(cue).toContainText('Once that is cured');
    await page.getByRole('group', { name: 'Mark' }).getByRole('button', { name: 'right' }).click();
    await page.getByRole('button', { name: 'As a measured run, 8 steps' }).click();
    await expect(page.getByRole('button', { name: 'Kept as a measured run' })).toBeVisible();
    await page.getByRole('button', { name: /^As a run-through: / }).click();
    await expect(page.getByRole('button', { name: 'Kept with the run-throughs' })).toBeVisible();
    const [still] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'This frame as a picture' }).click(),
    ]);
    const png = readFileSync((await still.path())!);
    expect(png.subarray(1, 4).toString()).toBe('PNG');
    expect(png.readUInt32BE(16)).toBe(truth.film.width);

    await page.getByRole('button', { name: 'Save the marks' }).click();
    await expect(page.getByText('Marks saved.')).toBeVisible();
    await page.reload();
    await expect(table.getByRole('row')).toHaveCount(landed.length + 1);
    await tool(page, 'Result');
    await expect(cue).toContainText('reaches on the last step');

    // The film itself has gone nowhere.
    expect(Math.max(...sent)).toBeLessThan(60_000);

    const trials = await page.evaluate(async () => {
      const people = (await (await fetch('/api/athletes')).json()) as {
        items: { name: string; trials: { note: string; steps: { lengthM: number }[] }[] }[];
      };
      return people.items.find(({ name }) => name === 'Mirela Dussault')!.trials;
    });
    const taken = trials.find(({ note }) => note.includes('run-up.webm'))!;
    expect(taken.steps).toHaveLength(8);
    expect(taken.steps.reduce((sum, step) => sum + step.lengthM, 0)).toBeCloseTo(
      last.alongM - standing!.alongM,
      1,
    );
  },
);

test(
  'marks are moved by keyboard, undone, and kept through a reload before they are saved',
  LONG,
  async ({ signedIn: page }) => {
    await openFilms(page);
    await page.getByRole('link', { name: 'Mirela Dussault' }).last().click();
    await expect(page.getByRole('slider', { name: 'Frame' })).toBeVisible({ timeout: 20_000 });
    expect(await axeFinds(page)).toEqual([]);
    // The body as planned stands at the same moment as the film.
    for (const [i, phase] of [
      [1, 'First steps'],
      [8, 'Arrival'],
    ] as const) {
      await toFrame(page, frameOf(truth.contacts[i]!.onS));
      await expect(
        page.getByRole('img', { name: `The body from the side: ${phase}` }),
      ).toBeVisible();
    }
    // Or another film of the same movement does.
    await page.getByLabel('Beside it').selectOption({ index: 1 });
    await expect(page.getByLabel('Film run-up.webm, beside')).toBeVisible({ timeout: 20_000 });
    await tool(page, 'Contacts');
    const table = page.getByRole('table', { name: 'Step by step beside the plan' });
    const length = table.getByRole('row').nth(8).getByRole('cell').nth(1);
    const before = await metres(length);
    const mark = page.getByRole('button', { name: 'Contact 9, left', exact: true });
    await mark.focus();
    for (let i = 0; i < 5; i += 1) await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => metres(length)).toBeGreaterThan(before + 0.2);
    await page.reload();
    await expect(page.getByText('What was typed and not saved is back.')).toBeVisible();
    await expect.poll(() => metres(length)).toBeGreaterThan(before + 0.2);
    await page.getByRole('button', { name: 'Drop it' }).click();
    await expect.poll(() => metres(length)).toBeCloseTo(before, 2);

    // A foot that was marked the wrong way round is told, and changed from there on.
    await tool(page, 'Contacts');
    await page.getByRole('button', { name: 'Contact 9: left. Change feet from here on' }).click();
    await expect(page.getByText('Contacts 8 and 9 are both right')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Contacts 8 and 9 are both right')).toBeHidden();

    // Three marks on a line span nothing.
    await tool(page, 'Ground');
    const remove = page.getByRole('button', { name: /^Remove ground mark/ });
    await expect(remove.nth(1)).toBeVisible();
    while ((await remove.count()) > 1) await remove.nth(1).click();
    await seen(page.getByText('four marks of which you know the place'));
    await page.getByRole('button', { name: 'Undo' }).click();
  },
);

test('two people mark one film: the second decides whose marks stand', async ({
  signedIn: page,
}) => {
  await openFilms(page);
  await page.getByRole('link', { name: 'Mirela Dussault' }).last().click();
  await expect(page.getByRole('slider', { name: 'Frame' })).toBeVisible({ timeout: 20_000 });
  await tool(page, 'Result');
  await page.getByLabel('Another fault that shows').selectOption('Looks for the mark');
  const id = new URL(page.url()).pathname.split('/').at(-1)!;
  await page.evaluate(async (id) => {
    const {
      archived: _,
      id: __,
      ...own
    } = (await (await fetch(`/api/reviews/${id}`)).json()) as Review;
    await fetch(`/api/reviews/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...own, faults: ['over-line'] }),
    });
  }, id);
  await page.getByRole('button', { name: 'Save the marks' }).click();
  await page.getByRole('button', { name: 'Keep mine' }).click();
  await page.getByRole('button', { name: 'Save the marks' }).click();
  await expect(page.getByText('Marks saved.')).toBeVisible();
  await page.reload();
  await tool(page, 'Result');
  await expect(page.getByRole('button', { name: 'Take back: Looks for the mark' })).toBeVisible();
});

test('what is no film, too long, unknown or turned gets a sentence, and nothing stalls', async ({
  signedIn: page,
}) => {
  await openFilms(page);
  const choose = (name: string, buffer: Buffer): Promise<void> =>
    page.getByLabel('Open a film').setInputFiles({ name, mimeType: 'video/mp4', buffer });
  const told = page.getByRole('alert');
  await choose('notes.mp4', Buffer.from('steps: 8, start: 13.80'));
  await expect(told).toHaveText(/This is no film that can be read here/);
  await choose('empty.mp4', Buffer.alloc(0));
  await expect(told).toHaveText('This file is empty.');
  const film = readFileSync(at('web/public/film/run-up.webm'));
  // The length that a WebM says of itself: two hours of it.
  const long = Buffer.from(film);
  const place = long.indexOf(Buffer.from([0x44, 0x89, 0x88]));
  long.writeDoubleBE(7_200_000, place + 3);
  await choose('match.webm', long);
  await expect(told).toHaveText(/This film lasts 2 hours\. Cut the run out of it first/);
  await choose('unknown.mkv', readFileSync(at('e2e/films/unknown.mkv')));
  await expect(told).toHaveText(/This browser cannot show the film/);

  // A phone that was held upright: as it is seen, not as it is stored.
  await choose('rotated.mp4', readFileSync(at('e2e/films/rotated.mp4')));
  await expect(page.getByText('180 × 320')).toBeVisible();
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByText('Say whom the film shows.')).toBeVisible();

  // The marks of a film are not put on another one.
  await page.getByRole('button', { name: 'Another film' }).click();
  await page.getByRole('link', { name: 'Mirela Dussault' }).last().click();
  await expect(page.getByRole('slider', { name: 'Frame' })).toBeVisible({ timeout: 20_000 });
});

test('what a film shows goes to the rep that it shows, in place of what was logged of it', async ({
  signedIn: page,
}) => {
  // A day on which she was logged.
  const day = await page.evaluate(async () => {
    const { items } = (await (await fetch('/api/athletes')).json()) as {
      items: { id: string; name: string }[];
    };
    const own = items.find(({ name }) => name === 'Mirela Dussault')!.id;
    const today = new Date();
    const from = new Date(today.getTime() - 20 * 86_400_000).toISOString().slice(0, 10);
    const to = new Date(today.getTime() - 86_400_000).toISOString().slice(0, 10);
    const sessions = (await (await fetch(`/api/sessions?from=${from}&to=${to}`)).json()) as {
      items: { id: string; date: string; drillSets: { athleteIds: string[] }[] }[];
    };
    for (const one of sessions.items.reverse()) {
      if (!one.drillSets.some((set) => set.athleteIds.includes(own))) continue;
      const log = (await (await fetch(`/api/sessions/${one.id}/reps?after=0`)).json()) as {
        items: { athleteId: string; outcome: string }[];
      };
      if (log.items.some((rep) => rep.athleteId === own && rep.outcome === 'clean'))
        return one.date;
    }
    throw new Error('nowhere logged');
  });
  await openFilms(page);
  await page.getByRole('button', { name: 'The film that ships' }).click();
  const form = page.getByRole('region', { name: 'What the film shows' });
  await form.getByLabel('Whom does it show?').selectOption('Mirela Dussault');
  await form.getByLabel('Held against').selectOption('Straight run-up');
  await form.getByLabel('Filmed on').fill(day);
  await form.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('slider', { name: 'Frame' })).toBeVisible();
  await page.getByRole('button', { name: 'Slow it down now' }).click();
  await tool(page, 'Result');
  await page.getByLabel('Another fault that shows').selectOption('Foot over the line');
  const reps = page.getByLabel('The rep that the film shows');
  const option = reps.locator('option', { hasText: 'clean' }).first();
  const words = (await option.textContent())!;
  await reps.selectOption({ label: words });
  await page.getByRole('button', { name: 'Put it there' }).click();
  await expect(
    page.getByText('It is in the log, in place of what was logged of this rep.'),
  ).toBeVisible();
  await expect(
    reps.locator('option', {
      // Whatever a second watcher has seen of the same rep stays with it.
      hasText: new RegExp(`^${words.replace('clean', '.*Foot over the line')}`),
    }),
  ).toHaveCount(1);
});

/** Opens the page of an athlete by name. */
