import type { Body } from '@gravek/core/layout/body';
import { groupBy } from '@gravek/core/session/repLog';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { OnGround } from '@gravek/contract/ground';
import type { Load } from '@gravek/contract/movement';
import { faultOf } from '../movement/byCode';
import type { Need, Person } from './needs';
import { freshDrillSet, mayRun } from './sessionFit';
import { type Conditions, drillSetTime } from './sessionTime';
import { setOfWork } from './setOfWork';
import { baseOf, demandOfSet, type Finds } from './work';
/** Reps of a set that is chosen, on each side that it is run on. */
const REPS = 6;
const LADDER_REPS = 5;
/** Of these nobody does more than is asked because there is time left. */
const HARD: readonly Load[] = ['sprint', 'jump', 'contact'];
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
  /** more rounds of it are of use: not of a test, and not of sprints and jumps */
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
    joiners: 'nobody' | 'planned' | 'squad' = 'nobody',
  ): SetOffer[] => {
    const base = baseOf(set.work, finds, ground);
    if (!base) return [];
    const demand = demandOfSet(base, set);
    const able = new Set(mayRun(demand, athletes, conditions.on).map((person) => person.id));
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
        mayJoin: [...able].filter(
          (id) =>
            !athleteIds.includes(id) &&
            ((joiners === 'squad' && inSquads.has(squads.get(id))) ||
              (joiners === 'planned' && set.athleteIds.includes(id))),
        ),
        mayRepeat: set.work.kind !== 'warm-up' && !demand.some((load) => HARD.includes(load)),
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
  // A drill against several faults is one set for all who have any of them.
  const against = ({ movement, fault }: Need): string[] =>
    (finds.movementOf(movement!) && faultOf(finds.movementOf(movement!)!, fault!)?.drills) ?? [];
  const drills = [...groupBy(cues, (need) => need.movement!)].flatMap(([code, some]) =>
    [...new Set(some.flatMap(against))].flatMap((drill) => {
      const serves = (need: Need): boolean =>
        need.kind === 'cue' && need.movement === code && against(need).includes(drill);
      const ids = [...new Set(idsOf(some.filter(serves)))];
      const work = { kind: 'movement', movement: code, drill } as const;
      return offer(
        setOfWork(newId(), work, ids, finds.movementOf(code)),
        null,
        (need) => (serves(need) ? 1 : 0),
        'squad',
      );
    }),
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
      offer(
        short({ kind: 'plan', approachId: plan.id }, plan.athleteIds),
        null,
        (need) => wholeShare(need, plan.movement),
        'planned',
      ),
    ),
    ...[...groupBy(inWhole, (need) => need.movement!)].flatMap(([movement, some]) =>
      offer(
        short({ kind: 'movement', movement, drill: null }, [...new Set(idsOf(some))]),
        null,
        (need) => wholeShare(need, movement),
        'squad',
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
