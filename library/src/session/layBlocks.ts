import type { SetOffer } from './setOffers';

/** So many things in a session are remembered; of more none is done well. */
const MOST_BLOCKS = 6;
/** Getting into something and learning it takes so long. */
const LEAST_BLOCK_S = 360;
const MOST_ROUNDS = 4;
/** Beside a set that is so much longer somebody would only wait. */
const LIKE_LONG = 0.5;

/** Time and lanes that a session has. */
export type Room = { seconds: number; lanes: number };

/**
 * Blocks that a time has room for.
 *
 * @param seconds of the session
 * @example mostBlocks(3600) // 6
 */
export const mostBlocks = (seconds: number): number =>
  Math.min(MOST_BLOCKS, Math.max(1, Math.floor(seconds / LEAST_BLOCK_S)));

/** A set of a block: for whom, on how many lanes. */
export type Laid = {
  offer: SetOffer;
  athleteIds: string[];
  lanes: number;
  /** times that the rounds of the offer are gone through */
  rounds: number;
  seconds: number;
};

/** Lanes for the sets of a block: one each, every other to where most wait for theirs. */
const withLanes = (block: readonly Laid[], lanes: number): Laid[] => {
  const shares = block.map(() => 1);
  const waiting = (i: number): number => block[i]!.athleteIds.length / shares[i]!;
  for (let left = lanes - block.length; left > 0; left -= 1) {
    const longest = shares.map((_, i) => i).sort((a, b) => waiting(b) - waiting(a))[0]!;
    shares[longest] = shares[longest]! + 1;
  }
  return block.map((laid, i) => ({
    ...laid,
    lanes: shares[i]!,
    seconds: laid.offer.secondsFor(laid.athleteIds, shares[i]!, laid.rounds),
  }));
};

/**
 * Seconds of a block: of its longest set.
 *
 * @example lengthOf([]) // 0
 */
export const lengthOf = (block: readonly Laid[]): number =>
  Math.max(0, ...block.map(({ seconds }) => seconds));

/**
 * Seconds of blocks, one after the other.
 *
 * @example timeOf([[], []]) // 0
 */
export const timeOf = (blocks: readonly (readonly Laid[])[]): number =>
  blocks.reduce((sum, block) => sum + lengthOf(block), 0);

/**
 * Offers in blocks: beside one another where people and lanes allow and they are about as long.
 *
 * @example layOut([], 2) // []
 */
export const layOut = (offers: readonly SetOffer[], lanes: number): Laid[][] => {
  const blocks: Laid[][] = [];
  // First those that whoever is idle may join, so that no block is without any.
  const inOrder = [...offers].sort(
    (a, b) => Number(b.mayJoin.length > 0) - Number(a.mayJoin.length > 0) || b.seconds - a.seconds,
  );
  for (const offer of inOrder) {
    const { athleteIds } = offer.set;
    const seconds = offer.secondsFor(athleteIds, lanes, 1);
    const laid = { offer, athleteIds, lanes, rounds: 1, seconds };
    const place = blocks.findIndex(
      (block) =>
        block.length < lanes &&
        block.every((other) => !other.athleteIds.some((id) => athleteIds.includes(id))) &&
        laid.seconds >= LIKE_LONG * lengthOf(block) &&
        lengthOf(withLanes([...block, laid], lanes)) < lengthOf(block) + laid.seconds,
    );
    if (place < 0) blocks.push([laid]);
    else blocks[place] = withLanes([...blocks[place]!, laid], lanes);
  }
  return blocks;
};

/**
 * Whoever has nothing to do in a block joins where the fewest wait, as long as the time allows it.
 *
 * @example joined([], { seconds: 600, lanes: 2 }) // []
 */
export const joined = (blocks: readonly Laid[][], { seconds, lanes }: Room): Laid[][] => {
  const filled = [...blocks];
  blocks.forEach((block, b) => {
    const idle = new Set(block.flatMap(({ offer }) => offer.mayJoin));
    for (const id of idle) {
      const now = filled[b]!;
      if (now.some(({ athleteIds }) => athleteIds.includes(id))) continue;
      const [into] = now
        .filter(({ offer }) => offer.mayJoin.includes(id))
        .sort((a, b) => a.athleteIds.length / a.lanes - b.athleteIds.length / b.lanes);
      const next = withLanes(
        now.map((laid) =>
          laid === into ? { ...laid, athleteIds: [...laid.athleteIds, id] } : laid,
        ),
        lanes,
      );
      if (timeOf(filled.map((other, i) => (i === b ? next : other))) <= seconds) filled[b] = next;
    }
  });
  return filled;
};

/**
 * Blocks that would be over before they have begun, in more rounds as long as the time allows it.
 *
 * @example longEnough([], { seconds: 600, lanes: 2 }) // []
 */
export const longEnough = (blocks: readonly Laid[][], { seconds, lanes }: Room): Laid[][] => {
  const filled = [...blocks];
  blocks.forEach((block, b) => {
    if (block.some(({ offer }) => !offer.mayRepeat)) return;
    for (let rounds = 2; rounds <= MOST_ROUNDS; rounds += 1) {
      if (lengthOf(filled[b]!) >= LEAST_BLOCK_S) return;
      const next = withLanes(
        block.map((laid) => ({ ...laid, rounds })),
        lanes,
      );
      if (timeOf(filled.map((other, i) => (i === b ? next : other))) > seconds) return;
      filled[b] = next;
    }
  });
  return filled;
};
