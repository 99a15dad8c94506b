import '../look/look.scss';
import { SILENT_CUES } from '@gravek/core/session/silentCues';
import { silentRound } from '@gravek/library/field/silentReads';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useTitle } from '../controls/useTitle';
import {
  openSilent,
  type SilentNow,
  startSilent,
  stopSilent,
  useSilentNow,
} from '../parts/silent/useSilent';

const FIGURES = 4;
const BUZZ_MS = 250;

/** The code that the coach's phone shows, typed once. */
const Code = () => {
  const [code, setCode] = useState('');
  const isWhole = code.length === FIGURES;
  const round = isWhole ? silentRound(code) : null;
  return (
    <form
      className="stack"
      onSubmit={(event) => {
        event.preventDefault();
        if (round) openSilent(code, round);
      }}
    >
      <h1>Be the partner</h1>
      <p className="mb-0">
        You show what the coach would otherwise call, so that nobody hears it. Type the four figures
        on the coach’s phone.
      </p>
      <Form.Control
        aria-label="The coach’s code"
        className="silent-code"
        inputMode="numeric"
        autoComplete="off"
        maxLength={FIGURES}
        value={code}
        onChange={(event) => setCode(event.target.value.replace(/\D/g, ''))}
      />
      {isWhole && !round && (
        <div className="partner-wrong" role="alert">
          No round has this code. Look at the coach’s phone again.
        </div>
      )}
      <Button type="submit" size="lg" disabled={!round}>
        {round ? round.read.name : 'Go on'}
      </Button>
    </form>
  );
};

/** What to show, a moment before; then a buzz and a flash, and it is shown. */
const Round = ({ at: { round, cue, isShown, isRunning, isOver } }: { at: SilentNow }) => {
  useEffect(() => {
    if (isShown) navigator.vibrate?.(BUZZ_MS);
  }, [isShown]);
  const { name, shown } = round!.read;
  return (
    <>
      <div className="row-line">
        <button type="button" className="partner-leave" onClick={stopSilent}>
          Another code
        </button>
        <span className="ms-auto">{cue ? `${cue.n} of ${SILENT_CUES}` : name}</span>
      </div>
      <div className="partner-shows" role="status">
        {isRunning && cue && (
          <>
            <div>{isShown ? 'Now' : 'When it buzzes'}</div>
            <h1>{shown[cue.option]!.shows}</h1>
          </>
        )}
        {!(isRunning && cue) && (
          <h1>{isOver ? 'That was the round' : isRunning ? 'Stand ready' : name}</h1>
        )}
      </div>
      <div className="partner-foot">
        <p>
          {isRunning
            ? 'Nobody else sees or hears this. Hold the screen away from the athlete.'
            : 'The coach counts: three, two, one. Press start together.'}
        </p>
        {!isRunning && (
          <Button variant="outline-light" size="lg" onClick={startSilent}>
            {isOver ? 'The same again' : 'Start'}
          </Button>
        )}
      </div>
    </>
  );
};

/**
 * The phone of a partner who shows what only the coach knows: it goes by the code and its own clock, and needs neither
 * network nor sign-in.
 */
export const Partner = () => {
  useTitle('Partner');
  const at = useSilentNow();
  return (
    <main className={at.isRunning && at.isShown ? 'partner-page shows' : 'partner-page'}>
      {at.round ? <Round at={at} /> : <Code />}
    </main>
  );
};
