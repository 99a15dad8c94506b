import type { Body } from '@gravek/core/layout/body';
import { groupBy } from '@gravek/core/session/repLog';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { OnGround } from '@gravek/contract/ground';
import solver from 'javascript-lp-solver';
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
/** Of two choices that do as much the shorter one; too little to count otherwise. */
const MINUTE_COSTS = 1e-4;

/** A set that could be put in, and which needs it would serve how well. */
export type SetOffer = {
  set: DrillSet;
  name: string;
  seconds: number;
  /** places in the list of needs, with the part of each that it does */
  serves: { need: number; share: number }[];
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
  const offer = (
    set: DrillSet,
    name: string | null,
    shareOf: (need: Need) => number,
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
    return time ? [{ set: groupSet, name: name ?? base.name, seconds: time.totalS, serves }] : [];
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

/**
 * The offers that together do most for the needs within a time. A need that several of them serve is
 * served once, by whichever serves it best. Exact: a mixed-integer programme with a place for each offer
 * and for each need that it serves.
 *
 * @param offers seconds of each, and places of needs that it serves
 * @returns places of the offers, in their order
 */
export const bestOffers = (
  offers: readonly Pick<SetOffer, 'seconds' | 'serves'>[],
  needs: readonly Pick<Need, 'weight'>[],
  seconds: number,
): number[] => {
  const constraints: Record<string, { max: number }> = { time: { max: Math.max(0, seconds) } };
  const variables: Record<string, Record<string, number>> = {};
  const binaries: Record<string, 1> = {};
  needs.forEach((_, n) => (constraints[`need${n}`] = { max: 1 }));
  offers.forEach((offer, o) => {
    const put: Record<string, number> = {
      worth: (-MINUTE_COSTS * offer.seconds) / 60,
      time: offer.seconds,
    };
    variables[`put${o}`] = put;
    binaries[`put${o}`] = 1;
    for (const { need, share } of offer.serves) {
      const link = `link${o}.${need}`;
      constraints[link] = { max: 0 };
      put[link] = -1;
      variables[`serve${o}.${need}`] = {
        worth: needs[need]!.weight * share,
        [`need${need}`]: 1,
        [link]: 1,
      };
    }
  });
  const solved = solver.Solve({
    optimize: 'worth',
    opType: 'max',
    constraints,
    variables,
    binaries,
  });
  const values = solved as unknown as Record<string, number | undefined>;
  return offers.flatMap((_, o) => ((values[`put${o}`] ?? 0) > 0.5 ? [o] : []));
};

/** For whom a set is, and why. */
export type Reason = { kind: Need['kind']; what: string; athleteIds: string[] };

export type SetChoice = {
  sets: { set: DrillSet; name: string; seconds: number; reasons: Reason[] }[];
  seconds: number;
  leftOut: (Reason & { why: string })[];
};

const reasonsOf = (some: readonly Need[]): Reason[] =>
  [...groupBy(some, (need) => `${need.kind}/${need.movement}/${need.what}`).values()].map(
    (rows) => ({
      kind: rows[0]!.kind,
      what: rows[0]!.what,
      athleteIds: rows.map((need) => need.athleteId),
    }),
  );

/** The sets that do most for needs within a time, with the reasons, and what is left out and why. */
export const chooseSets = (
  needs: readonly Need[],
  offers: readonly SetOffer[],
  seconds: number,
): SetChoice => {
  const chosen = bestOffers(offers, needs, seconds).map((o) => offers[o]!);
  const bestFor = (n: number): SetOffer | undefined =>
    chosen
      .filter((offer) => offer.serves.some(({ need }) => need === n))
      .sort((a, b) => shareOf(b, n) - shareOf(a, n))[0];
  const shareOf = (offer: SetOffer, n: number): number =>
    offer.serves.find(({ need }) => need === n)?.share ?? 0;
  const servedBy = needs.map((_, n) => bestFor(n));
  const freeS = seconds - chosen.reduce((sum, offer) => sum + offer.seconds, 0);
  const left = needs.flatMap((need, n) => {
    if (servedBy[n]) return [];
    const could = offers.filter((offer) => shareOf(offer, n) > 0);
    const missingS = Math.min(...could.map((offer) => offer.seconds)) - freeS;
    const why =
      could.length === 0
        ? 'held back from what would help'
        : missingS > 0
          ? `no time: ${Math.ceil(missingS / 60)} min more`
          : 'too little gained for its minutes';
    return [{ need, why }];
  });
  return {
    sets: chosen
      .map((offer) => ({
        set: offer.set,
        name: offer.name,
        seconds: offer.seconds,
        reasons: reasonsOf(needs.filter((_, n) => servedBy[n] === offer)),
      }))
      .filter((need) => need.reasons.length > 0),
    seconds: chosen.reduce((sum, offer) => sum + offer.seconds, 0),
    leftOut: [...groupBy(left, ({ need, why }) => `${need.kind}/${need.what}/${why}`).values()].map(
      (rows) => ({ ...reasonsOf(rows.map(({ need }) => need))[0]!, why: rows[0]!.why }),
    ),
  };
};
