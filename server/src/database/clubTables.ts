import { FOUNDATION_TABLES } from './migrations/0001_foundation';
import { MOVEMENT_TABLES } from './migrations/0002_movements';

/** Tables that belong to a club, in an order in which each one's parents come first. */
export const CLUB_TABLES = [...FOUNDATION_TABLES, ...MOVEMENT_TABLES] as const;
