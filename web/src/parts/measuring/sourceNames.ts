import type { Source } from '@gravek/contract/source';

/** Who has measured. */
export const SOURCE_NAMES: Record<Source, string> = {
  self: 'the athlete',
  other: 'somebody else',
  device: 'a device',
};
