/** What is said of the cadence where runs were taped and not timed. */
export const UNTIMED =
  'These steps were taped, not timed: the lengths are measured, the cadence is an estimate. Time the steps of one run to have it measured.';
