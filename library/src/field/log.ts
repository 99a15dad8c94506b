import { inLogOrder, isAnswer, type Outcome, standing, wasRun } from '@gravek/core/session/repLog';
import type { LoggedRep, Turn } from '@gravek/core/session/runOrder';
import { variantFrom } from '@gravek/core/session/variants';
import { isSequence } from '@gravek/contract/choices';
import { type DrillSet, WARM_UP } from '@gravek/contract/drillSet';
import type { RunAthlete, RunCue, RunPlan } from '@gravek/contract/run';
import { type NewRep, PLAIN_REP, type Rep } from '@gravek/contract/session';
import { ranIn } from '../measuring/measuredRows';
import { waysOf } from '../movement/schools';
import { askedSpeed } from '../planning/pace';
import { fieldRun, movementCode } from '../session/fieldRun';
import { asVaried, type Base } from '../session/work';
import { outcomeOf } from './outcome';
import { askedExit } from './reads';
import { viewOfRep } from './shows';

/** A row of the log as the field knows it: as the server has it, or waiting to be sent. */
export type FieldRow = Rep & LoggedRep;

/** What a drill set is, apart from its log. */
export type SetWork = { set: DrillSet; plan: RunPlan | undefined; base: Base | null };

/** What was seen of a turn; `exit` is the one that a read asked for. */
export type Seen = {
  turn: Turn;
  outcome: Exclude<Outcome, 'void'>;
  faults?: readonly string[];
  cue?: string | null;
} & Partial<
  Pick<
    Rep,
    | 'made'
    | 'heldS'
    | 'touchS'
    | 'ranM'
    | 'ranS'
    | 'exit'
    | 'taken'
    | 'lateS'
    | 'lateBy'
    | 'note'
    | 'measured'
    | 'watched'
  >
>;

/** A stored row as the field counts it; a row of before says less of itself. */
export const fieldRow = (rep: Rep & { arrival?: number }): FieldRow => ({
  ...PLAIN_REP,
  ...rep,
  arrival: rep.arrival ?? null,
  atMs: Date.parse(rep.at),
});

/**
 * Metres and seconds that a rep was run. Metres that a set asks for lie taped on the ground; of minutes a device
 * may tell them. Seconds are the coach's clock's, else a device's. Null where the set is no matter of either.
 */
const ranOf = (
  { target, amount }: Pick<DrillSet, 'target' | 'amount'>,
  { measured, ranM, ranS }: Seen,
): Pick<Rep, 'ranM' | 'ranS'> => {
  const run = measured && !measured.simulated ? ranIn(measured) : { ranM: null, ranS: null };
  if (target !== 'metres' && target !== 'minutes') return { ranM: null, ranS: null };
  return {
    ranM: ranM ?? (target === 'metres' ? amount : run.ranM),
    ranS: ranS ?? run.ranS,
  };
};

/**
 * The row that an answer to a turn logs. It says by itself what the rep was, from the plan as the set runs
 * it, so that no later change of plan or session can make it mean something else.
 *
 * @param row names it: its id, its session, and the moment of the press, ISO 8601
 * @example
 * const set = setOfWork('s', { kind: 'movement', movement: 'give-ground', drill: null }, ['ana'], giveGround);
 * const base = { name: '', movement: giveGround, choices: plainChoices(giveGround, null) };
 * const turn = { drillSetId: 's', athleteId: 'ana', set: 1, side: 'own', variant: '', rep: 1, turn: 1, key: '' };
 * const seen = { turn, outcome: 'clean', exit: 'give:left', taken: 'give:right' };
 * const ana = { id: 'ana', name: 'Ana', hand: 'right', takeoffFoot: 'left', body };
 * repOf({ set, base, plan: undefined }, ana, seen, {}).outcome // 'fault': the way that was taken is a wrong answer
 */
export const repOf = (
  { set, plan, base }: SetWork,
  athlete: RunAthlete,
  seen: Seen,
  row: Pick<Rep, 'id' | 'sessionId' | 'at'>,
): NewRep => {
  const { key: _key, ...turn } = seen.turn;
  const variant = variantFrom(turn.variant, turn.side);
  const joined =
    base?.movement && base.choices
      ? asVaried({ movement: base.movement, choices: base.choices }, variant)
      : null;
  const varied = joined && !('why' in joined) ? joined : null;
  const run = plan && base ? fieldRun(plan, base, variant, athlete) : null;
  const wasDone = wasRun(seen) || seen.outcome === 'again';
  const exit = seen.exit ?? askedExit(base?.choices, variant);
  const view =
    base && wasRun(seen)
      ? viewOfRep(
          base,
          variant,
          {
            ...{ exit, asked: seen.exit ?? null, taken: seen.taken ?? null },
            faults: seen.outcome === 'fault' ? (seen.faults ?? []) : [],
          },
          athlete.body ?? undefined,
        )
      : { could: [], right: null, faults: [] };
  return {
    ...PLAIN_REP,
    ...turn,
    ...row,
    movement: (base && movementCode(base, variant)) ?? WARM_UP,
    part: varied && isSequence(varied.choices) ? varied.choices.drill : null,
    leadFoot: run?.outline?.firstFoot ?? variant.leadFoot,
    speedPct: varied
      ? Math.max(1, Math.round(askedSpeed(varied.movement, varied.choices) * 100))
      : null,
    rung: varied?.choices.rung ?? null,
    exit,
    ways: varied ? waysOf(varied.movement, varied.choices.schools) : null,
    load: wasDone ? (run?.load ?? null) : null,
    taken: seen.taken ?? null,
    right: view.right,
    lateS: seen.lateS ?? null,
    lateBy: seen.lateBy ?? null,
    made: seen.made ?? null,
    heldS: seen.heldS ?? null,
    touchS: seen.touchS && seen.touchS.length > 0 ? seen.touchS : null,
    ...(wasDone ? ranOf(set, seen) : {}),
    measured: wasDone ? (seen.measured ?? null) : null,
    note: seen.note ?? '',
    outcome: wasRun(seen)
      ? outcomeOf(set, { faults: view.faults, heldS: seen.heldS ?? null })
      : seen.outcome,
    voids: null,
    faults: view.faults,
    watched: seen.watched ?? true,
    could: view.could,
    cue: seen.cue ?? null,
  };
};

/**
 * The fault that an athlete's one cue is for: what was cued last in this session, on whichever phone, else
 * what was chosen before it.
 */
export const cueIn = (
  log: readonly FieldRow[],
  athleteId: string,
  movement: string,
  cue: Pick<RunCue, 'fault'> | undefined,
): string | null => {
  const mine = log.filter(
    (row) => row.athleteId === athleteId && row.movement === movement && isAnswer(row),
  );
  const last = inLogOrder(mine).at(-1);
  return last ? last.cue : (cue?.fault ?? null);
};

/**
 * The rows that one press has logged: those of one device with one moment.
 *
 * @example
 * const row = { device: 'phone', at: '2026-03-01T18:00:00Z' };
 * pressOf([{ ...row, id: 'a' }, { ...row, id: 'b' }, { ...row, id: 'c', at: '2026-03-01T18:01:00Z' }], { ...row, id: 'b' }).length
 * // 2
 */
export const pressOf = (log: readonly FieldRow[], last: FieldRow): FieldRow[] =>
  standing(log).filter(
    (row) => row.device === last.device && row.at === last.at && row.drillSetId === last.drillSetId,
  );
