import type { DrillSet } from '@gravek/contract/drillSet';
import { useEffect, useState } from 'react';
import { useDraft } from '../controls/draft';
import { clock } from '../controls/clock';

/**
 * The coach's clock over metres or minutes: it runs on while the page is reloaded or the phone is locked. Who
 * forgot to start it logs without a time.
 */
export const RunClock = ({
  name,
  set,
  faults,
  onRan,
}: {
  /** what it is kept under on this device */
  name: string;
  set: Pick<DrillSet, 'target' | 'amount'>;
  /** what is marked, in words; null where nothing is */
  faults: string | null;
  /** seconds run; null without a time */
  onRan: (seconds: number | null) => void;
}) => {
  const [fromMs, setFrom, forget] = useDraft<number | null>(`clock.${name}`, null);
  const [nowMs, setNow] = useState(Date.now);
  const isRunning = fromMs !== null;
  useEffect(() => {
    if (!isRunning) return undefined;
    const timer = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(timer);
  }, [isRunning]);
  const ran = (seconds: number | null): void => {
    forget(null);
    onRan(seconds);
  };
  const asked = `${set.amount} ${set.target === 'metres' ? 'm' : 'min'}`;
  const log = faults === null ? 'Clean' : `Log ${faults}`;
  if (!isRunning)
    return (
      <div className="two-answers">
        <button type="button" className="answer answer-held" onClick={() => setFrom(Date.now())}>
          Start
          <small>{asked}</small>
        </button>
        <button
          type="button"
          className={`answer ${faults === null ? 'answer-missed' : 'answer-fault'}`}
          onClick={() => ran(null)}
        >
          {log}
          <small>without a time</small>
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
          {asked}
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
