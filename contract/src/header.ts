/** Which club a page shows: it says so with each request, since another window may open another. */
export const CLUB_HEADER = 'gravek-club';
