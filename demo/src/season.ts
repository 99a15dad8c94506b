import {
  bodyOf,
  footBefore,
  type Body,
  type BodyLoad,
  type Foot,
  modelCadenceSpm,
  modelLengthM,
  type Side,
  type StepModel,
} from '@gravek/core';
import {
  CLUB_FILE_VERSION,
  DEMO_EMAIL,
  isSequence,
  PLAIN_REP,
  WEEKDAYS,
  type ClubFile,
  type DrillSet,
  type GroundInput,
  type Movement,
  type OnGround,
  type ReadingRow,
  type Rep,
  type RepInFile,
  type SessionInput,
  type Trial,
  type Work,
} from '@gravek/contract';
import {
  bodyLoad,
  cueInForce,
  freshDrillSet,
  movementOf,
  outlineOf,
  solve,
  standingsOf,
  takenFrom,
  toldOf,
  type SessionFaults,
} from '@gravek/library';
import { addDays, formatISO, getISODay, subDays } from 'date-fns';
import { randomLcg, randomNormal } from 'd3-random';
import { v7 } from 'uuid';
import {
  CLUB,
  GROUNDS,
  NEXT_IN_DAYS,
  NEXT_TRAINING,
  SCENARIO_APPROACHES,
  SCENARIO_ATHLETES,
  TRAINING,
  WEEKS,
  type Course,
  type ScenarioApproach,
  type ScenarioAthlete,
  type Training,
} from './scenario';

const RUN_UP = 'straight-run-up';
/** The steps that the squad's trained athletes have for their height, before each varies. */
const trained = (heightM: number): StepModel => ({
  firstLengthM: 0.66 * heightM,
  topLengthM: 1.22 * heightM,
  lengthRate: 3,
  firstCadenceSpm: 206,
  topCadenceSpm: 248,
  cadenceRate: 2.3,
});
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
  steady: 0.93,
};
/** How a measured run is long or short, and each of its steps besides, as parts of a length. */
const RUN_SCATTER = 0.01;
const STEP_SCATTER = 0.02;
/** Of one squad two have watched so many days; and how surely one sees what the other does, and what they do not. */
const TWO_WATCH = 'Athletics';
const TWO_WATCH_DAYS = 14;
const ALSO_SEEN = 0.8;
const ONLY_SEEN = 0.03;
/** A movement whose read is called, and how often it is taken right. */
const CALLED = 'give-ground';
const READ_RIGHT = 0.7;
const SET_BELOW = 0.2;
/** When some faults come back, and others give way at last. */
const TURN_DAYS_AGO = 16;

type Person = ScenarioAthlete & {
  id: string;
  model: StepModel;
  /** own rate of each fault, apart from what other faults bring about; as movement/fault */
  own: Map<string, number>;
  /** what sessions showed, by movement */
  log: Map<string, SessionFaults[]>;
};

const YOUTH = 'Handball youth';

const NOTES = {
  'no-jumping': 'Sore knee; run-throughs when cleared.',
  'no-contact': 'Bruised rib; footwork on air goes on.',
  reduced: 'Half the usual reps.',
};

/** How the faults of somebody go, as movement/fault. */
const storyOf = ({ story }: Pick<ScenarioAthlete, 'story'>): ScenarioAthlete['story'] =>
  Object.fromEntries(
    Object.entries(story).map(([fault, course]) => [
      fault.includes('/') ? fault : key(RUN_UP, fault),
      course,
    ]),
  );

/** What brings about what in this squad and in no book: for the application to find. */
const UNWRITTEN = { movement: RUN_UP, from: 'looks-down', to: 'over-line' };

/** What a fault truly brings about. */
const bringsAbout = (
  movement: Movement,
  { code, leadsTo }: Movement['faults'][number],
): string[] =>
  movement.code === UNWRITTEN.movement && code === UNWRITTEN.from
    ? [...leadsTo, UNWRITTEN.to]
    : leadsTo;

/** Faults so that none comes before what brings it about. */
const causesFirst = (movement: Movement): Movement['faults'] => {
  const { faults } = movement;
  const placed: Movement['faults'] = [];
  const place = (fault: Movement['faults'][number]): void => {
    if (placed.includes(fault)) return;
    faults.filter((one) => bringsAbout(movement, one).includes(fault.code)).forEach(place);
    placed.push(fault);
  };
  faults.forEach(place);
  return placed;
};

const iso = (date: Date): string => formatISO(date, { representation: 'date' });

const key = (movement: string, fault: string): string => `${movement}/${fault}`;
const movementCode = ({ movement = RUN_UP }: ScenarioApproach): string => movement;

/** The foot with which a plan starts for somebody. */
const bodyBy = ({ hand, takeoffFoot, heightM, shoeM, age: ageYears }: Person): Body =>
  bodyOf({ hand, takeoffFoot, heightM, shoeM, ageYears, legM: null, trials: [] });

const leadFootOf = (approach: ScenarioApproach, person: Person, side: Side): Foot | null => {
  const { choices } = approach;
  if (!isSequence(choices)) {
    const takeoff = choices.takeoffFoot === 'own' ? person.takeoffFoot : choices.takeoffFoot;
    return footBefore(takeoff, choices.steps - 1);
  }
  const solved = solve(movementOf(movementCode(approach)), choices, bodyBy(person), side);
  return outlineOf(solved)?.firstFoot ?? null;
};

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
  const grounds = GROUNDS.map(({ slots, ...one }): GroundInput => ({
    ...one,
    id: id(founded, ground),
    slots: Object.entries(slots).flatMap(([squad, [from, to]]) =>
      TRAINING[squad]!.every.map((daysAgo) => ({
        day: WEEKDAYS[getISODay(subDays(today, daysAgo)) - 1]!,
        from,
        to,
      })),
    ),
  }));
  const groundBy = (name: string) => grounds.find((one) => one.name === name)!;
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
    { id: approachId, sets, reps, restS, setRestS, sides }: (typeof approaches)[number],
    athleteIds: string[],
  ): DrillSet => {
    const fresh = freshDrillSet(setId, { kind: 'plan', approachId }, athleteIds);
    const vary = { ...fresh.vary, sides: sides ?? fresh.vary.sides };
    return { ...fresh, vary, sets, reps, restS, setRestS };
  };

  /** Everybody of the squad, keepers where only they are meant, but nobody whom it would harm. */
  const nextTraining = (on: Date): DrillSet[] =>
    NEXT_TRAINING.map(({ plan: planKey, warmUp, keepers = false, set }) => {
      const plan = approaches.find((one) => one.key === planKey);
      const movement = plan && movementOf(movementCode(plan));
      const there = people.filter(
        (person) =>
          person.squad === 'Handball' &&
          (warmUp !== undefined || person.positions.includes('keeper') === keepers) &&
          !(person.restriction === 'no-contact' && movement?.loads.includes('contact')),
      );
      const work: Work =
        plan === undefined
          ? { kind: 'warm-up', name: warmUp ?? '' }
          : { kind: 'plan', approachId: plan.id };
      const fresh = freshDrillSet(
        id(on, beside),
        work,
        there.map((person) => person.id),
      );
      return { ...fresh, ...set, vary: { ...fresh.vary, ...set.vary } };
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

  /** The cue that the app itself would have given in the session that comes next. */
  const cueOn = (person: Person, movement: Movement): string | null => {
    const log = person.log.get(movement.code) ?? [];
    const known = { faults: standingsOf(log), told: toldOf(log), choice: null };
    return cueInForce(movement, CLUB.cueSchool, known)?.fault ?? null;
  };

  const shown = (person: Person, movement: Movement, draw: () => number): string[] => {
    const seen = new Set<string>();
    for (const fault of causesFirst(movement)) {
      const causes = movement.faults.filter(
        (one) => seen.has(one.code) && bringsAbout(movement, one).includes(fault.code),
      );
      let misses = 1 - (person.own.get(key(movement.code, fault.code)) ?? STRAY);
      for (let i = 0; i < causes.length; i += 1) misses *= 1 - LINK;
      if (draw() > misses) seen.add(fault.code);
    }
    return [...seen];
  };

  const watching = randomLcg(seed / 7);
  const [runa, aldo] = [id(founded, watching), id(founded, watching)];
  /** the phone of the coach who logs all of it, and that of who watches some of it too */
  const phone = id(founded);
  const other = id(founded, watching);
  const reps: RepInFile[] = [];
  /** What somebody else makes of a rep of which one has seen some faults. */
  const seenByOther = (movement: Movement, faults: readonly string[]): string[] =>
    movement.faults
      .map(({ code }) => code)
      .filter((code) => watching() < (faults.includes(code) ? ALSO_SEEN : ONLY_SEEN));
  /** What was asked at a read that is called, and what was made of it. */
  const readOf = (movement: Movement): Pick<Rep, 'exit' | 'taken' | 'lateS'> => {
    const phase = movement.code === CALLED ? movement.phases.find((one) => one.read) : undefined;
    if (!phase?.read) return { exit: null, taken: null, lateS: null };
    const { options } = phase.read;
    const pick = (): string =>
      `${phase.code}:${options[Math.floor(watching() * options.length)]!.code}`;
    const exit = pick();
    const taken = watching() < READ_RIGHT ? exit : pick();
    return { exit, taken, lateS: Number((0.25 + 0.35 * watching()).toFixed(2)) };
  };
  const leads = new Map<string, Foot | null>();
  const leadOf = (plan: ScenarioApproach, person: Person, side: Side): Foot | null => {
    const at = `${plan.key}/${person.id}/${side}`;
    const known = leads.get(at);
    if (known !== undefined) return known;
    const foot = leadFootOf(plan, person, side);
    leads.set(at, foot);
    return foot;
  };
  const loads = new Map<string, BodyLoad | null>();
  const loadOf = (plan: ScenarioApproach, person: Person): BodyLoad | null => {
    const at = `${plan.key}/${person.id}`;
    if (!loads.has(at)) {
      const body = bodyBy(person);
      const solved = solve(movementOf(movementCode(plan)), plan.choices, body);
      loads.set(at, bodyLoad(solved, body));
    }
    return loads.get(at)!;
  };
  const logSession = (one: SessionInput, daysAgo: number): void => {
    const start = subDays(today, daysAgo).getTime() + 5 * 3600_000;
    let clock = start;
    const cues = new Map<string, string | null>();
    /** athlete/movement → what was counted on the day */
    const tally = new Map<
      string,
      { person: Person; movement: Movement; reps: number; faults: Map<string, number> }
    >();
    for (const set of one.drillSets) {
      const plan = approaches.find(
        (candidate) => set.work.kind === 'plan' && candidate.id === set.work.approachId,
      )!;
      const movement = movementOf(movementCode(plan));
      const draw = plan.movement ? beside : random;
      const turns = set.vary.sides.flatMap((side) =>
        Array.from({ length: set.reps }, (_, i) => ({ side, rep: i + 1 })),
      );
      for (let s = 1; s <= set.sets; s += 1) {
        turns.forEach(({ side, rep }, t) => {
          for (const athleteId of set.athleteIds) {
            const person = people.find((candidate) => candidate.id === athleteId)!;
            const at = key(athleteId, movement.code);
            if (!cues.has(at)) cues.set(at, cueOn(person, movement));
            clock += 20_000 + Math.floor(draw() * 15_000);
            // A newcomer sits out the second set.
            const skips = draw() < 0.015 || (person.joined !== undefined && s > 1);
            const faults = skips ? [] : shown(person, movement, draw);
            const day = tally.get(at) ?? {
              person,
              movement,
              reps: 0,
              faults: new Map<string, number>(),
            };
            tally.set(at, day);
            if (!skips) day.reps += 1;
            for (const fault of faults) day.faults.set(fault, (day.faults.get(fault) ?? 0) + 1);
            const logged: RepInFile = {
              id: id(new Date(clock), draw),
              sessionId: one.id,
              drillSetId: set.id,
              athleteId,
              movement: movement.code,
              part: isSequence(plan.choices) ? plan.choices.drill : null,
              set: s,
              side,
              rep,
              turn: (s - 1) * turns.length + t + 1,
              ...PLAIN_REP,
              leadFoot: leadOf(plan, person, side),
              speedPct: Math.round(plan.choices.speedFraction * 100),
              rung: plan.choices.rung ?? null,
              load: skips ? null : loadOf(plan, person),
              outcome: skips ? 'skip' : faults.length > 0 ? 'fault' : 'clean',
              voids: null,
              faults,
              cue: cues.get(at) ?? null,
              device: phone,
              deviceNo: reps.length + 1,
              at: new Date(clock).toISOString(),
              loggedBy: runa,
              ...(skips ? {} : readOf(movement)),
            };
            reps.push(logged);
            if (daysAgo > TWO_WATCH_DAYS || skips || person.squad !== TWO_WATCH) continue;
            const theirs = seenByOther(movement, faults);
            reps.push({
              ...logged,
              id: id(new Date(clock), watching),
              outcome: theirs.length > 0 ? 'fault' : 'clean',
              faults: theirs,
              device: other,
              loggedBy: aldo,
            });
          }
        });
      }
    }
    for (const [at, { person, movement, reps: ran, faults }] of tally) {
      const cued = cues.get(at);
      const log = person.log.get(movement.code) ?? [];
      if (ran > 0) {
        log.push({
          date: one.date,
          reps: ran,
          faults: [...faults].map(([fault, shown]) => ({ fault, reps: shown })),
          cues: cued ? [{ fault: cued, last: new Date(clock).toISOString() }] : [],
        });
      }
      person.log.set(movement.code, log);
      for (const [fault, [course]] of Object.entries(storyOf(person))) {
        if (!fault.startsWith(`${movement.code}/`)) continue;
        const rate = person.own.get(fault) ?? 0;
        const turned = daysAgo <= TURN_DAYS_AGO;
        if (course === 'returns' && turned) continue;
        if (cued && key(movement.code, cued) === fault) {
          person.own.set(fault, rate * ANSWER[course]);
        }
        // What has become rare goes by itself; the new habit has set.
        else if (rate < SET_BELOW && ANSWER[course] < 1) person.own.set(fault, rate / 2);
      }
    }
  };

  const sessions: SessionInput[] = [];
  for (let daysAgo = 7 * WEEKS; daysAgo >= -6; daysAgo -= 1) {
    for (const [squad, { every }] of Object.entries(TRAINING)) {
      if (!every.includes(((daysAgo % 7) + 7) % 7)) continue;
      if (daysAgo === TURN_DAYS_AGO - (TURN_DAYS_AGO % 7) + every[0]!) {
        for (const person of people.filter((person) => person.squad === squad)) {
          for (const [code, [course, rate]] of Object.entries(storyOf(person))) {
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
    reps,
  };
};
