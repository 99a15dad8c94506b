import type { Stand } from '@gravek/core/session/runOrder';
import type { Call, Helper, TargetKind } from '@gravek/contract/drillSet';

/** What a coach calls the choices of a drill set. */
export const STAND_NAMES: Record<Stand, string> = {
  turns: 'in turn',
  row: 'all at once',
  pairs: 'in pairs',
  stations: 'at stations',
  roles: 'in roles',
};

export const HELPER_NAMES: Record<Helper, string> = {
  feeder: 'feeds',
  collector: 'collects',
  watcher: 'watches',
  partner: 'partner',
  opponent: 'opponent',
};

const FRESH_CALLS: Record<Exclude<Call['kind'], 'tempo'>, Call> = {
  rhythm: { kind: 'rhythm' },
  steps: { kind: 'steps', steps: 8, leastS: 0.6, mostS: 2 },
  reads: { kind: 'reads' },
  start: { kind: 'start', leastS: 1.2, mostS: 2.4 },
};

export const CALL_NAMES: Record<Call['kind'], string> = {
  tempo: 'steady tempo',
  rhythm: 'the plan’s rhythm',
  steps: 'single steps, uneven',
  reads: 'a read at random',
  start: 'marks, set, go',
};

/** A call as it usually is; null for none. */
export const freshCall = (kind: Call['kind'] | '', tempoSpm: number): Call | null =>
  kind === '' ? null : kind === 'tempo' ? { kind, cadenceSpm: tempoSpm } : FRESH_CALLS[kind];

export const TARGET_NAMES: Record<TargetKind, string> = {
  attempts: 'reps',
  makes: 'makes',
  touches: 'touches',
  seconds: 'seconds held',
  metres: 'metres',
  minutes: 'minutes',
};
