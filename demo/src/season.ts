import {
  estimateStepModel,
  faultRate,
  footBefore,
  type Foot,
  modelCadenceSpm,
  modelLengthM,
  type SessionCount,
  type StepModel,
} from '@gravek/core';
import {
  CLUB_FILE_VERSION,
  DEMO_EMAIL,
  type ClubFile,
  type ReadingRow,
  type Rep,
  type SessionInput,
  type Trial,
} from '@gravek/contract';
import { cueFor, movementOf } from '@gravek/library';
import { addDays, formatISO, subDays } from 'date-fns';
import { randomLcg, randomNormal } from 'd3-random';
import { v7 } from 'uuid';
import {
  CLUB,
  SCENARIO_APPROACHES,
  SCENARIO_ATHLETES,
  TRAINING,
  WEEKS,
  type Course,
  type ScenarioApproach,
  type ScenarioAthlete,
} from './scenario';

const MOVEMENT = movementOf('straight-run-up');
/** How surely a fault brings about each one it leads to, and how often one shows unprovoked. */
const LINK = 0.5;
const STRAY = 0.02;
/** What is left of a fault's rate after a session in which it was cued. */
const ANSWER: Record<Course, number> = {
  clears: 0.68,
  fades: 0.88,
  returns: 0.45,
  stuck: 1,
  clicks: 1,
  steady: 1,
};
const SET_BELOW = 0.2;
/** When some faults come back, and others give way at last. */
const TURN_DAYS_AGO = 16;

type Person = ScenarioAthlete & {
  id: string;
  model: StepModel;
  /** own rate of each fault, apart from what other faults bring about */
  own: Map<string, number>;
  counts: Map<string, SessionCount[]>;
};

const iso = (date: Date): string => formatISO(date, { representation: 'date' });

/** The foot with which a run-up starts so that the take-off foot arrives. */
const leadFootOf = ({ choices }: ScenarioApproach, { takeoffFoot }: Person): Foot =>
  footBefore(choices.takeoffFoot === 'own' ? takeoffFoot : choices.takeoffFoot, choices.steps - 1);

/**
 * The demo club with its season: every figure follows from the seed and the day.
 *
 * @param today midday of the day on which the demo is loaded
 * @param password of both demo accounts
 */
export const makeSeason = (today: Date, password: string, seed = 0.17): ClubFile => {
  const random = randomLcg(seed);
  const normal = (sd: number): number => randomNormal.source(random)(0, sd)();
  const id = (on: Date): string =>
    v7({
      msecs: on.getTime(),
      seq: Math.floor(random() * 2 ** 31),
      random: Uint8Array.from({ length: 16 }, () => Math.floor(random() * 256)),
    });
  const founded = subDays(today, 7 * WEEKS + 20);

  const people = SCENARIO_ATHLETES.map((athlete): Person => {
    const usual = estimateStepModel(athlete.heightM);
    const vary = (value: number, part: number): number => value * (1 + normal(part));
    const hurdles = athlete.build === 'hurdles';
    return {
      ...athlete,
      id: id(founded),
      model: {
        firstLengthM: vary(usual.firstLengthM, 0.03) * (hurdles ? 0.66 : 1) * athlete.pace,
        topLengthM: vary(usual.topLengthM, 0.015) * (hurdles ? 0.89 : 1) * athlete.pace,
        lengthRate: vary(hurdles ? 2.7 : 3.1, 0.05),
        firstCadenceSpm: vary(208, 0.02),
        topCadenceSpm: vary(250, 0.015),
        cadenceRate: vary(2.4, 0.06),
      },
      own: new Map(Object.entries(athlete.story).map(([code, [, rate]]) => [code, rate])),
      counts: new Map(MOVEMENT.faults.map((fault) => [fault.code, []])),
    };
  });

  const runTrial = (person: Person, daysAgo: number, slip: boolean): Trial => {
    const on = subDays(today, daysAgo);
    return {
      id: id(on),
      athleteId: person.id,
      takenOn: iso(on),
      source: daysAgo > 40 ? 'other' : 'device',
      note: '',
      steps: Array.from({ length: 12 }, (_, i) => ({
        lengthM: Number(
          (modelLengthM(person.model, i + 1) + normal(0.02) + (slip && i === 6 ? 0.32 : 0)).toFixed(
            2,
          ),
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

  const approaches = SCENARIO_APPROACHES.map((approach) => ({ ...approach, id: id(founded) }));
  const onPlan = (approach: ScenarioApproach): Person[] =>
    people.filter((person) => person.plans.includes(approach.key));

  const session = (squad: string, daysAgo: number): SessionInput | null => {
    const on = subDays(today, daysAgo);
    const { title, place } = TRAINING[squad]!;
    const drillSets = approaches
      .filter((approach) => approach.squad === squad)
      .flatMap((approach) => {
        const there = onPlan(approach).filter(
          (person) =>
            (person.joined ?? Infinity) >= daysAgo &&
            !(person.restriction === 'no-jumping' && daysAgo < 9) &&
            // Who has two approaches runs the second one every other time.
            (person.plans[0] === approach.key || daysAgo % 14 < 7) &&
            (daysAgo <= 0 || random() > 0.06),
        );
        const { sets, reps, restS, setRestS } = approach;
        return there.length === 0
          ? []
          : [
              {
                id: id(on),
                approachId: approach.id,
                athleteIds: there.map((person) => person.id),
                sets,
                reps,
                sides: ['own' as const],
                restS,
                setRestS,
              },
            ];
      });
    if (drillSets.length === 0) return null;
    return {
      id: id(on),
      date: iso(on),
      title: `${squad}: ${title.toLowerCase()}`,
      place,
      drillSets,
    };
  };

  /** The cue that the app itself would have given on that day. */
  const cueOn = (person: Person, onDate: string): string | null =>
    cueFor(
      MOVEMENT,
      CLUB.cueSchool,
      [...person.counts]
        .filter(([, sessions]) => sessions.some((session) => session.faults > 0))
        .map(([code, sessions]) => ({ code, rate: faultRate({ sessions, onDate }).rate })),
    )?.fault.code ?? null;

  const shown = (person: Person): string[] => {
    const seen = new Set<string>();
    for (const fault of MOVEMENT.faults) {
      const causes = MOVEMENT.faults.filter(
        (one) => seen.has(one.code) && one.leadsTo.includes(fault.code),
      );
      let misses = 1 - (person.own.get(fault.code) ?? STRAY);
      for (let i = 0; i < causes.length; i += 1) misses *= 1 - LINK;
      if (random() > misses) seen.add(fault.code);
    }
    return [...seen];
  };

  /** the phone of the coach who logs all of it */
  const phone = id(founded);
  const reps: Rep[] = [];
  const logSession = (one: SessionInput, daysAgo: number): void => {
    const start = subDays(today, daysAgo).getTime() + 5 * 3600_000;
    let clock = start;
    const cues = new Map<string, string | null>();
    const tally = new Map<string, { reps: number; faults: Map<string, number> }>();
    for (const set of one.drillSets) {
      const plan = approaches.find((candidate) => candidate.id === set.approachId)!;
      for (let s = 1; s <= set.sets; s += 1) {
        for (let r = 1; r <= set.reps; r += 1) {
          for (const athleteId of set.athleteIds) {
            const person = people.find((candidate) => candidate.id === athleteId)!;
            if (!cues.has(athleteId)) {
              cues.set(athleteId, cueOn(person, one.date));
            }
            clock += 20_000 + Math.floor(random() * 15_000);
            // A newcomer sits out the second set.
            const skips = random() < 0.015 || (person.joined !== undefined && s > 1);
            const faults = skips ? [] : shown(person);
            const day = tally.get(athleteId) ?? { reps: 0, faults: new Map<string, number>() };
            tally.set(athleteId, day);
            if (!skips) day.reps += 1;
            for (const fault of faults) day.faults.set(fault, (day.faults.get(fault) ?? 0) + 1);
            reps.push({
              id: id(new Date(clock)),
              sessionId: one.id,
              drillSetId: set.id,
              athleteId,
              movement: MOVEMENT.code,
              part: null,
              set: s,
              side: 'own',
              rep: r,
              turn: (s - 1) * set.reps + r,
              leadFoot: leadFootOf(plan, person),
              speedPct: Math.round(plan.choices.speedFraction * 100),
              outcome: skips ? 'skip' : faults.length > 0 ? 'fault' : 'clean',
              voids: null,
              faults,
              cue: cues.get(athleteId) ?? null,
              device: phone,
              deviceNo: reps.length + 1,
              at: new Date(clock).toISOString(),
            });
          }
        }
      }
    }
    for (const [athleteId, day] of tally) {
      const person = people.find((candidate) => candidate.id === athleteId)!;
      for (const [code, counts] of person.counts) {
        counts.push({ date: one.date, reps: day.reps, faults: day.faults.get(code) ?? 0 });
      }
      for (const [code, [course]] of Object.entries(person.story)) {
        const rate = person.own.get(code) ?? 0;
        const turned = daysAgo <= TURN_DAYS_AGO;
        if (course === 'returns' && turned) continue;
        if (cues.get(athleteId) === code) person.own.set(code, rate * ANSWER[course]);
        // What has become rare goes by itself; the new habit has set.
        else if (rate < SET_BELOW && ANSWER[course] < 1) person.own.set(code, rate / 2);
      }
    }
  };

  const sessions: SessionInput[] = [];
  for (let daysAgo = 7 * WEEKS; daysAgo >= -6; daysAgo -= 1) {
    for (const [squad, { every }] of Object.entries(TRAINING)) {
      if (!every.includes(((daysAgo % 7) + 7) % 7)) continue;
      if (daysAgo === TURN_DAYS_AGO - (TURN_DAYS_AGO % 7) + every[0]!) {
        for (const person of people.filter((person) => person.squad === squad)) {
          for (const [code, [course, rate]] of Object.entries(person.story)) {
            if (course === 'returns') person.own.set(code, rate * 1.5);
            if (course === 'clicks') person.own.set(code, rate * 0.12);
          }
        }
      }
      const one = session(squad, daysAgo);
      if (!one) continue;
      sessions.push(one);
      if (daysAgo > 0) logSession(one, daysAgo);
    }
  }

  const year = today.getFullYear();
  return {
    format: 'gravek-club',
    version: CLUB_FILE_VERSION,
    clubId: id(founded),
    club: { ...CLUB },
    people: [
      { id: id(founded), person: 'Runa Telford', email: DEMO_EMAIL, role: 'owner', password },
      {
        id: id(founded),
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
              note:
                person.restriction === 'no-jumping'
                  ? 'Sore knee; run-throughs when cleared.'
                  : 'Half the usual reps.',
            },
          ]
        : [],
    ),
    trials,
    readings,
    movements: [],
    ruleSets: [],
    approaches: approaches.map((approach) => ({
      id: approach.id,
      name: approach.name,
      movement: 'straight-run-up',
      choices: approach.choices,
      athleteIds: onPlan(approach).map((person) => person.id),
    })),
    sessions,
    reps,
  };
};
