import type { RestrictionKind } from '@gravek/contract/athlete';

export const RESTRICTION_NAMES: Record<RestrictionKind, string> = {
  'no-jumping': 'no jumping',
  'no-contact': 'no contact',
  'no-sprinting': 'no sprinting',
  reduced: 'reduced volume',
  pain: 'stopped by pain',
};
