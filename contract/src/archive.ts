/** Bytes of a club file that is read from the app; larger ones are loaded at the terminal. */
export const CLUB_FILE_MAX = 120_000_000;

/** How far an archive is that is read into a club. */
export type Restoring = {
  /** `stopped`: the server ended in the middle of it, and nothing was changed */
  state: 'waits' | 'checks' | 'stores' | 'counts' | 'done' | 'refused' | 'stopped';
  /** of `total` bytes while it is checked, of `total` rows while it is stored */
  done: number;
  total: number;
  /** why it was refused */
  said: string | null;
};

/** Whether something still happens. */
export const isUnderWay = ({ state }: Restoring): boolean =>
  state !== 'done' && state !== 'refused' && state !== 'stopped';
