import type { MeasuredRun } from '@gravek/contract/session';
import { axeFinds } from '../src/axe';
import { clean, openAthlete, PHONE, runAthletics } from '../src/field';
import { LANDINGS_SPM } from '../src/landings';
import { LONG, betweenTaps, expect, goTo, test, seen } from '../src/test';

/** What devices measure, on the field screen and in files, stands beside the plan. */

test('a run of a watch and times of gates become tests of the athlete; what cannot be read is told', async ({
  signedIn: page,
}) => {
  await openAthlete(page, 'Odran Vask');
  const tests = page.getByRole('region', { name: 'Tests' });
  await tests.getByRole('button', { name: 'A run recorded elsewhere' }).click();
  const dialog = page.getByRole('dialog');
  const choose = (name: string, text: string): Promise<void> =>
    dialog
      .getByLabel('TCX or GPX file')
      .setInputFiles({ name, mimeType: 'application/xml', buffer: Buffer.from(text) });
  await choose('bomb.gpx', '<!DOCTYPE gpx [<!ENTITY a "b">]><gpx>&a;</gpx>');
  await expect(dialog.getByRole('alert')).toHaveText(/declares entities/);
  await choose('notes.tcx', 'hello');
  await expect(dialog.getByRole('alert')).toBeVisible();
  const points = Array.from(
    { length: 12 * 60 },
    (_, s) =>
      `<Trackpoint><Time>${new Date(Date.UTC(2026, 4, 1, 7) + s * 1000).toISOString()}</Time><DistanceMeters>${3 * s}</DistanceMeters><Cadence>${s < 600 ? 87 : 84}</Cadence></Trackpoint>`,
  ).join('');
  await choose(
    'easy.tcx',
    `<TrainingCenterDatabase><Activities><Activity><Lap><Track>${points}</Track></Lap></Activity></Activities></TrainingCenterDatabase>`,
  );
  await expect(dialog.getByText('12 minutes')).toBeVisible();
  await dialog.getByLabel('It was to be, steps a minute').fill('17o');
  await dialog.getByRole('button', { name: 'Keep this run' }).click();
  await expect(dialog.getByRole('alert')).toHaveText(/Write the target/);
  await dialog.getByLabel('It was to be, steps a minute').fill('174');
  await dialog.getByRole('button', { name: 'Keep this run' }).click();
  await expect(dialog).toBeHidden();
  const weeks = page.getByRole('region', { name: 'Steady cadence' });
  await expect(weeks.getByText(/Two runs of ten minutes/)).toBeVisible();
  await expect(weeks.getByRole('row', { name: /174 173 12 10 3\.00 1\.04/ })).toBeVisible();

  // The head says yards; a coach who knows better says so.
  await tests.getByRole('button', { name: 'Times from gates' }).click();
  await dialog.getByLabel('Paste the table').fill('yd;time\n5;1,35\n10;2,02\n20;3,20');
  const inUnit = (name: string) => dialog.getByRole('button', { name, exact: true });
  await expect(inUnit('yards')).toHaveAttribute('aria-pressed', 'true');
  const top = dialog.getByText(/^Top speed \d/);
  const inYards = await top.textContent();
  await inUnit('metres').click();
  await expect(top).not.toHaveText(inYards!);
  await dialog.getByLabel('Paste the table').fill('lane;when\n5;1,40\n10;2,10\n20;3,33');
  await expect(dialog.getByRole('alert')).toHaveText(/which column/);
  await dialog.getByLabel('Column lane').selectOption('distance');
  await dialog.getByLabel('Column when').selectOption('time');
  await expect(dialog.getByText(/^Top speed \d/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep these times' }).click();
  await expect(dialog).toBeHidden();
  await page.reload();
  await seen(tests.getByText('3 readings'));

  // Made-up gates run a plan: one of them is silent, the end is slow, and nothing of it is kept.
  await tests.getByRole('button', { name: 'Times from gates' }).click();
  await dialog.getByLabel('Held against').selectOption('Long jump, 14 steps');
  await dialog.getByRole('button', { name: 'Simulated gates' }).click();
  await expect(dialog.getByText(/No time came from the gate at 10.00 m/)).toBeVisible();
  await expect(dialog.getByRole('group', { name: 'Beside the plan' })).toBeVisible();
  await expect(dialog.getByText('Slows before the mark')).toBeVisible();
  await expect(dialog.getByText(/These times are made up/)).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Keep these times' })).toBeDisabled();
  expect(await axeFinds(page, { within: '.modal-dialog' })).toEqual([]);
  // What was typed for one run outlives a reload, and is emptied for the next.
  await page.reload();
  await tests.getByRole('button', { name: 'Times from gates' }).click();
  await expect(dialog.getByLabel('Paste the table')).toHaveValue(/simulated time/);
  await dialog.getByLabel('Paste the table').fill('distance;time\n5;1,40\n5;1,60\n20;3,33');
  await expect(dialog.getByRole('alert')).toBeVisible();
});

test(
  'what a device measures on the field screen stands beside the plan, is kept with the rep, and is found again',
  LONG,
  async ({ signedIn: page }) => {
    await page.setViewportSize(PHONE);
    await runAthletics(page);
    const live = page.getByRole('region', { name: 'Measured live' });
    const cadence = live.getByRole('status', { name: 'Cadence now' });
    const choose = async (device: string): Promise<void> => {
      if (await live.isVisible())
        await live.getByRole('button', { name: 'Stop', exact: true }).click();
      await page.getByRole('button', { name: 'Measure it' }).click();
      await page.getByRole('button', { name: device, exact: true }).click();
    };
    const answer = async (): Promise<void> => {
      await betweenTaps(page);
      await clean(page).click();
    };
    await choose('Step pod');
    await expect(page.getByRole('alert')).toHaveText(/Bluetooth|No pod/);
    // A thumb marks contacts as well.
    await page.getByRole('button', { name: 'Taps', exact: true }).click();
    const taps = page.getByRole('button', { name: 'Tap as each foot lands' });
    for (let i = 0; i < 6; i += 1) {
      await taps.dispatchEvent('pointerdown');
      await page.waitForTimeout(230);
    }
    await expect(cadence).toHaveText(/^\d{2,3}$/);
    await expect(
      live.getByRole('img', { name: /steps a minute\. step \d+: \d+, planned \d+/ }),
    ).toBeVisible();
    await answer();
    await expect(cadence).toHaveText('–');

    // The microphone hears them.
    await choose('Microphone');
    await expect(cadence).toHaveText(/^2[34]\d$/, { timeout: 20_000 });
    await expect(live.getByRole('img', { name: /step 8: 2/ })).toBeVisible({ timeout: 20_000 });
    await answer();

    // Gates are typed; what cannot be is told once nobody types any more, and stays to be mended.
    await choose('Gates');
    const times = live.getByLabel('Times, seconds');
    await times.fill('1,40 2,10 2,00');
    await expect(live.getByRole('alert')).toBeHidden();
    await times.blur();
    await expect(live.getByRole('alert')).toHaveText(/nobody is at 20.00 m after 2 s/);
    await times.fill('1,40 – 3,30');
    await expect(live.getByRole('status', { name: 'Speed now' })).toHaveText('7.9');
    await answer();
    await expect(times).toHaveValue('');

    // Made-up ones run the plan, with what goes wrong with real ones.
    await choose('Simulated gates');
    await expect(live.getByText('made up')).toBeVisible();
    await expect(times).toHaveValue(/^\d\.\d\d \d\.\d\d/, { timeout: 20_000 });
    await choose('Simulated pod');
    await expect(cadence).toHaveText(/^\d{2,3}$/);
    await expect(live.getByText('made up')).toBeVisible();
    await expect(live.getByText(/sent twice/)).toBeVisible({ timeout: 15_000 });
    await expect(live.getByText('The connection is lost')).toBeVisible({ timeout: 20_000 });
    await expect(live.getByText('The connection is lost')).toBeHidden({ timeout: 20_000 });
    await answer();
    const session = new URL(page.url()).pathname.split('/').at(-1)!;
    type Row = { athleteId: string; measured: MeasuredRun | null };
    const measured = async (): Promise<Row[]> =>
      page.evaluate(async (id) => {
        const log = (await (await fetch(`/api/sessions/${id}/reps?after=0`)).json()) as {
          items: Row[];
        };
        return log.items.filter((rep) => rep.measured);
      }, session);
    await expect
      .poll(async () => (await measured()).map((rep) => rep.measured!.by))
      .toEqual(['taps', 'sound', 'gates', 'pod']);
    const [byTaps, bySound, byGates, byPod] = (await measured()).map((rep) => rep.measured!);
    expect(byTaps!.steps.map(({ plannedS }) => plannedS !== null)).toEqual(Array(5).fill(true));
    expect(bySound!.steps.length).toBeGreaterThanOrEqual(7);
    // A busy machine drops a piece of what it plays to the microphone, which moves one landing.
    const offS = bySound!.steps.map(({ intervalS }) => Math.abs(intervalS - 60 / LANDINGS_SPM));
    expect(offS.filter((off) => off >= 0.02).length).toBeLessThanOrEqual(1);
    expect(byGates!.course).toMatchObject([{ atS: 1.4 }, { atS: 3.3, speedMps: 7.895 }]);
    expect(byPod!.simulated).toBe(true);

    // Whose reps they were sees them on the own page.
    const { athleteId } = (await measured())[2]!;
    await goTo(page, `/athletes/${athleteId}`);
    const reps = page.getByRole('region', { name: 'Measured reps' });
    await reps
      .getByText(/by gates/)
      .first()
      .click();
    await expect(reps.getByRole('row', { name: /^20.00 m/ })).toBeVisible();
    expect(await axeFinds(page)).toEqual([]);
  },
);
