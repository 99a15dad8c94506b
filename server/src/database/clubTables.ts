import { FOUNDATION_TABLES } from './migrations/0001_foundation';
import { MOVEMENT_TABLES } from './migrations/0002_movements';
import { LOG_TABLES } from './migrations/0004_log';
import { GROUND_TABLES } from './migrations/0007_grounds';
import { CALENDAR_TABLES } from './migrations/0011_builder';
import { LEDGER_TABLES } from './migrations/0013_ledger';
import { RUNG_TABLES } from './migrations/0015_rungs';
import { WATCHING_TABLES } from './migrations/0017_watching';
import { ACCOUNT_TABLES } from './migrations/0020_accounts';
import { RESTORING_TABLES } from './migrations/0021_restoring';
import { OWN_COUNT_TABLES } from './migrations/0032_own_counts';

/** Tables that belong to a club, in an order in which each one's parents come first. */
export const CLUB_TABLES = [
  ...GROUND_TABLES,
  ...FOUNDATION_TABLES,
  ...MOVEMENT_TABLES,
  ...LOG_TABLES.filter((table) => table !== 'fault_count'),
  ...CALENDAR_TABLES,
  ...LEDGER_TABLES,
  ...RUNG_TABLES,
  ...WATCHING_TABLES,
  ...ACCOUNT_TABLES,
  ...RESTORING_TABLES,
  ...OWN_COUNT_TABLES,
] as const;
