import type { DrillSet } from '@gravek/contract/drillSet';
import { callWords } from '../field/CallBar';
import { STAND_NAMES } from './setNames';

/** How a set is run, besides what it is and how often: words for a line. */
export const howItIsRun = (set: DrillSet): string[] => [
  set.stand === 'roles' && set.helpers.length > 0
    ? `roles: ${set.helpers.join(', ')}`
    : STAND_NAMES[set.stand],
  ...(set.apartPaces ? [`${set.apartPaces} own paces apart`] : []),
  ...(set.call ? [callWords(set.call)] : []),
  ...(set.stand === 'row' && set.watch ? [`${set.watch} watched at a call`] : []),
  ...(set.redo ? ['again without the finish'] : []),
  ...(set.freeze ? ['freeze and check'] : []),
  ...(set.restS > 0 ? [`rest ${set.restS} s`] : []),
  ...(set.sets > 1 && set.setRestS > 0 ? [`${set.setRestS} s between rounds`] : []),
];
