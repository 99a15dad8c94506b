import type { Body } from '@gravek/core/layout/body';
import { groupBy } from '@gravek/core/session/repLog';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { OnGround } from '@gravek/contract/ground';
import { faultOf } from '../movement/byCode';
import type { Need, Person } from './needs';
import { freshDrillSet, mayRun } from './sessionFit';
import { type Conditions, drillSetTime } from './sessionTime';
import { setOfWork } from './setOfWork';
import { baseOf, demandOfSet, type Finds } from './work';
/** Reps of a set that is chosen, on each side that it is run on. */
const REPS = 6;
const LADDER_REPS = 5;
const REST_S = 45;
/** What the whole movement does for a cue, beside a drill against its fault. */
const WHOLE_SHARE = 0.6;

/** A set that could be put in, and which needs it would serve how well. */
export type SetOffer = {
  set: DrillSet;
  name: string;
  /** with all lanes to itself */
  seconds: number;
  /** of the ground that it uses */
  lanes: number;
  /** places in the list of needs, with the part of each that it does */
  serves: { need: number; share: number }[];
  /** who may do it although it serves none of their needs */
  mayJoin: string[];
  /** more rounds of it are of use: not where it is a test */
  mayRepeat: boolean;
  /** how long it takes for these athletes on so many lanes, its rounds so many times */
  secondsFor: (athleteIds: string[], lanes: number, times: number) => number;
};

/**
 * Sets that would serve needs: the drills against each cued fault, the club's plans and the whole
 * movements, the rungs to go on to, and a measured run. Who is held back from one is not in it.
 *
 * @param newId makes an id for each set
 */
export const offersFor = (
  needs: readonly Need[],
  ask: {
    plans: readonly { id: string; movement: string; athleteIds: readonly string[] }[];
    athletes: readonly Person[];
    bodies: ReadonlyMap<string, Body>;
    finds: Finds;
    ground: OnGround | null;
    conditions: Conditions & { on: string };
    newId: () => string;
  },
): SetOffer[] => {
  const { plans, athletes, bodies, finds, ground, conditions, newId } = ask;
  const squads = new Map(athletes.map(({ id, squad }) => [id, squad]));
  const offer = (
    set: DrillSet,
    name: string | null,
    shareOf: (need: Need) => number,
    forAnybody = false,
  ): SetOffer[] => {
    const base = baseOf(set.work, finds, ground);
    if (!base) return [];
    const able = new Set(
      mayRun(demandOfSet(base, set), athletes, conditions.on).map((person) => person.id),
    );
    const serves = needs.flatMap((need, i) =>
      able.has(need.athleteId) && set.athleteIds.includes(need.athleteId) && shareOf(need) > 0
        ? [{ need: i, share: shareOf(need) }]
        : [],
    );
    const athleteIds = [...new Set(serves.map(({ need }) => needs[need]!.athleteId))];
    if (athleteIds.length === 0) return [];
    const groupSet = { ...set, athleteIds };
    const pacer = athleteIds.map((id) => bodies.get(id)).find((body) => body !== undefined);
    const time = drillSetTime(groupSet, base, pacer, conditions);
    if (!time) return [];
    const inSquads = new Set(athleteIds.map((id) => squads.get(id)));
    return [
      {
        ...{ set: groupSet, name: name ?? base.name, seconds: time.totalS, serves },
        lanes: Math.min(conditions.lanes ?? 1, time.performing),
        mayJoin: forAnybody
          ? [...able].filter((id) => !athleteIds.includes(id) && inSquads.has(squads.get(id)))
          : [],
        mayRepeat: set.work.kind !== 'warm-up',
        secondsFor: (ids, lanes, times) =>
          drillSetTime(
            { ...groupSet, athleteIds: ids, lanes, sets: times * set.sets },
            base,
            pacer,
            conditions,
          )?.totalS ?? Infinity,
      },
    ];
  };
  const short = (work: DrillSet['work'], ids: readonly string[]): DrillSet => ({
    ...freshDrillSet(newId(), work, ids),
    ...{ sets: 1, reps: REPS, restS: REST_S },
  });
  const idsOf = (some: readonly Need[]): string[] => some.map((need) => need.athleteId);

  const checks = needs.filter((need) => need.kind === 'check');
  const measured =
    checks.length === 0
      ? []
      : offer(
          {
            ...short({ kind: 'warm-up', name: 'Measured run' }, idsOf(checks)),
            ...{ reps: 2, restS: 120 },
          },
          null,
          (need) => (need.kind === 'check' ? 1 : 0),
        );
  const cues = needs.filter((need) => need.kind === 'cue');
  const drills = [...groupBy(cues, (need) => `${need.movement}/${need.fault}`).values()].flatMap(
    (some) => {
      const { movement: code, fault } = some[0]!;
      const movement = finds.movementOf(code!);
      const against = movement ? (faultOf(movement, fault!)?.drills ?? []) : [];
      return against.flatMap((drill) =>
        offer(
          setOfWork(newId(), { kind: 'movement', movement: code!, drill }, idsOf(some), movement),
          null,
          (need) => (need.kind === 'cue' && need.movement === code && need.fault === fault ? 1 : 0),
          true,
        ),
      );
    },
  );
  // Whether a fault stays away shows in the whole movement only, and without a drill against it.
  const wholeShare = (need: Need, movement: string): number =>
    need.movement !== movement
      ? 0
      : need.kind === 'cue'
        ? WHOLE_SHARE
        : need.kind === 'away'
          ? 1
          : 0;
  const inWhole = needs.filter((need) => need.kind === 'cue' || need.kind === 'away');
  const wholes = [
    ...plans.flatMap((plan) =>
      offer(short({ kind: 'plan', approachId: plan.id }, plan.athleteIds), null, (need) =>
        wholeShare(need, plan.movement),
      ),
    ),
    ...[...groupBy(inWhole, (need) => need.movement!)].flatMap(([movement, some]) =>
      offer(
        short({ kind: 'movement', movement, drill: null }, [...new Set(idsOf(some))]),
        null,
        (need) => wholeShare(need, movement),
        true,
      ),
    ),
  ];
  const ladders = needs.filter((need) => need.kind === 'rung');
  const rungs = [...groupBy(ladders, (need) => `${need.movement}/${need.rung}`).values()].flatMap(
    (some) => {
      const { movement, rung } = some[0]!;
      const set = short({ kind: 'movement', movement: movement!, drill: null }, idsOf(some));
      const vary = { ...set.vary, sides: ['own' as const, 'other' as const], rungs: [rung!] };
      return offer({ ...set, reps: LADDER_REPS, vary }, null, (need) => {
        if (need.movement !== movement) return 0;
        if (need.kind === 'rung') return need.rung === rung ? 1 : 0;
        return need.kind === 'cue' ? WHOLE_SHARE : 0;
      });
    },
  );
  return [...measured, ...rungs, ...drills, ...wholes];
};
