import { counted } from '../words';
import { otherFoot, type Foot } from '../feet';
import type { Footfall } from '../layout/walker';

export const RULE_KINDS = [
  'steps-with-ball',
  'pivot-foot',
  'take-off-feet',
  'landing-feet',
  'behind-line',
  'most-steps',
] as const;

/** One thing that a code of rules says of the feet. */
export type StepRule =
  /** how many steps the ball may be in hand; a gather step may or may not count as one of them */
  | { kind: 'steps-with-ball'; limit: number; gatherCounts: boolean }
  /**
   * the pivot foot: not put down again before the ball has left the hand; until 'release' it may come
   * down with the very contact that starts a dribble
   */
  | { kind: 'pivot-foot'; until: 'release' | 'dribble' }
  | { kind: 'take-off-feet'; feet: 1 | 2 }
  | { kind: 'landing-feet'; feet: 1 | 2 }
  /** no foot beyond the line or bar that is run at, up to the take-off */
  | { kind: 'behind-line' }
  /** steps from the start to the take-off or the end */
  | { kind: 'most-steps'; limit: number };

export type RuleSet = { name: string; rules: readonly StepRule[] };

export type RuleBreak = {
  /** the step that breaks it */
  n: number;
  rule: StepRule['kind'];
  /** which step, which rule and why, as a sentence */
  why: string;
};

const ORDINALS = ['', 'first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth'];
const ordinal = (count: number): string => ORDINALS[count] ?? `${count}th`;

type Held = {
  /** the contact with which the ball came into the hand */
  gather: Footfall;
  /** contacts after it, up to the one with which the ball leaves */
  after: Footfall[];
};

/** The stretches in which the ball is in hand. */
const heldStretches = (falls: readonly Footfall[]): Held[] => {
  const stretches: Held[] = [];
  let open: Held | null = null;
  for (const fall of falls) {
    if (open && fall.n !== open.gather.n) open.after.push(fall);
    if (fall.ball === 'gather' && !open) {
      open = { gather: fall, after: [] };
      stretches.push(open);
    } else if (open && (fall.ball === 'release' || fall.ball === 'dribble')) {
      open = null;
    }
  }
  return stretches;
};

/** Steps by their number: feet that land together are one step. */
const numbersOf = (falls: readonly Footfall[]): number[] => [
  ...new Set(falls.map((fall) => fall.n)),
];

/** The pivot foot. Landing on both feet leaves the choice: the one that does not move first is it. */
const pivotOf = (falls: readonly Footfall[], { gather, after }: Held): Foot | undefined =>
  falls.filter((fall) => fall.n === gather.n).length > 1
    ? after[0] && otherFoot(after[0].foot)
    : gather.foot;

const brokenBy = (falls: readonly Footfall[], rule: StepRule): RuleBreak[] => {
  const broken = (n: number, why: string): RuleBreak => ({ n, rule: rule.kind, why });
  const takeOff = falls.filter((fall) => fall.takeOff);
  const left = takeOff.at(-1)?.n ?? Infinity;
  switch (rule.kind) {
    case 'steps-with-ball':
      return heldStretches(falls).flatMap(({ gather, after }) => {
        // A foot that jabs and turns about the other, which stays, has taken one step.
        const steps = after.filter((fall, i) => fall.foot !== after[i - 1]?.foot);
        const numbers = numbersOf(rule.gatherCounts ? [gather, ...steps] : steps);
        const over = numbers[rule.limit];
        return over === undefined
          ? []
          : [
              broken(
                over,
                `Step ${over} is the ${ordinal(rule.limit + 1)} with the ball in hand, ${rule.gatherCounts ? 'the gather counted' : 'the gather not counted'}; ${counted(rule.limit, 'step')} ${rule.limit === 1 ? 'is' : 'are'} allowed.`,
              ),
            ];
      });
    case 'pivot-foot':
      return heldStretches(falls).flatMap((stretch) => {
        const { after } = stretch;
        // Picked up on the run there is no pivot yet; the steps are counted instead.
        const pivot = stretch.gather.contact === 'gather' ? pivotOf(falls, stretch) : undefined;
        const again = after.find(
          (fall) => fall.foot === pivot && !(rule.until === 'release' && fall.ball === 'dribble'),
        );
        return pivot && again
          ? [
              broken(
                again.n,
                `Step ${again.n} puts the pivot foot (${pivot}) down again with the ball still in hand; the ball must have left before.`,
              ),
            ]
          : [];
      });
    case 'take-off-feet': {
      const feet = takeOff.length;
      return feet > 0 && feet !== rule.feet
        ? [
            broken(
              takeOff.at(-1)!.n,
              `Step ${takeOff.at(-1)!.n} takes off from ${feet === 1 ? 'one foot' : 'both feet'}; this asks for ${rule.feet === 1 ? 'one foot' : 'both feet'}.`,
            ),
          ]
        : [];
    }
    case 'landing-feet': {
      const landed = falls.filter((fall) => fall.contact === 'land');
      return numbersOf(landed).flatMap((n) => {
        const feet = landed.filter((fall) => fall.n === n).length;
        return feet === rule.feet
          ? []
          : [
              broken(
                n,
                `Step ${n} lands on ${feet === 1 ? 'one foot' : 'both feet'}; this asks for ${rule.feet === 1 ? 'one foot' : 'both feet'}.`,
              ),
            ];
      });
    }
    case 'behind-line':
      return falls
        .filter((fall) => fall.n <= left && fall.toLineM !== null && fall.toLineM < -1e-6)
        .slice(0, 1)
        .map((fall) =>
          broken(
            fall.n,
            `Step ${fall.n} lands ${Math.round(-fall.toLineM! * 100)} cm over the line; no foot may be beyond it before the take-off.`,
          ),
        );
    case 'most-steps': {
      const numbers = numbersOf(falls.filter((fall) => fall.n > 0 && fall.n <= left));
      const over = numbers[rule.limit];
      return over === undefined
        ? []
        : [
            broken(
              over,
              `Step ${over} is one too many: ${counted(rule.limit, 'step')} may be taken up to the take-off.`,
            ),
          ];
    }
  }
};

/**
 * Which steps break which rule of a set, and why.
 *
 * @param footfalls as laid out, in order
 * @returns earliest step first; empty when all is legal
 * Source: the rule set itself, which is data; the competition's own book decides
 */
export const checkRules = (footfalls: readonly Footfall[], ruleSet: RuleSet): RuleBreak[] =>
  ruleSet.rules
    .flatMap((rule) => brokenBy(footfalls, rule))
    .sort((a, b) => a.n - b.n || a.why.localeCompare(b.why));
