import type { Movement } from '@gravek/contract/movement';

/** Movements by who does them, in the order in which a coach looks through them. */
const GROUPS: readonly { name: string; codes: readonly string[] }[] = [
  {
    name: 'Runners, jumpers and throwers',
    codes: [
      'straight-run-up',
      'curved-run-up',
      'crossover-run-up',
      'first-two-steps',
      'wall-switches',
      'steady-cadence',
    ],
  },
  { name: 'At the net', codes: ['four-step-approach', 'block-jump'] },
  {
    name: 'With the ball, going at the goal',
    codes: ['stutter-read-go', 'jab-and-go', 'two-step-finish', 'post-footwork'],
  },
  { name: 'Defenders', codes: ['give-ground', 'close-and-shorten', 'slide-close-out'] },
  { name: 'Fielders', codes: ['gather-right-left', 'corner-fielder'] },
  { name: 'Keepers', codes: ['goal-arc'] },
  { name: 'On the line', codes: ['gaps', 'line-first-steps'] },
];

/**
 * Movements grouped by who does them; what the club has added comes first.
 *
 * @returns groups that have any, each with its movements in order
 * @example groupedByDoer(MOVEMENTS)[1]!.name // 'At the net'
 */
export const groupedByDoer = <M extends Pick<Movement, 'code'>>(
  movements: readonly M[],
): { name: string; movements: M[] }[] => {
  const grouped = new Set(GROUPS.flatMap(({ codes }) => codes));
  return [
    { name: 'The club’s own', movements: movements.filter(({ code }) => !grouped.has(code)) },
    ...GROUPS.map(({ name, codes }) => ({
      name,
      movements: codes.flatMap((code) => movements.filter((movement) => movement.code === code)),
    })),
  ].filter((group) => group.movements.length > 0);
};
