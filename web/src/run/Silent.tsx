import { SILENT_CUES } from '@gravek/core/session/silentCues';
import type { Exit } from '@gravek/library/field/reads';
import type { SetRun } from '@gravek/library/field/sets';
import { silentCode, silentExit } from '@gravek/library/field/silent';
import type { TurnView } from '@gravek/library/field/turn';
import { isMirrored } from '@gravek/library/movement/sides';
import Button from 'react-bootstrap/Button';
import { openSilent, type SilentNow, startSilent, stopSilent } from '../parts/silent/useSilent';

const SEEDS = 100;

/** Has a partner show what is else called, on a phone of their own. */
export const SilentButton = ({
  read,
  at,
}: {
  /** the read of the turn; null where there is none that a partner can show */
  read: { movement: string; phase: string } | null;
  at: SilentNow;
}) =>
  read && (
    <button
      type="button"
      className="cue-change"
      aria-expanded={at.round !== null}
      onClick={() => {
        if (at.round) stopSilent();
        else {
          const code = silentCode(read.movement, read.phase, Math.floor(Math.random() * SEEDS));
          if (code !== null) openSilent(code);
        }
      }}
    >
      {at.round ? 'No partner' : 'By a partner'}
    </button>
  );

/** The read of a turn that a partner can show: one that nobody has decided before. */
export const partnerRead = (
  { exits, askedExit }: TurnView,
  { base }: Pick<SetRun, 'base'>,
): { movement: string; phase: string } | null => {
  const phase = exits[0]?.code.split(':')[0];
  if (!base?.movement || phase === undefined || askedExit !== null) return null;
  const movement = base.movement.code;
  return silentCode(movement, phase, 0) === null ? null : { movement, phase };
};

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
export const SilentCode = ({ code, at }: { code: string | null; at: SilentNow }) => {
  if (code === null || at.isRunning) return null;
  return (
    <section className="measure-choice" aria-label="By a partner">
      <div className="row-line">
        <span className="silent-code">{code}</span>
        <span className="small-text">
          On the partner’s phone: <strong>/partner</strong>, this code. Then count aloud, three,
          two, one, and both press start.
        </span>
        <Button onClick={startSilent}>{at.isOver ? 'Again' : 'Start'}</Button>
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
