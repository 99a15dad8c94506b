import type { CueSchool } from '@gravek/core/cue/chooseCue';
import { STUCK_SESSIONS } from '@gravek/core/cue/cueState';
import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import { counted } from '@gravek/core/words';
import type { Ledger, LedgerRow } from '@gravek/contract/faults';
import type { Fault, Movement } from '@gravek/contract/movement';
import { faultOf, firstPhaseOf } from '../movement/byCode';
import { cueFor } from './cue';

/** What a coach does with a cue: keep it, give another one, or wait before judging. */
export type CueVerdict = {
  kind: 'begins' | 'too-early' | 'works' | 'cleared' | 'unclear' | 'not-working';
  /** in a sentence or two */
  sentence: string;
  /** the fault to cue instead; null where the cue is to be kept, or nothing else is live */
  instead: Fault | null;
};

/**
 * What to cue in place of a cue that does nothing: the live fault that brings its fault about most often, else
 * what the school would choose without it.
 */
const insteadOf = (
  movement: Movement,
  code: string,
  rows: readonly LedgerRow[],
  school: CueSchool,
): Fault | null => {
  const live = rows.filter((row) => row.code !== code && row.rate >= LIVE_RATE);
  const [cause] = live
    .filter((row) => faultOf(movement, row.code)?.leadsTo.includes(code))
    .sort((a, b) => b.rate - a.rate);
  const root = cause && faultOf(movement, cause.code);
  if (root && firstPhaseOf(movement, root) <= firstPhaseOf(movement, faultOf(movement, code)!)) {
    return root;
  }
  return cueFor(movement, school, live)?.fault ?? null;
};

/**
 * Whether the one cue works, as a coach would act on it; the figures stand behind it.
 *
 * @param movement in the words that hold for the athlete
 * @returns null where there is no cue
 * @example
 * const cue = { fault: 'reaches', sessions: 5 };
 * const rows = [{ code: 'reaches', state: 'clearing' }];
 * cueVerdict(straightRunUp, { cue, rows }, 'root-cause').kind // 'works'
 */
export const cueVerdict = (
  movement: Movement,
  { cue, rows }: Pick<Ledger, 'cue' | 'rows'>,
  school: CueSchool,
): CueVerdict | null => {
  const fault = cue && faultOf(movement, cue.fault);
  if (!fault) return null;
  const row = rows.find(({ code }) => code === fault.code);
  const { sessions } = cue;
  const say = (
    kind: CueVerdict['kind'],
    sentence: string,
    instead: Fault | null = null,
  ): CueVerdict => ({ kind, sentence, instead });
  if (sessions === 0) return say('begins', 'New: it begins with the next session.');
  const after = `after ${counted(sessions, 'session')}`;
  switch (row?.state) {
    case 'cleared':
      return say('cleared', `${fault.name} has cleared ${after}: the next cue may begin.`);
    case 'clearing':
      return say('works', `Working ${after}: keep it until it stays away for a week.`);
    case 'stuck': {
      const instead = insteadOf(movement, fault.code, rows, school);
      return say(
        'not-working',
        instead
          ? `Not working ${after}: try “${instead.cue}”.`
          : `Not working ${after}: try another drill against it.`,
        instead,
      );
    }
    case 'new':
    case 'steady':
    case 'back':
    case undefined:
      return sessions < STUCK_SESSIONS
        ? say('too-early', `Too early to say ${after}: keep it for ${STUCK_SESSIONS}.`)
        : say('unclear', `No clear change yet ${after}: keep it.`);
  }
};
