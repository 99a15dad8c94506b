import { number, whole } from '../check';

export type SetDuration = { cycleS: number; setS: number; totalS: number; idleFraction: number };

/**
 * How long drill sets take in one lane with athletes in turn. One cycle gives everybody a rep; it is
 * as long as the queue or as one athlete's rep and rest, whichever is longer.
 *
 * @returns seconds, and the part of the time that an athlete stands still
 * @throws {RangeError} naming the field that is out of range
 * @example
 * setDuration({ sets: 2, reps: 4, repS: 5, restS: 30, setRestS: 120, groupSize: 3, changeoverS: 6 })
 * // { cycleS: 35, setS: 140, totalS: 400, idleFraction: 0.857 }
 */
export const setDuration = (input: {
  sets: number;
  reps: number;
  repS: number;
  restS: number;
  setRestS: number;
  groupSize: number;
  changeoverS: number;
}): SetDuration => {
  const sets = whole('sets', input.sets, { min: 1, max: 100 });
  const reps = whole('reps', input.reps, { min: 1, max: 1000 });
  const repS = number('repS', input.repS, { above: 0, max: 3600 });
  const restS = number('restS', input.restS, { min: 0, max: 3600 });
  const setRestS = number('setRestS', input.setRestS, { min: 0, max: 3600 });
  const groupSize = whole('groupSize', input.groupSize, { min: 1, max: 500 });
  const changeoverS = number('changeoverS', input.changeoverS, { min: 0, max: 3600 });
  const cycleS = Math.max(groupSize * (repS + changeoverS), repS + restS);
  const setS = reps * cycleS;
  return {
    cycleS,
    setS,
    totalS: sets * setS + (sets - 1) * setRestS,
    idleFraction: 1 - repS / cycleS,
  };
};

/**
 * How many tries a number of makes is likely to take where one goes on after so many.
 *
 * @param makes wanted, 1–1000
 * @param most tries after which one goes on all the same, 1–1000
 * @param makeRate chance of a make, 0–1
 * @returns the mean number of tries
 * @throws {RangeError} naming the field that is out of range
 * @example likelyTries({ makes: 4, most: 7, makeRate: 0.6 }) // about 5.9
 * Source: sum over n of the chance that fewer than `makes` of the first n tries are made
 */
export const likelyTries = (input: { makes: number; most: number; makeRate: number }): number => {
  const makes = whole('makes', input.makes, { min: 1, max: 1000 });
  const most = whole('most', input.most, { min: 1, max: 1000 });
  const rate = number('makeRate', input.makeRate, { min: 0, max: 1 });
  // made[k]: the chance of k makes so far, none of them the last one wanted
  let made = [1];
  let tries = 0;
  for (let n = 0; n < most; n += 1) {
    tries += made.reduce((sum, p) => sum + p, 0);
    const after = Array<number>(Math.min(makes, made.length + 1)).fill(0);
    made.forEach((p, k) => {
      after[k]! += p * (1 - rate);
      if (k + 1 < makes) after[k + 1]! += p * rate;
    });
    made = after;
  }
  return tries;
};
