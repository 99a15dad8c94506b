import { modelCadenceSpm, modelLengthM, type StepModel } from '@gravek/core/runup/stepModel';
import type { Trial } from '@gravek/contract/athlete';
import { CLUB_FILE_VERSION, DEMO_EMAIL, type ClubFile } from '@gravek/contract/clubFile';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import type { GroundInput, OnGround } from '@gravek/contract/ground';
import type { ReadingRow } from '@gravek/contract/reading';
import type { SessionInput } from '@gravek/contract/session';
import { WEEKDAYS } from '@gravek/contract/weekdays';
import { movementOf } from '@gravek/library/movement/movements';
import { takenFrom } from '@gravek/library/planning/onGround';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import { setOfWork } from '@gravek/library/session/setOfWork';
import { addDays, formatISO, getISODay, subDays } from 'date-fns';
import { randomLcg, randomNormal } from 'd3-random';
import { v7 } from 'uuid';
import { movementCode, repLog, storyOf, TURN_DAYS_AGO, type Person } from './repLog';
import {
  BOTH_WAYS,
  CLUB,
  GROUNDS,
  NEXT_IN_DAYS,
  COUNTED,
  NEXT_TRAINING,
  SCENARIO_APPROACHES,
  SCENARIO_ATHLETES,
  TRAINING,
  WEEKS,
  type ScenarioApproach,
  type Training,
} from './scenario';

/** The steps that the squad's trained athletes have for their height, before each varies. */
const trained = (heightM: number): StepModel => ({
  firstLengthM: 0.66 * heightM,
  topLengthM: 1.22 * heightM,
  lengthRate: 3,
  firstCadenceSpm: 206,
  topCadenceSpm: 248,
  cadenceRate: 2.3,
});
/** How a measured run is long or short, and each of its steps besides, as parts of a length. */
const RUN_SCATTER = 0.01;
const STEP_SCATTER = 0.02;
const YOUTH = 'Handball youth';

const NOTES = {
  'no-jumping': 'Sore knee; run-throughs when cleared.',
  'no-contact': 'Bruised rib; footwork on air goes on.',
  reduced: 'Half the usual reps.',
};

const iso = (date: Date): string => formatISO(date, { representation: 'date' });

/**
 * The demo club with its season: every figure follows from the seed and the day.
 *
 * @param today midday of the day on which the demo is loaded
 * @param password of both demo accounts
 */
export const makeSeason = (today: Date, password: string, seed = 0.17): ClubFile => {
  // Run-ups draw from one stream, all other work from another, measured runs from a third: each stays as it is.
  const random = randomLcg(seed);
  const beside = randomLcg(seed / 2);
  const ran = randomLcg(seed / 5);
  const normal = (sd: number): number => randomNormal.source(ran)(0, sd)();
  const id = (on: Date, draw = random): string =>
    v7({
      msecs: on.getTime(),
      seq: Math.floor(draw() * 2 ** 31),
      random: Uint8Array.from({ length: 16 }, () => Math.floor(draw() * 256)),
    });
  const founded = subDays(today, 7 * WEEKS + 20);

  const ground = randomLcg(seed / 3);
  const grounds = GROUNDS.map(({ slots, ...built }): GroundInput => ({
    ...built,
    id: id(founded, ground),
    slots: Object.entries(slots).flatMap(([squad, [from, to]]) =>
      TRAINING[squad]!.every.map((daysAgo) => ({
        day: WEEKDAYS[getISODay(subDays(today, daysAgo)) - 1]!,
        from,
        to,
      })),
    ),
  }));
  const groundBy = (name: string) => grounds.find((ground) => ground.name === name)!;
  /** Where a squad's plans are set out. */
  const groundOf = (squad: string): OnGround => takenFrom(groundBy(TRAINING[squad]!.ground));

  const people = SCENARIO_ATHLETES.map((athlete): Person => {
    const draw = athlete.squad === YOUTH ? beside : random;
    const usual = trained(athlete.heightM ?? 1.5);
    const vary = (value: number, part: number): number =>
      value * (1 + randomNormal.source(draw)(0, part)());
    const hurdles = athlete.build === 'hurdles';
    return {
      ...athlete,
      id: id(founded, draw),
      model: {
        firstLengthM: vary(usual.firstLengthM, 0.03) * (hurdles ? 0.66 : 1) * athlete.pace,
        topLengthM: vary(usual.topLengthM, 0.015) * (hurdles ? 0.89 : 1) * athlete.pace,
        lengthRate: vary(hurdles ? 2.7 : 3.1, 0.05),
        firstCadenceSpm: vary(208, 0.02),
        topCadenceSpm: vary(250, 0.015),
        cadenceRate: vary(2.4, 0.06),
      },
      own: new Map(
        Object.entries(storyOf(athlete)).map(([fault, [, rate]]) => [fault, rate] as const),
      ),
      log: new Map(),
    };
  });

  const runTrial = (person: Person, daysAgo: number, slip: boolean): Trial => {
    const on = subDays(today, daysAgo);
    const whole = normal(RUN_SCATTER);
    return {
      id: id(on),
      athleteId: person.id,
      takenOn: iso(on),
      source: daysAgo > 40 ? 'other' : 'device',
      note: '',
      steps: Array.from({ length: 12 }, (_, i) => ({
        lengthM: Number(
          (
            modelLengthM(person.model, i + 1) * (1 + whole + normal(STEP_SCATTER)) +
            (slip && i === 6 ? 0.32 : 0)
          ).toFixed(2),
        ),
        intervalS: Number((60 / modelCadenceSpm(person.model, i + 1) + normal(0.003)).toFixed(3)),
      })),
    };
  };
  const trials = people
    .filter((person) => person.trial !== false)
    .flatMap((person, i) => [
      runTrial(person, 60, i === 1),
      ...(i % 3 ? [runTrial(person, 9, false)] : []),
    ]);

  const readings = people.flatMap((person): ReadingRow[] =>
    (person.readings ?? []).map(({ daysAgo, source, reading }) => {
      const on = subDays(today, daysAgo);
      return { id: id(on), athleteId: person.id, takenOn: iso(on), source, note: '', reading };
    }),
  );

  const approaches = SCENARIO_APPROACHES.map((approach) => ({
    ...approach,
    id: id(founded, approach.movement ? beside : random),
  }));
  const onPlan = (approach: ScenarioApproach): Person[] =>
    people.filter((person) => person.plans.includes(approach.key));

  const ofPlan = (
    setId: string,
    { id: approachId, key, sets, reps, restS, setRestS, sides }: (typeof approaches)[number],
    athleteIds: string[],
    daysAgo: number,
  ): DrillSet => {
    const fresh = freshDrillSet(setId, { kind: 'plan', approachId }, athleteIds);
    const { spots = [], ...counted } = COUNTED[key] ?? {};
    const ways = BOTH_WAYS[key] ?? [];
    const vary = {
      ...fresh.vary,
      sides: sides ?? fresh.vary.sides,
      ways,
      // One of them a week; in what comes all of them, to begin at what was missed.
      spots:
        daysAgo > 0 ? spots.filter((_, i) => i === Math.floor(daysAgo / 7) % spots.length) : spots,
    };
    const order = ways.length > 0 ? 'mixed' : fresh.order;
    return { ...fresh, ...counted, vary, order, sets, reps, restS, setRestS };
  };

  /** Everybody of the squad, keepers where only they are meant, but nobody whom it would harm. */
  const nextTraining = (on: Date): DrillSet[] =>
    NEXT_TRAINING.map(({ drill, plan: planKey, warmUp, keepers = false, set }) => {
      const plan = approaches.find((approach) => approach.key === planKey);
      const code = drill?.[0] ?? (plan && movementCode(plan));
      const movement = code === undefined ? undefined : movementOf(code);
      const there = people.filter(
        (person) =>
          person.squad === 'Handball' &&
          (warmUp !== undefined || person.positions.includes('keeper') === keepers) &&
          !(person.restriction === 'no-contact' && movement?.loads.includes('contact')),
      );
      const work: Work = drill
        ? { kind: 'movement', movement: drill[0], drill: drill[1] }
        : plan
          ? { kind: 'plan', approachId: plan.id }
          : { kind: 'warm-up', name: warmUp ?? '' };
      const asTaught = setOfWork(
        id(on, beside),
        work,
        there.map((person) => person.id),
        movement,
      );
      return { ...asTaught, ...set, vary: { ...asTaught.vary, ...set?.vary } };
    });

  const session = (squad: string, daysAgo: number): SessionInput | null => {
    const on = subDays(today, daysAgo);
    const { title, ground, every } = TRAINING[squad]!;
    const week = ((daysAgo % 14) + 14) % 14;
    const training: Training = week % 7 === every[0] ? 'first' : week < 7 ? 'second' : 'third';
    const drillSets = approaches
      .filter(({ squad: own, days }) => own === squad && (!days || days.includes(training)))
      .flatMap((approach) => {
        const draw = approach.movement ? beside : random;
        const there = onPlan(approach).filter(
          (person) =>
            (person.joined ?? Infinity) >= daysAgo &&
            !(person.restriction === 'no-jumping' && daysAgo < 9) &&
            // Who has two approaches runs the second one every other time.
            (approach.movement !== undefined ||
              person.plans[0] === approach.key ||
              daysAgo % 14 < 7) &&
            (daysAgo <= 0 || draw() > 0.06),
        );
        return there.length === 0
          ? []
          : [
              ofPlan(
                id(on, draw),
                approach,
                there.map((person) => person.id),
                daysAgo,
              ),
            ];
      });
    if (drillSets.length === 0) return null;
    if (squad === 'Handball' && daysAgo === -NEXT_IN_DAYS) {
      drillSets.splice(0, Infinity, ...nextTraining(on));
    }
    return {
      id: id(on, squad === YOUTH ? beside : random),
      date: iso(on),
      title: `${squad}: ${title.toLowerCase()}`,
      groundId: groundBy(ground).id,
      place: '',
      template: squad === 'Handball' && daysAgo === -NEXT_IN_DAYS,
      drillSets,
    };
  };

  const watching = randomLcg(seed / 7);
  const [runa, aldo] = [id(founded, watching), id(founded, watching)];
  const log = repLog({
    people,
    approaches,
    draws: { random, beside, watching, counting: randomLcg(seed / 13) },
    id,
    watchers: [
      // The coach who logs all of it, and who watches some of it too.
      { account: runa, device: id(founded) },
      { account: aldo, device: id(founded, watching) },
    ],
  });
  const sessions: SessionInput[] = [];
  for (let daysAgo = 7 * WEEKS; daysAgo >= -6; daysAgo -= 1) {
    for (const [squad, { every }] of Object.entries(TRAINING)) {
      if (!every.includes(((daysAgo % 7) + 7) % 7)) continue;
      if (daysAgo === TURN_DAYS_AGO - (TURN_DAYS_AGO % 7) + every[0]!) {
        log.turn(squad);
      }
      const training = session(squad, daysAgo);
      if (!training) continue;
      sessions.push(training);
      if (daysAgo > 0) log.add(training, daysAgo, subDays(today, daysAgo));
    }
  }

  const year = today.getFullYear();
  return {
    format: 'gravek-club',
    version: CLUB_FILE_VERSION,
    clubId: id(founded),
    club: { ...CLUB },
    people: [
      {
        id: id(founded),
        account: runa,
        person: 'Runa Telford',
        email: DEMO_EMAIL,
        role: 'owner',
        password,
      },
      {
        id: id(founded),
        account: aldo,
        person: 'Aldo Penhale',
        email: 'assistant@demo.invalid',
        role: 'assistant',
        password,
      },
    ],
    athletes: people.map((person) => ({
      id: person.id,
      name: person.name,
      squad: person.squad,
      hand: person.hand,
      takeoffFoot: person.takeoffFoot,
      shoeM: person.shoeM,
      heightM: person.heightM,
      legM: null,
      birthYear: year - person.age,
      bornOn: null,
      positions: person.positions,
    })),
    restrictions: people.flatMap((person) =>
      person.restriction
        ? [
            {
              id: id(today),
              athleteId: person.id,
              kind: person.restriction,
              from: iso(subDays(today, 8)),
              until: iso(addDays(today, 12)),
              share: 0.5,
              note: NOTES[person.restriction],
            },
          ]
        : [],
    ),
    trials,
    readings,
    movements: [],
    ruleSets: [],
    grounds,
    approaches: approaches.map((approach) => ({
      id: approach.id,
      name: approach.name,
      movement: movementCode(approach),
      choices: { ...approach.choices, ground: groundOf(approach.squad) },
      athleteIds: onPlan(approach).map((person) => person.id),
    })),
    sessions,
    reps: log.reps,
  };
};
