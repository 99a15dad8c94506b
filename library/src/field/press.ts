import { LATEST_TAP_S } from '@gravek/core/session/repCounts';
import type { Turn } from '@gravek/core/session/runOrder';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import type { Rep } from '@gravek/contract/session';
import type { FieldRow, Seen } from './log';
import { LEAST_HOLD_S } from './outcome';
import { answersRead, tapsOf, wrongAnswerTo } from './shows';

/** How a read was answered: what was called, which way was taken, how soon, and what timed that. */
export type ReadAnswer = Pick<Rep, 'exit' | 'taken' | 'lateS' | 'lateBy'>;

/** What has been pressed of a turn that is not logged yet. */
export type TurnMarks = {
  /** codes of faults that were tapped */
  faults: readonly string[];
  /** seconds of a press that was no hold, or of a hold that was taken back, while it is asked what was meant */
  askedS: number | null;
  /** seconds of a run that was taken back: they may be logged again */
  ranS: number | null;
  /** an answer to a read that was wrong, while it is asked what else showed */
  wrong: ReadAnswer | null;
  /** moments of the touches so far, seconds from the first or from the go */
  touchS: readonly number[];
  /** the cue as the coach has changed it: a fault's code, null for none; undefined where nothing was changed */
  cue: string | null | undefined;
};

/** What a press says. */
export type Press =
  | { press: 'fault'; fault: string }
  | { press: 'cue'; fault: string | null }
  /** which way was taken; `lateS` from the call, null where nothing was called */
  | { press: 'way'; exit: string; lateS: number | null; lateBy: Rep['lateBy'] }
  /** the wrong answer was a slip of the thumb */
  | { press: 'not-that-way' }
  | { press: 'held'; seconds: number }
  | { press: 'hold-again' }
  | { press: 'touched'; atS: number }
  | { press: 'touches-anew' }
  /** the rep is over */
  | { press: 'log'; made?: boolean; ranS?: number | null; ranM?: number | null }
  | { press: 'again' }
  | { press: 'skip' }
  | { press: 'pain' };

/** What a press is about. */
export type PressOn = {
  turn: Turn;
  set: Pick<DrillSet, 'target' | 'amount'>;
  /** as it is taught; null for a warm-up */
  movement: Movement | null;
  /** the exit that was called, else that is asked; null where the athlete reads it */
  wanted: string | null;
  /** code of the fault that is cued */
  cue: string | null;
};

/** An answer to a turn, but for what was noted and measured. */
export type Answer = Omit<Seen, 'note' | 'measured' | 'watched'>;

/** A turn of which nothing has been pressed. */
export const NOTHING_PRESSED: TurnMarks = {
  faults: [],
  askedS: null,
  ranS: null,
  wrong: null,
  touchS: [],
  cue: undefined,
};

/**
 * A turn whose answer was just taken back: what was tapped in it is still tapped.
 *
 * @param movement as it is run; null where it is not known any more
 * @param takenBack null where nothing of this turn was
 */
export const marksFrom = (movement: Movement | null, takenBack: FieldRow | null): TurnMarks =>
  takenBack === null
    ? NOTHING_PRESSED
    : {
        ...NOTHING_PRESSED,
        faults: tapsOf(movement, takenBack),
        askedS: takenBack.heldS,
        ranS: takenBack.ranS,
        touchS: takenBack.touchS ?? [],
      };

/** A time from a call as it is kept: not at all where it says nothing of how soon the athlete has moved. */
const timed = (lateS: number | null, lateBy: Rep['lateBy']): Pick<Rep, 'lateS' | 'lateBy'> =>
  lateS === null || lateS > LATEST_TAP_S
    ? { lateS: null, lateBy: null }
    : { lateS: Math.round(lateS * 100) / 100, lateBy };

/**
 * What a press means: what is marked after it, and the answer, where it gives one. Nothing is logged before
 * it is whole: a wrong way asks what else showed, a press that is no hold asks what was meant.
 *
 * @returns `answer` null while the turn goes on
 * @example
 * const on = { turn: {}, set: { target: 'seconds', amount: 3 }, movement: giveGround, wanted: null, cue: null };
 * pressed(NOTHING_PRESSED, { press: 'held', seconds: 0.2 }, on) // { marks: { askedS: 0.2 }, answer: null }
 */
export const pressed = (
  marks: TurnMarks,
  press: Press,
  { turn, set, movement, wanted, cue }: PressOn,
): { marks: TurnMarks; answer: Answer | null } => {
  const goOn = (change: Partial<TurnMarks>) => ({ marks: { ...marks, ...change }, answer: null });
  const log = (outcome: Seen['outcome'], more: Partial<Answer> = {}) => ({
    marks: { ...NOTHING_PRESSED, cue: marks.cue },
    answer: { turn, outcome, faults: marks.faults, cue, ...more },
  });
  const runAs = (): 'clean' | 'fault' | 'done' =>
    movement === null ? 'done' : marks.faults.length > 0 ? 'fault' : 'clean';
  switch (press.press) {
    case 'fault':
      return goOn({
        faults: marks.faults.includes(press.fault)
          ? marks.faults.filter((code) => code !== press.fault)
          : [...marks.faults, press.fault],
      });
    case 'cue':
      return goOn({ cue: press.fault });
    case 'way': {
      const answer: ReadAnswer = {
        taken: press.exit,
        exit: wanted,
        ...timed(press.lateS, press.lateBy),
      };
      if (!movement || wanted === null || answersRead(movement, wanted, press.exit))
        return log(runAs(), answer);
      const fault = wrongAnswerTo(movement, wanted)?.code;
      return goOn({
        wrong: answer,
        faults:
          fault === undefined || marks.faults.includes(fault)
            ? marks.faults
            : [...marks.faults, fault],
      });
    }
    case 'not-that-way': {
      const exit = marks.wrong?.exit ?? null;
      const fault = exit === null || !movement ? undefined : wrongAnswerTo(movement, exit)?.code;
      return goOn({ wrong: null, faults: marks.faults.filter((code) => code !== fault) });
    }
    case 'held':
      return press.seconds < LEAST_HOLD_S && marks.askedS === null
        ? goOn({ askedS: press.seconds })
        : log(runAs(), { heldS: press.seconds });
    case 'hold-again':
      return goOn({ askedS: null });
    case 'touched':
      // Once a count was taken back nobody knows how long ago it was: the next touch is the first of another.
      if (press.atS === 0) return goOn({ touchS: [0] });
      return marks.touchS.length >= set.amount || press.atS < (marks.touchS.at(-1) ?? 0)
        ? goOn({})
        : goOn({ touchS: [...marks.touchS, Math.round(press.atS * 100) / 100] });
    case 'touches-anew':
      return goOn({ touchS: [] });
    case 'log': {
      const { press: _press, ...ran } = press;
      return log(runAs(), {
        ...ran,
        ...marks.wrong,
        ...(set.target === 'touches' && movement !== null ? { touchS: [...marks.touchS] } : {}),
      });
    }
    case 'again':
    case 'skip':
    case 'pain':
      return log(press.press);
  }
};
