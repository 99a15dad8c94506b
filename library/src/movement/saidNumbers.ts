import type { Layout } from '@gravek/core/layout/shape';
import { between, type Place } from '@gravek/core/layout/walker';
import type { Movement } from '@gravek/contract/movement';

type Drill = Movement['drills'][number];
type Unit = 'steps' | 'slides' | 'metres' | 'degrees' | 'seconds';

/** A number in a text, with what it counts. */
type Said = { words: string; values: readonly number[]; unit: Unit };

const NUMBERS =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'.split(
    ' ',
  );
const NUMBER = `\\d+(?:\\.\\d+)?|${NUMBERS.slice(1).join('|')}`;
const UNITS: Record<Unit, string> = {
  steps: 'steps?|switch(?:es)?|contacts?|crossings?',
  slides: 'slides?|shuffles?',
  metres: 'metres?|m',
  degrees: 'degrees?|°',
  seconds: 'seconds?|s',
};
/** Words that may stand between a number and its steps. */
const KINDS =
  '(?:(?:short|small|quick|pushing|own|running|last|first|long|curve|reaching|closing|full) )*';

const toNumber = (word: string): number => {
  const inWords = NUMBERS.indexOf(word.toLowerCase());
  return inWords >= 0 ? inWords : Number(word);
};

/**
 * The numbers that a text gives of steps, metres, degrees and seconds.
 *
 * @example numbersSaid('Five short steps, then hold three seconds') // 5 steps, 3 seconds
 */
export const numbersSaid = (text: string): Said[] =>
  (Object.keys(UNITS) as Unit[]).flatMap((unit) =>
    [
      ...text.matchAll(
        new RegExp(
          `\\b(${NUMBER})(?:(?:–|-| to | or )(${NUMBER}))?(?:[ \\u00a0-]|(?<=\\d))${unit === 'steps' ? KINDS : ''}(?:${UNITS[unit]})(?![\\w/])`,
          'gi',
        ),
      ),
    ].map(([words, first, second]) => ({
      words,
      values: [first!, ...(second ? [second] : [])].map(toNumber),
      unit,
    })),
  );

/** Every sum of neighbours in a list. */
const sums = (counts: readonly number[]): number[] =>
  counts.flatMap((_, from) =>
    counts
      .slice(from)
      .map((__, upTo) =>
        counts.slice(from, from + upTo + 1).reduce((sum, count) => sum + count, 0),
      ),
  );

/** Of the circle through the first, the middle and the last place of some; none where they lie in a line. */
const radiusM = (places: readonly Place[]): number[] => {
  const [a, b, c] = [places[0], places[Math.floor(places.length / 2)], places.at(-1)];
  if (!a || !b || !c || places.length < 3) return [];
  const area =
    Math.abs(
      (b.besideM - a.besideM) * (c.aheadM - a.aheadM) -
        (c.besideM - a.besideM) * (b.aheadM - a.aheadM),
    ) / 2;
  return area > 0.01 ? [(between(a, b) * between(b, c) * between(a, c)) / (4 * area)] : [];
};

/** All that a layout measures in a unit: what a text may mean by it. */
const measured = (layout: Layout, drill: Drill): Record<Unit, number[]> => {
  const falls = layout.footfalls.filter((fall) => fall.n > 0);
  const { marks, others, track, phases } = layout;
  const inPhase = (code: string): typeof falls => falls.filter((fall) => fall.phase === code);
  const places: Place[] = [
    ...marks,
    ...others.flatMap((other) => [other.points[0]!, other.points.at(-1)!]),
    track[0]!,
    track.at(-1)!,
  ];
  const turned = (deg: number): number => Math.abs(((deg + 540) % 360) - 180);
  const steps = phases.map(({ code }) => new Set(inPhase(code).map((fall) => fall.n)).size);
  const wayM = track.slice(1).reduce((sum, point, i) => sum + between(point, track[i]!), 0);
  const { amount, target } = drill.setUp ?? {};
  return {
    steps: [
      ...sums(steps),
      ...(target && target !== 'seconds' && target !== 'minutes' && amount ? [amount] : []),
    ],
    // Both feet make a slide.
    slides: sums(steps).map((count) => count / 2),
    metres: [
      wayM,
      ...places.flatMap((from) =>
        places.flatMap((to) => [
          between(from, to),
          Math.abs(from.aheadM - to.aheadM),
          Math.abs(from.besideM - to.besideM),
        ]),
      ),
      ...falls.map((fall) => fall.lengthM),
      ...falls.flatMap((fall) => others.map((other) => between(fall, other.points[0]!))),
      ...phases.flatMap(({ code }) => radiusM(inPhase(code))),
    ],
    degrees: falls.flatMap((fall) => [
      turned(fall.headingDeg),
      turned(fall.headingDeg - fall.facingDeg),
      90 - Math.min(turned(fall.headingDeg), 180 - turned(fall.headingDeg)),
      ...falls.map((other) => turned(fall.headingDeg - other.headingDeg)),
    ]),
    seconds: [
      ...sums(phases.map(({ fromS, toS }) => toS - fromS)),
      ...(target === 'seconds' && amount ? [amount] : []),
    ],
  };
};

/** How far off a measure may be from what a text says, as `|measure − said|`. */
const OFF: Record<Unit, (value: number) => number> = {
  steps: () => 0,
  slides: () => 0,
  metres: (value) => Math.max(0.15, 0.1 * value),
  degrees: () => 12,
  seconds: () => 0.35,
};

/**
 * The numbers in the words of a drill that nothing in its drawing measures.
 *
 * @param layout of that drill
 * @returns a sentence each
 * @example
 * giveGround.drills.flatMap((drill) => saidOtherwise(drill, laidOut(giveGround, body, { drill: drill.code })))
 * // []
 */
export const saidOtherwise = (drill: Drill, layout: Layout): string[] => {
  const found = measured(layout, drill);
  return numbersSaid(`${drill.name}. ${drill.how}`)
    .filter(
      ({ unit, values }) =>
        !values.some((value) =>
          found[unit].some((measure) => Math.abs(measure - value) <= OFF[unit](value) + 1e-9),
        ),
    )
    .map(({ words }) => `The drill “${drill.name}” says “${words}”, and nothing drawn is that.`);
};
