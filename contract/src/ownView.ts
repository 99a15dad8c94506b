import type { Layout } from '@gravek/core/layout/shape';
import type { SeriesRules } from '@gravek/core/session/seriesNext';
import type { LengthUnit } from '@gravek/core/units';
import { array, boolean, type InferType, object, string } from 'yup';
import { type DrillSet, SIDES } from './drillSet';
import type { Ledger, LedgerRow } from './faults';
import { choice, count, figureOrNull, flagOr, id, idOrNone, moment } from './fields';
import type { Outline } from './plan';
import { variant } from './sessionSchema';

/** A link by which an athlete sees the own page, given by a coach. */
export const ownLinkInput = object({
  /** it holds for so long */
  days: count('Days', 1, 365),
  /** that a guardian agreed; asked of everybody who may be a minor */
  guardian: boolean().strict().required('Say whether a guardian agreed.'),
});
/** What comes at the end of the address, shown once. */
export type OwnLink = { token: string; until: string };
/** Until when a link holds; null without one. */
export type OwnLinkKept = { until: string | null };

const token = () =>
  string().strict().required('The link is not whole.').max(80, 'The link is not whole.');

export const ownViewAsk = object({ token: token() });

/** A try of a list that athletes work off alone, as they count it themselves; a void takes another back. */
export const ownCountInput = object({
  id: id(),
  sessionId: id(),
  drillSetId: id(),
  side: choice('a side', SIDES),
  variant: variant(),
  made: flagOr(null),
  heldS: figureOrNull('Seconds held', 0, 3600, ' s'),
  voids: idOrNone(),
  at: moment('The time'),
});
export type OwnCount = InferType<typeof ownCountInput>;

/** Tries sent at once. */
export const OWN_BATCH = 100;
/** Tries of a drill set that anybody has in them. */
export const MOST_OWN_COUNTS = 1_000;

export const ownCountsInput = object({
  token: token(),
  counts: array(ownCountInput.required())
    .required('The tries are missing.')
    .min(1, 'There is no try to keep.')
    .max(OWN_BATCH, `At most ${OWN_BATCH} tries at a time.`),
});

/** Tries that were not kept, by id: of a session that the coach has changed since. */
export type OwnCountsKept = { refused: string[] };

/** A drill set as an athlete works it off alone, in the coach's order. */
export type OwnList = {
  sessionId: string;
  drillSetId: string;
  /** yyyy-mm-dd */
  date: string;
  name: string;
  /** how the drill goes; empty where nothing is said */
  how: string;
  /** what the coach would say; null where nothing is said */
  cue: string | null;
  call: DrillSet['call'];
  /** what a try comes to: made or missed, seconds held, or done */
  counts: 'makes' | 'seconds' | 'done';
  /** seconds that are asked, where those count */
  heldS: number | null;
  /** fewer makes and tries for the young */
  rules: SeriesRules;
  items: OwnItem[];
};

export type OwnItem = Pick<OwnCount, 'side' | 'variant'> & {
  words: string;
  outline: Outline | null;
  /** where the feet go, without the way of the body */
  layout: Layout | null;
  /** exits that may be called */
  exits: { code: string; name: string; weight: number }[];
};

/** What an athlete has counted of a drill set on a day, as the coach sees it. */
export type OwnCounted = {
  date: string;
  name: string;
  made: number;
  tried: number;
  /** seconds; null where none were held */
  bestHeldS: number | null;
};

/** What athletes see of themselves, and of nobody else. */
export type OwnView = {
  club: string;
  unit: LengthUnit;
  name: string;
  shoeM: number | null;
  until: string;
  /** of the last days, the newest first */
  lists: OwnList[];
  /** what was counted of these lists so far, in order */
  counts: OwnCount[];
  plans: { id: string; name: string; estimate: boolean; outline: Outline }[];
  standings: {
    movement: string;
    /** to be heard before the next rep; null when nothing is to be said */
    cue: { words: string; fault: string; drill: { name: string; how: string } | null } | null;
    log: Ledger['log'];
    spans: Ledger['spans'];
    /** of the fault that the cue is for */
    row: LedgerRow | null;
  }[];
};
