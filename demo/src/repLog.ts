import { type Foot, footBefore } from '@gravek/core/feet';
import { type Body, bodyOf } from '@gravek/core/layout/body';
import type { StepModel } from '@gravek/core/runup/stepModel';
import type { BodyLoad, Side } from '@gravek/core/session/repLog';
import { keptVariants, variantFrom, variantKey } from '@gravek/core/session/variants';
import { isSequence } from '@gravek/contract/choices';
import type { RepInFile } from '@gravek/contract/clubFile';
import type { Movement } from '@gravek/contract/movement';
import { PLAIN_REP, type Rep, type SessionInput } from '@gravek/contract/session';
import type { SessionFaults } from '@gravek/library/cue/sessionFaults';
import { cueInForce, standingsOf, toldOf } from '@gravek/library/cue/standings';
import { type RepView, viewOfRep, wrongAnswerTo } from '@gravek/library/field/shows';
import { movementOf } from '@gravek/library/movement/movements';
import { waysOf } from '@gravek/library/movement/schools';
import { outlineOf, solve } from '@gravek/library/planning/solvePlan';
import { bodyLoad } from '@gravek/library/session/bodyLoad';
import { CLUB, type Course, type ScenarioApproach, type ScenarioAthlete, SOONER } from './scenario';

const RUN_UP = 'straight-run-up';
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
/** Of one squad two have watched so many days; and how surely one sees what the other does, and what they do not. */
const TWO_WATCH = 'Athletics';
const TWO_WATCH_DAYS = 14;
const ALSO_SEEN = 0.8;
const ONLY_SEEN = 0.03;
/** Where makes are fewest. */
const FAR_SPOT = 'left side';
/** The drill whose read is called. */
const CALLED = 'coach-points';
const SET_BELOW = 0.2;
/** When the season turns, see `turn`. */
export const TURN_DAYS_AGO = 16;

/** Somebody of the club, and how it truly goes with them. */
export type Person = ScenarioAthlete & {
  id: string;
  model: StepModel;
  /** own rate of each fault, apart from what other faults bring about; as movement/fault */
  own: Map<string, number>;
  /** what sessions showed, by movement */
  log: Map<string, SessionFaults[]>;
};

/** How the faults of somebody go, as movement/fault. */
export const storyOf = ({ story }: Pick<ScenarioAthlete, 'story'>): ScenarioAthlete['story'] =>
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
    faults.filter((other) => bringsAbout(movement, other).includes(fault.code)).forEach(place);
    placed.push(fault);
  };
  faults.forEach(place);
  return placed;
};

const key = (movement: string, fault: string): string => `${movement}/${fault}`;
export const movementCode = ({ movement = RUN_UP }: ScenarioApproach): string => movement;

/** The foot with which a plan starts for somebody. */
const bodyBy = ({ hand, takeoffFoot, heightM, shoeM, age: ageYears }: Person): Body =>
  bodyOf({ hand, takeoffFoot, heightM, shoeM, ageYears, legM: null, trials: [] });

/** By which ways a rep of a plan was taught. */
const waysTaught = (
  { choices }: ScenarioApproach,
  movement: Movement,
  way: string | null,
): string[] => {
  const [school, own] = way?.split(':') ?? [];
  return waysOf(movement, { ...choices.schools, ...(school && own ? { [school]: own } : {}) });
};

const leadFootOf = (approach: ScenarioApproach, person: Person, side: Side): Foot | null => {
  const { choices } = approach;
  if (!isSequence(choices)) {
    const takeoff = choices.takeoffFoot === 'own' ? person.takeoffFoot : choices.takeoffFoot;
    return footBefore(takeoff, choices.steps - 1);
  }
  const solved = solve(movementOf(movementCode(approach)), choices, bodyBy(person), side);
  return outlineOf(solved)?.firstFoot ?? null;
};

type Watcher = { account: string; device: string };

/**
 * The rep log of a season: what sessions showed, and how faults answer to the cue that the app gives.
 *
 * @param world.draws streams of chance: of run-ups, of all other work, of what is watched, of what is counted
 * @param world.id an id of a moment, from a stream
 * @param world.watchers who logs all of it, and who watches some of it too
 */
export const repLog = ({
  people,
  approaches,
  draws: { random, beside, watching, counting },
  id,
  watchers: [coach, second],
}: {
  people: readonly Person[];
  approaches: readonly (ScenarioApproach & { id: string })[];
  draws: Record<'random' | 'beside' | 'watching' | 'counting', () => number>;
  id: (on: Date, draw?: () => number) => string;
  watchers: readonly [Watcher, Watcher];
}) => {
  const reps: RepInFile[] = [];
  /** The cue that the app itself would have given in the session that comes next. */
  const cueOn = (person: Person, movement: Movement): string | null => {
    const log = person.log.get(movement.code) ?? [];
    const known = {
      faults: standingsOf(log, undefined, movement),
      told: toldOf(log),
      choice: null,
    };
    return cueInForce(movement, CLUB.cueSchool, known)?.fault ?? null;
  };

  const shown = (person: Person, movement: Movement, draw: () => number): string[] => {
    const seen = new Set<string>();
    for (const fault of causesFirst(movement)) {
      const causes = movement.faults.filter(
        (other) => seen.has(other.code) && bringsAbout(movement, other).includes(fault.code),
      );
      let misses = 1 - (person.own.get(key(movement.code, fault.code)) ?? STRAY);
      for (let i = 0; i < causes.length; i += 1) misses *= 1 - LINK;
      if (draw() > misses) seen.add(fault.code);
    }
    return [...seen];
  };

  /** What somebody else makes of a rep of which one has seen some faults. */
  const seenByOther = (could: readonly string[], faults: readonly string[]): string[] =>
    could.filter((code) => watching() < (faults.includes(code) ? ALSO_SEEN : ONLY_SEEN));
  /** What was asked at a read that is called, and what was made of it by who answers it wrongly or not. */
  const readOf = (
    { choices }: ScenarioApproach,
    movement: Movement,
    faults: readonly string[],
    way: string | null,
  ): Pick<Rep, 'exit' | 'taken' | 'lateS' | 'lateBy'> => {
    const isCalled = isSequence(choices) && choices.drill === CALLED;
    const phase = isCalled ? movement.phases.find(({ read }) => read) : undefined;
    if (!phase?.read) return { exit: null, taken: null, lateS: null, lateBy: null };
    const pick = (options: readonly { code: string }[]): string =>
      `${phase.code}:${options[Math.floor(watching() * options.length)]!.code}`;
    const { options } = phase.read;
    const exit = pick(options);
    const wrong = wrongAnswerTo(movement, exit);
    const taken =
      wrong && faults.includes(wrong.code)
        ? pick(options.filter(({ code }) => `${phase.code}:${code}` !== exit))
        : exit;
    const lateS = 0.45 + 0.5 * watching() - (way === SOONER.way ? SOONER.byS : 0);
    // Now and then a phone lies by the line and hears the first step.
    const isHeard = counting() < 0.3;
    return {
      ...{ exit, taken, lateBy: isHeard ? 'sound' : 'tap' },
      lateS: Number((isHeard ? 0.8 * lateS : lateS).toFixed(2)),
    };
  };
  /** Whether a try was made, or when touches were; a fault costs both, and so does a long day. */
  const countedIn = (
    { target, amount }: SessionInput['drillSets'][number],
    { faults, spot, tired }: { faults: readonly string[]; spot: string | null; tired: number },
  ): Partial<Pick<Rep, 'made' | 'touchS'>> => {
    const cost = faults.length > 0 ? 1 : 0;
    if (target === 'makes') {
      const chance = (spot === FAR_SPOT ? 0.35 : 0.65) - 0.15 * cost;
      return { made: counting() < chance };
    }
    if (target !== 'touches') return {};
    let atS = 0;
    const touchS = Array.from({ length: amount }, (_, i) => {
      if (i > 0) atS += (1.15 + 0.25 * counting()) * (1 + 0.12 * tired + 0.05 * cost);
      return Number(atS.toFixed(2));
    });
    return { touchS };
  };
  const views = new Map<string, RepView>();
  /** What a rep could show. */
  const viewOf = (
    plan: ScenarioApproach,
    movement: Movement,
    { exit, taken, way }: Pick<Rep, 'exit' | 'taken'> & { way: string | null },
  ): RepView => {
    const at = `${plan.key}/${exit}/${taken}/${way}`;
    const known = views.get(at);
    if (known) return known;
    const base = { name: plan.name, movement, choices: plan.choices };
    const rep = { exit, asked: exit, taken, faults: [] };
    const view = viewOfRep(base, { ...variantFrom('', 'own'), way }, rep);
    views.set(at, view);
    return view;
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
  const add = (session: SessionInput, daysAgo: number, on: Date): void => {
    let clock = on.getTime() + 5 * 3600_000;
    const cues = new Map<string, string | null>();
    /** athlete/movement → what was counted on the day */
    const tally = new Map<
      string,
      {
        person: Person;
        movement: Movement;
        reps: number;
        exposed: Map<string, number>;
        together: string[][];
        faults: Map<string, number>;
      }
    >();
    for (const set of session.drillSets) {
      const plan = approaches.find(
        (candidate) => set.work.kind === 'plan' && candidate.id === set.work.approachId,
      )!;
      const movement = movementOf(movementCode(plan));
      const draw = plan.movement ? beside : random;
      const turns = keptVariants(set).flatMap((variant) =>
        Array.from({ length: set.reps }, (_, i) => ({
          ...{ varied: variant, variant: variantKey(variant) },
          rep: i + 1,
        })),
      );
      for (let s = 1; s <= set.sets; s += 1) {
        turns.forEach(({ varied: { side, spot, way }, variant, rep }, t) => {
          for (const athleteId of set.athleteIds) {
            const person = people.find((candidate) => candidate.id === athleteId)!;
            const at = key(athleteId, movement.code);
            if (!cues.has(at)) cues.set(at, cueOn(person, movement));
            clock += 20_000 + Math.floor(draw() * 15_000);
            // A newcomer sits out the second set.
            const skips = draw() < 0.015 || (person.joined !== undefined && s > 1);
            const showing = skips ? [] : shown(person, movement, draw);
            const read = skips ? null : readOf(plan, movement, showing, way);
            const { could, right } = viewOf(plan, movement, {
              ...(read ?? { exit: null, taken: null }),
              way,
            });
            const faults = showing.filter((fault) => could.includes(fault));
            const day = tally.get(at) ?? {
              person,
              movement,
              reps: 0,
              exposed: new Map<string, number>(),
              together: [] as string[][],
              faults: new Map<string, number>(),
            };
            tally.set(at, day);
            if (!skips) {
              day.reps += 1;
              if (faults.length > 0) day.together.push(faults);
              for (const fault of could) day.exposed.set(fault, (day.exposed.get(fault) ?? 0) + 1);
            }
            for (const fault of faults) day.faults.set(fault, (day.faults.get(fault) ?? 0) + 1);
            const logged: RepInFile = {
              id: id(new Date(clock), draw),
              sessionId: session.id,
              drillSetId: set.id,
              athleteId,
              movement: movement.code,
              part: isSequence(plan.choices) ? plan.choices.drill : null,
              set: s,
              side,
              rep,
              turn: (s - 1) * turns.length + t + 1,
              ...PLAIN_REP,
              variant,
              ways: waysTaught(plan, movement, way),
              leadFoot: leadOf(plan, person, side),
              speedPct: Math.round(plan.choices.speedFraction * 100),
              rung: plan.choices.rung ?? null,
              load: skips ? null : loadOf(plan, person),
              outcome: skips ? 'skip' : faults.length > 0 ? 'fault' : 'clean',
              voids: null,
              faults,
              cue: cues.get(at) ?? null,
              device: coach.device,
              deviceNo: reps.length + 1,
              at: new Date(clock).toISOString(),
              loggedBy: coach.account,
              ...(read && { ...read, right }),
              ...(skips
                ? {}
                : countedIn(set, { faults, spot, tired: t / Math.max(1, turns.length - 1) })),
              could,
            };
            reps.push(logged);
            if (daysAgo > TWO_WATCH_DAYS || skips || person.squad !== TWO_WATCH) continue;
            const theirs = seenByOther(could, faults);
            reps.push({
              ...logged,
              id: id(new Date(clock), watching),
              outcome: theirs.length > 0 ? 'fault' : 'clean',
              faults: theirs,
              device: second.device,
              loggedBy: second.account,
            });
          }
        });
      }
    }
    for (const [at, { person, movement, reps: ran, exposed, together, faults }] of tally) {
      const cued = cues.get(at);
      const log = person.log.get(movement.code) ?? [];
      if (ran > 0) {
        log.push({
          date: session.date,
          reps: ran,
          exposed: [...exposed].map(([fault, reps]) => ({ fault, reps })),
          together: together.map((set) => ({ faults: set, reps: 1 })),
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
  /** When some faults come back, and others give way at last. */
  const turn = (squad: string): void => {
    for (const person of people.filter((person) => person.squad === squad)) {
      for (const [fault, [course, rate]] of Object.entries(storyOf(person))) {
        if (course === 'returns') person.own.set(fault, rate * 1.5);
        if (course === 'clicks') person.own.set(fault, rate * 0.12);
      }
    }
  };
  return { reps, add, turn };
};
