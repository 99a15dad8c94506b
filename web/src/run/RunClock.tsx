import type { DrillSet } from '@gravek/contract/drillSet';
import { useEffect, useState } from 'react';
import { useDraft } from '../controls/draft';
import { clock } from '../controls/clock';

/** Nobody runs longer: a clock that says more was forgotten. */
const LONGEST_MS = 4 * 3_600_000;

/**
 * The coach's clock over metres or minutes: it runs on while the page is reloaded or the phone is locked. Who
 * forgot to start it logs without a time.
 */
export const RunClock = ({
  name,
  set,
  faults,
  takenBackS,
  onRan,
}: {
  /** what it is kept under on this device */
  name: string;
  set: Pick<DrillSet, 'target' | 'amount'>;
  /** what is marked, in words; null where nothing is */
  faults: string | null;
  /** seconds that were just taken back; null where none were */
  takenBackS: number | null;
  /** seconds run; null without a time */
  onRan: (seconds: number | null) => void;
}) => {
  const [startedMs, setFrom, forget] = useDraft<number | null>(`clock.${name}`, null);
  const [nowMs, setNow] = useState(Date.now);
  // One that was left running, or whose device has been set back, times nothing any more.
  const fromMs =
    startedMs !== null && startedMs <= nowMs && nowMs - startedMs < LONGEST_MS ? startedMs : null;
  const isRunning = fromMs !== null;
  useEffect(() => {
    if (!isRunning) return undefined;
    const timer = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(timer);
  }, [isRunning]);
  const start = (): void => {
    const now = Date.now();
    setNow(now);
    setFrom(now);
  };
  const ran = (seconds: number | null): void => {
    forget(null);
    onRan(seconds);
  };
  const amount = `${set.amount} ${set.target === 'metres' ? 'm' : 'min'}`;
  const log = faults === null ? 'Clean' : `Log ${faults}`;
  if (!isRunning)
    return (
      <div className="two-answers">
        <button type="button" className="answer answer-held" onClick={start}>
          Start
          <small>{amount}</small>
        </button>
        <button
          type="button"
          className={`answer ${faults === null ? 'answer-missed' : 'answer-fault'}`}
          onClick={() => ran(takenBackS)}
        >
          {log}
          <small>
            {takenBackS === null
              ? 'without a time'
              : `with the ${clock(Math.round(takenBackS))} that were taken back`}
          </small>
        </button>
      </div>
    );
  const seconds = Math.max(0, Math.round((nowMs - fromMs) / 100) / 10);
  return (
    <div className="two-answers">
      <button
        type="button"
        className={`answer ${faults === null ? '' : 'answer-fault'}`}
        onClick={() => ran(Math.round((Date.now() - fromMs) / 10) / 100)}
      >
        Finished
        <small role="timer">
          {set.target === 'minutes' ? clock(Math.floor(seconds)) : `${seconds.toFixed(1)} s`} of{' '}
          {amount}
          {faults === null ? '' : `, ${faults}`}
        </small>
      </button>
      <button type="button" className="answer answer-missed" onClick={() => forget(null)}>
        Not yet
        <small>start the clock anew</small>
      </button>
    </div>
  );
};
