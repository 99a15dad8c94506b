import type { LengthUnit } from '@gravek/core/units';
import { boolean, object, string } from 'yup';
import type { Ledger, LedgerRow } from './faults';
import { count } from './fields';
import type { Outline } from './plan';

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

export const ownViewAsk = object({
  token: string().strict().required('The link is not whole.').max(80, 'The link is not whole.'),
});

/** What athletes see of themselves, and of nobody else. */
export type OwnView = {
  club: string;
  unit: LengthUnit;
  name: string;
  shoeM: number | null;
  until: string;
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
