/** What an athlete does in the minutes of a set or a session; standing in line or with nothing to do is `standS`. */
export type SpentTime = {
  /** performs, gets on the mark for it and off it */
  workS: number;
  /** feeds, collects, is the partner */
  helpS: number;
  walkBackS: number;
  /** rest that distance and speed ask for, and pauses between rounds */
  restS: number;
  standS: number;
};

/** Somebody who walks back to the start. */
const WALKING_MPS = 1.4;

export const NO_TIME: SpentTime = { workS: 0, helpS: 0, walkBackS: 0, restS: 0, standS: 0 };

/**
 * Two stretches of time together.
 *
 * @example addTime({ ...NO_TIME, workS: 5 }, { ...NO_TIME, workS: 1, standS: 2 }).workS // 6
 */
export const addTime = (a: SpentTime, b: SpentTime): SpentTime => ({
  workS: a.workS + b.workS,
  helpS: a.helpS + b.helpS,
  walkBackS: a.walkBackS + b.walkBackS,
  restS: a.restS + b.restS,
  standS: a.standS + b.standS,
});

/**
 * So many times the same.
 *
 * @example timesOver({ ...NO_TIME, workS: 5 }, 3).workS // 15
 */
export const timesOver = (time: SpentTime, times: number): SpentTime => ({
  workS: times * time.workS,
  helpS: times * time.helpS,
  walkBackS: times * time.walkBackS,
  restS: times * time.restS,
  standS: times * time.standS,
});

/**
 * Seconds of a stretch of time, all together.
 *
 * @example allOf({ ...NO_TIME, workS: 5, standS: 7 }) // 12
 */
export const allOf = ({ workS, helpS, walkBackS, restS, standS }: SpentTime): number =>
  workS + helpS + walkBackS + restS + standS;

/**
 * What an athlete does between the beginning of one rep and of the next: performs, helps the others, walks
 * back, rests as long as the effort asks, and stands for what is left.
 *
 * @param cycleS from rep to rep, seconds
 * @param repS of one rep, with getting on the mark and off it
 * @param helpers of whoever performs
 * @param metres of a rep, from where one walks back
 * @param askedRestS rest that distance and speed ask for, of which the way back is a part
 * @example
 * cycleTime({ cycleS: 40, repS: 8, helpers: 1, metres: 14, askedRestS: 20 })
 * // { workS: 8, helpS: 8, walkBackS: 10, restS: 10, standS: 4 }
 */
export const cycleTime = ({
  cycleS,
  repS,
  helpers,
  metres,
  askedRestS,
}: {
  cycleS: number;
  repS: number;
  helpers: number;
  metres: number;
  askedRestS: number;
}): SpentTime => {
  let leftS = cycleS;
  const upTo = (seconds: number): number => {
    const takenS = Math.min(leftS, Math.max(0, seconds));
    leftS -= takenS;
    return takenS;
  };
  const workS = upTo(repS);
  const helpS = upTo(helpers * repS);
  const walkBackS = upTo(metres / WALKING_MPS);
  const restS = upTo(askedRestS - walkBackS);
  return { workS, helpS, walkBackS, restS, standS: leftS };
};
