import { bodyOf } from '@gravek/core/layout/body';
import { variantFrom } from '@gravek/core/session/variants';
import type { Choices } from '@gravek/contract/approach';
import type { ClubFile } from '@gravek/contract/clubFile';
import { measuredOf, plannedRun } from '@gravek/library/measuring/measuredRun';
import { movementOf } from '@gravek/library/movement/movements';
import { variedRun } from '@gravek/library/session/work';
import { formatISO, subDays } from 'date-fns';
import { v7 } from 'uuid';
import truth from '../data/film.json';

/** Of whom the film that ships is, and the plan that she was to run. */
export const FILMED = {
  athlete: 'Mirela Dussault',
  movement: 'straight-run-up',
  name: 'Long jump, 8 steps',
  choices: {
    target: 'board',
    takeoffFoot: 'own',
    startFoot: null,
    steps: 8,
    distanceM: null,
    ending: { kind: 'penultimate', longer: 0.06, shorter: 0.05 },
    absorb: 'early',
    tolerance: 0.1,
    speedFraction: 0.92,
    checkMarks: [4],
    pins: [],
  } satisfies Choices,
} as const;

type Flat = { x: number; y: number };

/** A press goes to a whole pixel. */
const pressed = ({ x, y }: Flat): Flat => ({ x: Math.round(x), y: Math.round(y) });

/** The frame at which something is seen first. */
const frameAt = (momentS: number): { atS: number; gapS: number } => {
  const i = truth.frames.findIndex((atS) => atS >= momentS - 1e-9);
  const atS = truth.frames[i]!;
  return { atS, gapS: i > 0 ? Number((atS - truth.frames[i - 1]!).toFixed(3)) : 0.017 };
};

/** An id that is the same for the same moment and number. */
const idAt = (on: Date, n: number): string =>
  v7({ msecs: on.getTime(), random: new Uint8Array(16).fill(n) });

/** Easy runs that a pod has counted, week by week: a cadence that is being raised, and is held by now. */
const podRuns = (athleteId: string, today: Date): ClubFile['readings'] =>
  [
    {
      daysAgo: 24,
      targetSpm: 168,
      minutesSpm: [163, 162, 164, 166, 165, 163, 168, 167, 163, 162, 164, 161],
    },
    {
      daysAgo: 17,
      targetSpm: 170,
      minutesSpm: [169, 168, 170, 171, 166, 168, 170, 169, 163, 167, 169, 170],
    },
    {
      daysAgo: 10,
      targetSpm: 170,
      minutesSpm: [170, 171, 169, 170, 172, 168, 170, 171, 169, 168, 170, 171],
    },
    {
      daysAgo: 4,
      targetSpm: 170,
      minutesSpm: [171, 170, 172, 170, 169, 171, 170, 168, 171, 172, 170, 169],
    },
  ].map(({ daysAgo, targetSpm, minutesSpm }, i) => ({
    id: idAt(subDays(today, daysAgo), 3 + i),
    athleteId,
    takenOn: formatISO(subDays(today, daysAgo), { representation: 'date' }),
    source: 'device',
    note: 'From a pod',
    reading: { kind: 'steady', targetSpm, minutesSpm },
  }));

/** How she ran beside her plan, step by step: the last steps a little slow. */
const TAPPED = [1.01, 0.99, 1.0, 1.02, 0.99, 1.01, 1.0, 1.03, 1.05, 1.06];

/** Her last reps as somebody has tapped along with them, each beside the plan that it was run by. */
const tappedReps = (season: ClubFile, athleteId: string): ClubFile['reps'] => {
  const athlete = season.athletes.find(({ id }) => id === athleteId)!;
  const ownOf = <T extends { athleteId: string }>(list: readonly T[]): T[] =>
    list.filter((rep) => rep.athleteId === athleteId);
  const body = bodyOf({
    ...athlete,
    trials: ownOf(season.trials),
    readings: ownOf(season.readings),
  });
  const own = season.reps
    .filter((rep) => rep.athleteId === athleteId && rep.movement === FILMED.movement)
    .filter(({ outcome, variant }) => ['clean', 'fault'].includes(outcome) && !variant)
    .sort((a, b) => (a.at < b.at ? 1 : -1))
    // Of what two have watched, one has tapped along.
    .filter(
      (rep, i, all) =>
        all.findIndex(
          (earlier) => earlier.drillSetId === rep.drillSetId && earlier.turn === rep.turn,
        ) === i,
    )
    .slice(0, 3);
  const measured = new Map(
    own.flatMap((rep, which) => {
      const set = season.sessions
        .flatMap(({ drillSets }) => drillSets)
        .find(({ id }) => id === rep.drillSetId);
      const plan =
        set?.work.kind === 'plan'
          ? season.approaches.find(
              ({ id }) => id === (set.work as { approachId: string }).approachId,
            )
          : undefined;
      if (!plan) return [];
      const movement = movementOf(plan.movement);
      const { outline, steps } = variedRun(
        { name: plan.name, movement, choices: plan.choices },
        variantFrom('', rep.side),
        body,
      );
      const run = plannedRun(outline, steps, null);
      if (!run) return [];
      let atS = 0;
      const contacts = run.steps.slice(1).map(({ intervalS }, i) => {
        const forS = intervalS * TAPPED[(i + which) % TAPPED.length]!;
        atS += forS;
        return { atS, cadenceSpm: 60 / forS, speedMps: null };
      });
      const tapped = measuredOf({ by: 'taps', simulated: false, contacts: true }, contacts, run);
      return tapped ? [[rep.id, tapped] as const] : [];
    }),
  );
  return season.reps.map((rep) => ({ ...rep, measured: measured.get(rep.id) ?? rep.measured }));
};

/** What was counted of her before the cadence was raised: on a usual day, and on an easy one. */
const countedBefore = (athleteId: string, today: Date): ClubFile['readings'] =>
  (
    [
      { kind: 'cadence', count: 27, daysAgo: 31, n: 9 },
      { kind: 'easy-cadence', count: 26, daysAgo: 30, n: 10 },
    ] as const
  ).map(({ kind, count, daysAgo, n }) => ({
    id: idAt(subDays(today, daysAgo), n),
    athleteId,
    takenOn: formatISO(subDays(today, daysAgo), { representation: 'date' }),
    source: 'other',
    note: '',
    reading: { kind, counts: [{ count, seconds: 20 }] },
  }));

/** The demo's season with the plan that was filmed, and the film as a coach has marked it. */
export const withFilm = (season: ClubFile, today: Date): ClubFile => {
  const athleteId = season.athletes.find(({ name }) => name === FILMED.athlete)!.id;
  const filmedOn = subDays(today, 2);
  const approachId = idAt(subDays(today, 20), 1);
  const { marks, contacts, film } = truth;
  // She stands at the start until she is off; what counts of it is the moment she goes.
  const standing = contacts[0]!;
  const marked = contacts.map((contact, i) => ({
    foot: contact.foot as 'left' | 'right',
    at: pressed(contact.px),
    on: frameAt(i === 0 ? standing.offS : contact.onS),
    off: i === 0 ? null : frameAt(contact.offS),
  }));
  const approach = {
    id: approachId,
    name: FILMED.name,
    movement: FILMED.movement,
    choices: FILMED.choices,
    athleteIds: [athleteId],
  };
  const review: NonNullable<ClubFile['reviews']>[number] = {
    id: idAt(filmedOn, 2),
    athleteId,
    movement: FILMED.movement,
    approachId,
    side: 'own',
    takenOn: formatISO(filmedOn, { representation: 'date' }),
    note: '',
    film,
    view: {
      kind: 'marks',
      pairs: marks.map(({ px, ground }) => ({ px: pressed(px), ground })),
    },
    lineM: 0,
    firstStep: null,
    callS: null,
    contacts: marked,
    poses: [5, 8].map((i) => {
      const { joints, foot } = contacts[i]!;
      return {
        on: marked[i]!.on,
        foot: foot as 'left' | 'right',
        travel: 'right' as const,
        joints: {
          shoulder: pressed(joints.shoulder),
          hip: pressed(joints.hip),
          knee: pressed(joints.knee),
          ankle: pressed(joints.ankle),
          toe: pressed(joints.toe),
        },
      };
    }),
    ticks: [],
    checks: [],
    faults: [],
  };
  return {
    ...season,
    approaches: [...season.approaches, approach],
    readings: [
      ...season.readings,
      ...countedBefore(athleteId, today),
      ...podRuns(athleteId, today),
    ],
    reps: tappedReps(season, athleteId),
    reviews: [review],
  };
};
