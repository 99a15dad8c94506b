/** What is written down of what people do to a club. */
export const DEEDS = [
  'signed in',
  'made the club',
  'invited',
  'made an invitation link',
  'took an invitation back',
  'joined',
  'changed a role',
  'ended a membership',
  'made a password link',
  'used a password link',
  'changed their password',
  'turned the second step on',
  'turned the second step off',
  'changed who needs a second step',
  'gave an athlete’s link',
  'took an athlete’s link back',
  'took the archive out',
  'read an archive in',
  'took a table out',
  'deleted an athlete',
  'lifted a restriction',
] as const;
export type Deed = (typeof DEEDS)[number];

/** A line of the club's log. */
export type DeedLine = { id: string; at: string; person: string; what: Deed; about: string };
