/** Which club a page shows: it says so with each request, since another window may open another. */
export const CLUB_HEADER = 'gravek-club';

/**
 * How many rows of the log the counts behind an answer do not hold yet; absent where an answer has nothing to do with counts.
 * They are counted within a second or so, and word is given then.
 */
export const UNCOUNTED_HEADER = 'gravek-uncounted';
