import type { Body } from '@gravek/core/layout/body';
import { shareMarks } from '@gravek/core/runup/setOut';
import { addLoads } from '@gravek/core/session/repCounts';
import { LOAD_KINDS, type LoadKind } from '@gravek/core/session/repLog';
import { keptVariants } from '@gravek/core/session/variants';
import { counted } from '@gravek/core/words';
import type { Circuit } from '@gravek/contract/circuit';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import { drillOfBase } from './fieldRun';
import { type Mend, mends } from './mend';
import { type StationTime, stationTime } from './atStation';
import { type Conditions, drillSetTime, restFor, sessionReps, type SetTime } from './sessionTime';
import { addTime, allOf, NO_TIME, type SpentTime, timesOver } from './spentTime';
import {
  goingRoundS,
  lanesOfStation,
  placed,
  type Placed,
  stationsOf,
  twoPlaces,
} from './timeAxis';
import { asVaried, type Base, notJoined, variedRun } from './work';

/** What a drill set comes to in its session. */
export type SetFigures = {
  base: Base | null;
  time: SetTime | null;
  at: Placed;
  /** seconds by which it goes beyond the slot */
  overS: number;
  /** what would make the session fit, changed here */
  mends: Mend[];
  /** rest that the distance and speed ask for, where the set gives clearly less */
  restShort: { metres: number; speed: number; restS: number } | null;
  /** athletes who are in another set at the same time */
  twice: string[];
  apart: ReturnType<typeof notJoined>;
  /** of a station: reps of each combination that a group has time for; null elsewhere */
  repsThatFit: number | null;
};

export type SessionFigures = {
  sets: SetFigures[];
  totalS: number;
  /** seconds beyond the slot; 0 where it fits or has none */
  overS: number;
  /** at most: makes may come sooner */
  reps: number;
  /** what an athlete does with the time, on average, from the first set to the end of the last; null with nobody */
  spent: SpentTime | null;
  people: number;
  bring: string[];
  /** of which it puts something on somebody */
  loadKinds: LoadKind[];
};

export type SessionAsk = {
  drillSets: readonly DrillSet[];
  circuit?: Circuit | undefined;
  baseOfSet: (set: DrillSet) => Base | null;
  bodies: ReadonlyMap<string, Body>;
  conditions: Conditions;
  /** of the slot; null where there is none */
  slotS: number | null;
};

/** Rest that is so much shorter than what the run asks for is told. */
const CLEARLY_LESS = 0.75;
/** Start marks that one flat mark serves. */
const SHARED_WITHIN_M = 0.25;

const hasBall = (movement: Movement): boolean =>
  movement.phases.some((phase) => phase.ball !== null);

/** Flat marks that a set needs on the ground at once. */
const flatMarks = (set: DrillSet, base: Base | null, bodies: ReadonlyMap<string, Body>): number => {
  if (!base?.movement) return 0;
  const [variant] = keptVariants(set);
  const outlines = set.athleteIds.flatMap((id) => {
    const body = bodies.get(id);
    const outline = variant && body ? variedRun(base, variant, body).outline : null;
    return outline ? [outline] : [];
  });
  const starts = outlines.flatMap(({ startM }) =>
    startM === null ? [] : [{ who: 0, atM: startM }],
  );
  if (starts.length === 0) return 1 + (set.redo ? 1 : 0);
  return (
    shareMarks(starts, SHARED_WITHIN_M).length +
    1 +
    Math.max(...outlines.map((outline) => outline.checkMarks.length))
  );
};

/** What has to be carried out, the most that is needed at once. */
const gear = (ask: SessionAsk, sets: readonly SetFigures[]): string[] => {
  let [marks, balls, pads, tape] = [0, 0, 0, false];
  ask.drillSets.forEach((set, i) => {
    const { base, time } = sets[i]!;
    if (!base?.movement || !base.choices) return;
    marks = Math.max(marks, flatMarks(set, base, ask.bodies));
    const many = time?.performing ?? 1;
    if (hasBall(base.movement)) balls = Math.max(balls, many);
    const runs = keptVariants(set).flatMap((variant) => {
      const run = asVaried({ movement: base.movement!, choices: base.choices! }, variant);
      return 'why' in run ? [] : [run.choices.rung ?? 'full'];
    });
    if (base.movement.loads.includes('contact') && runs.some((rung) => rung === 'object')) {
      pads = Math.max(pads, many);
    }
    const body = ask.bodies.get(set.athleteIds[0] ?? '');
    const [first] = keptVariants(set);
    tape ||= Boolean(body && first && variedRun(base, first, body).outline?.startM);
  });
  // What the drills ask for by name, but for balls and marks that are counted already.
  const setNames = sets
    .flatMap(({ base }) => (base ? (drillOfBase(base)?.setUp?.bring ?? []) : []))
    .filter((what) => !(balls > 0 && /\bballs?\b/.test(what)))
    .filter((what) => !(marks > 0 && /\bflat marks?\b/.test(what)))
    .filter((what) => !(tape && what === 'tape'));
  return [
    ...(marks > 0 ? [counted(marks, 'flat mark')] : []),
    ...(tape ? ['tape'] : []),
    ...(pads > 0 ? [counted(pads, 'pad')] : []),
    ...(balls > 0 ? [counted(balls, 'ball')] : []),
    ...new Set(setNames),
  ];
};

/**
 * What athletes do with the time of a session, on average; whoever is in none of the sets that run stands.
 *
 * @param changesS in which groups go from station to station, together
 */
const spentOnAverage = (
  drillSets: readonly DrillSet[],
  times: readonly (SetTime | null)[],
  totalS: number,
  changesS: number,
): SpentTime | null => {
  const people = new Set(drillSets.flatMap((set, i) => (times[i] ? set.athleteIds : [])));
  if (people.size === 0) return null;
  const each = [...people].map((id) => {
    const inSets = drillSets.reduce(
      (sum, set, i) =>
        times[i] && set.athleteIds.includes(id) ? addTime(sum, times[i].spent) : sum,
      { ...NO_TIME, walkBackS: changesS },
    );
    return { ...inSets, standS: inSets.standS + Math.max(0, totalS - allOf(inSets)) };
  });
  return timesOver(each.reduce(addTime, NO_TIME), 1 / people.size);
};

/** What a session puts on its athletes, by the run that paces each of its sets. */
const kindsOfLoad = (
  drillSets: readonly DrillSet[],
  bases: readonly (Base | null)[],
  pacerOf: (set: DrillSet) => Body | undefined,
): LoadKind[] => {
  const loads = drillSets.flatMap((set, i) => {
    const [base, pacer] = [bases[i]!, pacerOf(set)];
    if (!base || !pacer) return [];
    return keptVariants(set).map((variant) => variedRun(base, variant, pacer).load);
  });
  const together = addLoads(loads);
  return LOAD_KINDS.filter((kind) => together[kind] > 0);
};

/**
 * Solves every run that the figures of a session ask for. What was solved for a body is kept, so that the
 * figures are then there at once.
 */
export const solveRuns = ({
  drillSets,
  baseOfSet,
  bodies,
}: Pick<SessionAsk, 'drillSets' | 'baseOfSet' | 'bodies'>): void => {
  for (const set of drillSets) {
    const base = baseOfSet(set);
    if (!base?.movement) continue;
    const variants = keptVariants(set);
    const setBodies = set.athleteIds.flatMap((id) => bodies.get(id) ?? []);
    setBodies.forEach((body, i) =>
      (i === 0 ? variants : variants.slice(0, 1)).forEach((variant) =>
        variedRun(base, variant, body),
      ),
    );
  }
};

/** Sets with as many reps as there is time for at their stations. */
export const asFitting = (
  drillSets: readonly DrillSet[],
  figures: readonly Pick<SetFigures, 'repsThatFit'>[],
): DrillSet[] => drillSets.map((set, i) => ({ ...set, reps: figures[i]?.repsThatFit ?? set.reps }));

/** All that a session comes to, but for the loads of single athletes. */
export const sessionFigures = (ask: SessionAsk): SessionFigures => {
  const { drillSets, circuit, baseOfSet, bodies, conditions, slotS } = ask;
  const lanes = conditions.lanes ?? 1;
  const pacerOf = (set: DrillSet): Body | undefined =>
    set.athleteIds.map((id) => bodies.get(id)).find((body) => body !== undefined);
  const bases = drillSets.map(baseOfSet);
  const timeOf = (set: DrillSet, base: Base | null): SetTime | StationTime | null => {
    if (!circuit || !set.station) return drillSetTime(set, base, pacerOf(set), conditions);
    const groupSizes = circuit.groups.map(
      ({ athleteIds }) => athleteIds.filter((id) => set.athleteIds.includes(id)).length,
    );
    const { minutes } = circuit;
    const there = { ...conditions, lanes: lanesOfStation(ask, lanes) };
    return stationTime(set, base, pacerOf(set), there, { minutes, groupSizes });
  };
  const times = drillSets.map((set, i) => timeOf(set, bases[i]!));
  const circuitLengthS = goingRoundS(ask);
  const at = placed(
    drillSets,
    times.map((time) => time?.totalS ?? 0),
    circuitLengthS,
  );
  const stations = stationsOf(ask);
  const changesS = stations
    ? Math.max(0, circuitLengthS - 60 * stations.plan.minutes * stations.plan.stations)
    : 0;
  const totalS = Math.max(0, ...at.map((set) => set.endS));
  const overS = slotS === null ? 0 : Math.max(0, totalS - slotS);
  const twice = twoPlaces(drillSets, at);
  const sets = drillSets.map((set, i): SetFigures => {
    const base = bases[i]!;
    const time = times[i]!;
    const rest = restFor(set, base, pacerOf(set));
    const restS = time ? Math.max(set.restS, time.cycleS - 4) : set.restS;
    const beyondS = slotS === null ? 0 : Math.max(0, at[i]!.endS - slotS);
    return {
      base,
      time,
      at: at[i]!,
      overS: beyondS,
      mends:
        beyondS > 0 && !set.station
          ? mends(set, overS, lanes, (other) => timeOf(other, base)?.totalS ?? null)
          : [],
      restShort: rest && restS < CLEARLY_LESS * rest.restS ? rest : null,
      twice: twice.get(i) ?? [],
      apart: base ? notJoined(base, set) : [],
      repsThatFit: time && 'repsThatFit' in time ? time.repsThatFit : null,
    };
  });
  return {
    sets,
    totalS,
    overS,
    reps: sessionReps(
      {
        date: conditions.on ?? '',
        // One whose figures are half typed has none yet.
        drillSets: asFitting(drillSets, sets).filter((_, i) => times[i] !== null),
      },
      conditions.people ?? [],
    ),
    spent: spentOnAverage(drillSets, times, totalS, changesS),
    people: new Set(drillSets.flatMap((set) => set.athleteIds)).size,
    bring: gear(ask, sets),
    loadKinds: kindsOfLoad(drillSets, bases, pacerOf),
  };
};
