import type { Movement } from '@gravek/contract/movement';

type BuiltIn = {
  code: string;
  name: string;
  load: () => Promise<{ default: unknown }>;
};

/**
 * The built-in movements in the order of `MOVEMENTS`, each with a document that is loaded by itself: pages
 * need a few of them. A test holds codes and names to the documents.
 */
export const BUILT_IN: readonly BuiltIn[] = [
  {
    code: 'straight-run-up',
    name: 'Straight run-up',
    load: () => import('../../data/movements/straight-run-up.json'),
  },
  {
    code: 'curved-run-up',
    name: 'Curved run-up to a bar',
    load: () => import('../../data/movements/curved-run-up.json'),
  },
  {
    code: 'crossover-run-up',
    name: 'Crossover run-up',
    load: () => import('../../data/movements/crossover-run-up.json'),
  },
  {
    code: 'four-step-approach',
    name: 'Four-step approach to a two-foot jump',
    load: () => import('../../data/movements/four-step-approach.json'),
  },
  {
    code: 'block-jump',
    name: 'Two-foot block jump and travel',
    load: () => import('../../data/movements/block-jump.json'),
  },
  {
    code: 'give-ground',
    name: 'Give-ground mirror',
    load: () => import('../../data/movements/give-ground.json'),
  },
  {
    code: 'close-and-shorten',
    name: 'Close and shorten',
    load: () => import('../../data/movements/close-and-shorten.json'),
  },
  {
    code: 'stutter-read-go',
    name: 'Stutter, read, go',
    load: () => import('../../data/movements/stutter-read-go.json'),
  },
  {
    code: 'gather-right-left',
    name: 'Gather right-left',
    load: () => import('../../data/movements/gather-right-left.json'),
  },
  {
    code: 'corner-fielder',
    name: 'Corner fielder’s first step',
    load: () => import('../../data/movements/corner-fielder.json'),
  },
  {
    code: 'post-footwork',
    name: 'Back-to-target post footwork',
    load: () => import('../../data/movements/post-footwork.json'),
  },
  {
    code: 'jab-and-go',
    name: 'Jab and go',
    load: () => import('../../data/movements/jab-and-go.json'),
  },
  {
    code: 'two-step-finish',
    name: 'Two-step finish',
    load: () => import('../../data/movements/two-step-finish.json'),
  },
  {
    code: 'first-two-steps',
    name: 'First two steps from a start',
    load: () => import('../../data/movements/first-two-steps.json'),
  },
  {
    code: 'wall-switches',
    name: 'Wall switches',
    load: () => import('../../data/movements/wall-switches.json'),
  },
  {
    code: 'steady-cadence',
    name: 'Steady-run cadence',
    load: () => import('../../data/movements/steady-cadence.json'),
  },
  {
    code: 'goal-arc',
    name: 'Goal-arc shuffle and wide move',
    load: () => import('../../data/movements/goal-arc.json'),
  },
  {
    code: 'gaps',
    name: 'Gaps',
    load: () => import('../../data/movements/gaps.json'),
  },
  {
    code: 'line-first-steps',
    name: 'Line first steps',
    load: () => import('../../data/movements/line-first-steps.json'),
  },
  {
    code: 'slide-close-out',
    name: 'Slide and close out',
    load: () => import('../../data/movements/slide-close-out.json'),
  },
];

/** The document of a built-in movement, when it has come. */
export const loadBuiltIn = async ({ load }: BuiltIn): Promise<Movement> =>
  (await load()).default as Movement;
