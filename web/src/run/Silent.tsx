import { SILENT_CUES } from '@gravek/core/session/silentCues';
import type { Exit } from '@gravek/library/field/reads';
import type { SetRun } from '@gravek/library/field/sets';
import { silentExit } from '@gravek/library/field/silentExit';
import type { TurnView } from '@gravek/library/field/turn';
import { isMirrored } from '@gravek/library/movement/sides';
import Button from 'react-bootstrap/Button';
import { validate as isUuid } from 'uuid';
import { onPress, sentenceOf } from '../api/client';
import { tell } from '../controls/toasts';
import { openSilent, type SilentNow, startSilent, stopSilent } from '../parts/silent/useSilent';

/** The read of a movement that ships. */
type PartnerRead = { movement: string; phase: string };

const SEEDS = 100;

/** A round for the read, in an order that nobody knows yet. */
const chooseRound = async ({ movement, phase }: PartnerRead): Promise<void> => {
  try {
    const { silentCode, silentRound } = await onPress(
      () => import('@gravek/library/field/silentReads'),
    );
    const code = silentCode(movement, phase, Math.floor(Math.random() * SEEDS));
    const round = code === null ? null : silentRound(code);
    if (code !== null && round) openSilent(code, round);
  } catch (error) {
    tell(sentenceOf(error));
  }
};

/** Has a partner show what is else called, on a phone of their own. */
export const SilentButton = ({
  read,
  at,
}: {
  /** the read of the turn; null where there is none that a partner can show */
  read: PartnerRead | null;
  at: SilentNow;
}) =>
  read && (
    <button
      type="button"
      className="cue-change"
      aria-expanded={at.round !== null}
      onClick={() => {
        if (at.round) stopSilent();
        else void chooseRound(read);
      }}
    >
      {at.round ? 'No partner' : 'By a partner'}
    </button>
  );

/** The read of a turn that a partner can show: one that nobody has decided before. */
export const partnerRead = (
  { exits, askedExit }: TurnView,
  { base, set }: Pick<SetRun, 'base' | 'set'>,
): PartnerRead | null => {
  const phase = exits[0]?.code.split(':')[0];
  // What is called otherwise is no read.
  if (set.call !== null && set.call.kind !== 'reads') return null;
  if (!base?.movement || phase === undefined || askedExit !== null) return null;
  // Of a club’s own movement a partner’s phone knows nothing; the code of such a movement is its id.
  const movement = base.movement.code;
  return exits.length > 1 && !isUuid(movement) ? { movement, phase } : null;
};

/** Whether the partner’s round is of this read: another set may be up meanwhile. */
export const isPartnered = ({ round, isRunning }: SilentNow, read: PartnerRead | null): boolean =>
  isRunning && round?.read.movement === read?.movement && round?.read.phase === read?.phase;

/** What a partner shows as a read of the turn; null while nothing shows, or it is of another movement. */
export const silentRead = (
  { round, cue, shownMs }: SilentNow,
  { exits, movement, athlete, variant }: TurnView,
): { exit: Exit; fromMs: number; untilMs: number } | null => {
  if (!round || !cue || shownMs === null || !movement) return null;
  const code = silentExit(round.read, cue.option, isMirrored(movement, athlete, variant.side));
  const exit = exits.find((other) => other.code === code);
  return exit ? { exit, fromMs: shownMs, untilMs: shownMs } : null;
};

/** Before it begins: the code for the partner's phone, and the start that both press. */
export const SilentCode = ({ code, at }: { code: string; at: SilentNow }) => {
  if (!at.round || at.isRunning) return null;
  return (
    <section className="measure-choice" aria-label="By a partner">
      <div className="row-line">
        <span className="silent-code">{code}</span>
        <span className="small-text">
          For the partner’s phone, at <strong>{window.location.host}/partner</strong>. Count three,
          two, one aloud, and both press start.
        </span>
        <Button size="lg" onClick={startSilent}>
          {at.isOver ? 'Again' : 'Start'}
        </Button>
      </div>
    </section>
  );
};

/** What the partner shows just now, for the coach alone. */
export const silentSaid = ({ round, cue, isShown, isRunning }: SilentNow): string | null => {
  if (!round || !isRunning) return null;
  if (!cue) return 'Partner: stand ready';
  const { shows } = round.read.shown[cue.option]!;
  return `${cue.n} of ${SILENT_CUES}${isShown ? ', now' : ', next'}: ${shows}`;
};
