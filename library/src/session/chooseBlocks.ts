import { groupBy } from '@gravek/core/session/repLog';
import { counted } from '@gravek/core/words';
import type { DrillSet } from '@gravek/contract/drillSet';
import solver from 'javascript-lp-solver';
import {
  joined,
  type Laid,
  layOut,
  lengthOf,
  longEnough,
  mostBlocks,
  type Room,
  timeOf,
} from './layBlocks';
import type { Need } from './needs';
import type { SetOffer } from './setOffers';

/** With fewer than these a session is long and dull, where there is time for more. */
const LEAST_BLOCKS = 4;
/** Of two choices that do as much the shorter; too little to count otherwise. */
const MINUTE_COSTS = 1e-4;

type Offered = Pick<SetOffer, 'seconds' | 'lanes' | 'serves'>;

const peopleOf = (offer: Offered, needs: readonly Pick<Need, 'athleteId'>[]): Set<string> =>
  new Set(offer.serves.map(({ need }) => needs[need]!.athleteId));

/**
 * The offers that together do most for the needs, as far as they could find room: no more than the minutes of the
 * lanes, six blocks of them (fewer in less time), and the minutes of each athlete. A need that several of them serve is served by
 * whichever serves it best. Exact: a mixed-integer programme with a place for each offer and for each need that it
 * serves.
 *
 * @param offers seconds and lanes of each, and places of needs that it serves
 * @returns places of the offers, in their order
 */
export const bestOffers = (
  offers: readonly Offered[],
  needs: readonly Pick<Need, 'weight' | 'athleteId'>[],
  { seconds, lanes }: Room,
): number[] => {
  const most = Math.max(0, seconds);
  const constraints: Record<string, { max: number }> = {
    time: { max: most },
    blocks: { max: mostBlocks(seconds) },
  };
  const variables: Record<string, Record<string, number>> = {};
  const binaries: Record<string, 1> = {};
  needs.forEach((_, n) => (constraints[`need${n}`] = { max: 1 }));
  offers.forEach((offer, o) => {
    const put: Record<string, number> = {
      worth: (-MINUTE_COSTS * offer.seconds) / 60,
      time: (offer.seconds * offer.lanes) / lanes,
      blocks: offer.lanes / lanes,
    };
    variables[`put${o}`] = put;
    binaries[`put${o}`] = 1;
    for (const id of peopleOf(offer, needs)) {
      constraints[`time of ${id}`] = { max: most };
      put[`time of ${id}`] = offer.seconds;
    }
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

export type ChosenSet = {
  set: DrillSet;
  name: string;
  seconds: number;
  reasons: Reason[];
  /** who has nothing due in it, and works instead of standing */
  joining: string[];
};

export type SetChoice = {
  /** one after the other; the sets of a block are beside one another */
  blocks: { seconds: number; sets: ChosenSet[] }[];
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

/**
 * Blocks of a session that do most for needs within a time: at most six, four where there is time and something to
 * practise, fewer in little time, each with sets beside one another where lanes and people allow. With the reasons, and what is left out
 * and why.
 *
 * @example chooseBlocks([], [], { seconds: 3600, lanes: 2 }) // { blocks: [], seconds: 0, leftOut: [] }
 */
export const chooseBlocks = (
  needs: readonly Need[],
  offers: readonly SetOffer[],
  room: Room,
): SetChoice => {
  const { seconds, lanes } = room;
  const most = mostBlocks(seconds);
  const worthOf = (offer: SetOffer): number =>
    offer.serves.reduce((sum, { need, share }) => sum + needs[need]!.weight * share, 0);
  const fits = (some: readonly SetOffer[]): boolean => {
    const blocks = layOut(some, lanes);
    return blocks.length <= most && timeOf(blocks) <= seconds;
  };
  const shareOf = (offer: SetOffer, n: number): number =>
    offer.serves.find(({ need }) => need === n)?.share ?? 0;
  const doneBy = (some: readonly SetOffer[]): number =>
    needs.reduce(
      (sum, { weight }, n) => sum + weight * Math.max(0, ...some.map((other) => shareOf(other, n))),
      0,
    );
  let chosen = bestOffers(offers, needs, room).map((o) => offers[o]!);
  // What finds room in sum may not lie beside what is there: without whatever is missed least.
  while (chosen.length > 0 && !fits(chosen)) {
    const without = chosen.map((offer) => chosen.filter((other) => other !== offer));
    chosen = without.sort((a, b) => doneBy(b) - doneBy(a))[0]!;
  }
  const byWorth = [...offers].sort((a, b) => worthOf(b) - worthOf(a));
  const hasRoomFor = (more: SetOffer): boolean => !chosen.includes(more) && fits([...chosen, more]);
  for (const more of byWorth) {
    if (hasRoomFor(more) && doneBy([...chosen, more]) > doneBy(chosen)) chosen = [...chosen, more];
  }
  const neededS = timeOf(layOut(chosen, lanes));
  // With room left what does most is practised once more, in another way.
  for (const more of byWorth) {
    if (layOut(chosen, lanes).length < Math.min(LEAST_BLOCKS, most) && hasRoomFor(more))
      chosen = [...chosen, more];
  }
  const order = (block: readonly Laid[]): number =>
    Math.min(...block.map(({ offer }) => offers.indexOf(offer)));
  const blocks = longEnough(joined(layOut(chosen, lanes), room), room).sort(
    (a, b) => order(a) - order(b),
  );
  const servedBy = needs.map(
    (_, n) =>
      chosen
        .filter((offer) => shareOf(offer, n) > 0)
        .sort((a, b) => shareOf(b, n) - shareOf(a, n))[0],
  );
  const freeS = seconds - neededS;
  const left = needs.flatMap((need, n) => {
    if (servedBy[n]) return [];
    const could = offers.filter((offer) => shareOf(offer, n) > 0);
    const missingS = Math.min(...could.map((offer) => offer.seconds)) - freeS;
    const why =
      could.length === 0
        ? 'held back from what would help'
        : missingS > 0
          ? `it takes ${Math.ceil(missingS / 60)} min more`
          : blocks.length === most
            ? `${counted(most, 'block')} ${most === 1 ? 'is' : 'are'} enough for the time`
            : 'too little gained for its minutes';
    return [{ need, why }];
  });
  const setOf = (
    { offer, athleteIds, lanes: used, rounds, seconds: setS }: Laid,
    beside: boolean,
  ): ChosenSet => ({
    set: {
      ...{ ...offer.set, athleteIds, beside, sets: rounds * offer.set.sets },
      ...(used < lanes && { lanes: used }),
    },
    name: offer.name,
    seconds: setS,
    // A second helping is for the same reasons as the first.
    reasons: reasonsOf(
      needs.filter((_, n) =>
        servedBy.includes(offer) ? servedBy[n] === offer : shareOf(offer, n) > 0,
      ),
    ),
    joining: athleteIds.filter((id) => !offer.set.athleteIds.includes(id)),
  });
  return {
    blocks: blocks.map((block) => ({
      seconds: lengthOf(block),
      sets: block.map((laid, i) => setOf(laid, i > 0)),
    })),
    seconds: timeOf(blocks),
    leftOut: [...groupBy(left, ({ need, why }) => `${need.kind}/${need.what}/${why}`).values()].map(
      (rows) => ({ ...reasonsOf(rows.map(({ need }) => need))[0]!, why: rows[0]!.why }),
    ),
  };
};
