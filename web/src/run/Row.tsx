import { cast } from '@gravek/core/rotation';
import type { Turn } from '@gravek/core/runOrder';
import { variantFrom } from '@gravek/core/variants';
import type { RunBundle } from '@gravek/contract/run';
import { faultOf } from '@gravek/library/byCode';
import { helpersOf } from '@gravek/library/rotationAxis';
import { bySchools } from '@gravek/library/schools';
import { likelyFaults } from '@gravek/library/standings';
import { fieldRun, sideWords, variantWords } from '@gravek/library/work';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Figure } from '../controls/Figure';
import { useKeys } from '../controls/keys';
import { CallBar, callWords } from './CallBar';
import { exitsToRead, useSetCall } from './useSetCall';
import { Notes } from './Notes';
import { cueIn, type PhoneRow, type Seen, type SetRun } from './useRun';

/** Taps on a name go through so many of the likeliest faults and then back to clean. */
const LIKELY = 4;

/** All at once on a call: one taps whoever showed something, the rest are clean with the next call. */
export const Row = ({
  bundle,
  log,
  at,
  said,
  onAnswers,
  onUndo,
  onPeople,
}: {
  bundle: RunBundle;
  log: readonly PhoneRow[];
  at: SetRun;
  said: string | null;
  onAnswers: (seen: Seen[]) => void;
  onUndo: () => void;
  onPeople: () => void;
}) => {
  const { set, plan, base, now, last, away, people } = at;
  const up = now[0]!;
  const [shown, setShown] = useState<Record<string, string>>({});
  const [hurt, setHurt] = useState(false);
  const variant = variantFrom(up.variant, up.side);
  const movement = base ? at.movementOf(variant) : null;
  const taught = movement && bySchools(movement, base?.choices?.schools);
  const athletes = now.map((turn) => at.athleteOf(turn.athleteId));
  const run = plan && base ? fieldRun(plan, base, variant, athletes[0]!) : null;
  const exits = exitsToRead(movement, base?.choices ?? null);
  const call = useSetCall(set, exits, run?.outline ?? null);
  const pairs = set.stand === 'pairs';
  const helpers = helpersOf(set);
  const ring = people.filter((id) => !away.has(id));
  const parts = cast(
    ring,
    now.map((turn) => turn.athleteId),
    1 + helpers.length,
  );
  const helping = (lane: number): string[] =>
    [...parts].flatMap(([id, part]) =>
      part.role > 0 && part.lane === lane
        ? [`${helpers[part.role - 1]!}: ${at.athleteOf(id).name.split(' ')[0]}`]
        : [],
    );
  const waiting = ring.filter((id) => !parts.has(id));
  const faultsOf = (turn: Turn) => {
    if (!taught) return [];
    const own = bundle.cues.find(
      (cue) => cue.athleteId === turn.athleteId && cue.movement === taught.code,
    );
    return likelyFaults(
      taught,
      {
        fault: cueIn(log, turn.athleteId, taught.code, own),
        likely: own?.likely ?? [],
      },
      run?.phases,
    ).slice(0, LIKELY);
  };
  const tap = (turn: Turn): void => {
    if (hurt) {
      setHurt(false);
      onAnswers([{ turn, outcome: 'pain' }]);
      return;
    }
    const list = faultsOf(turn).map((fault) => fault.code);
    const before = shown[turn.athleteId];
    const after = list[before === undefined ? 0 : list.indexOf(before) + 1];
    const { [turn.athleteId]: _gone, ...rest } = shown;
    setShown(after === undefined ? rest : { ...rest, [turn.athleteId]: after });
  };
  const faulty = now.filter((turn) => shown[turn.athleteId] !== undefined).length;
  /** whether the next turn is called as soon as it is up */
  const callNext = useRef(false);
  const upKey = now.map((turn) => turn.key).join();
  useEffect(() => {
    if (callNext.current) call.call(up);
    callNext.current = false;
    // Only when others are up.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [upKey]);
  const logAll = (): void => {
    const exit = call.read?.exit.code;
    onAnswers(
      now.map((turn): Seen => {
        const fault = shown[turn.athleteId];
        const own = bundle.cues.find(
          (cue) => cue.athleteId === turn.athleteId && cue.movement === taught?.code,
        );
        return {
          turn,
          outcome: taught ? (fault === undefined ? 'clean' : 'fault') : 'done',
          faults: fault === undefined ? [] : [fault],
          cue: cueIn(log, turn.athleteId, taught?.code ?? '', own),
          ...(exit ? { exit } : {}),
        };
      }),
    );
  };
  const called = !set.call || call.events.length > 0;
  const press = (): void => {
    if (!called) call.call(up);
    else {
      call.stop();
      callNext.current = set.call !== null;
      logAll();
      setShown({});
    }
  };
  useKeys((key) => {
    if (key === 'c' || key === 'l') press();
    else if (key === 'u' && last) onUndo();
    else if (key === ' ' && set.call) call.call(up);
  });

  const side = set.vary.sides.length > 1 ? sideWords(movement, athletes, up.side) : '';
  const words = [...variantWords(base ?? { movement: null }, variant), ...(side ? [side] : [])];
  const clean = now.length - faulty;
  return (
    <>
      <div className="run-body">
        {said && (
          <div className="note small-text" role="status">
            {said}
          </div>
        )}
        <div className="run-who">
          <div>
            <h1 className="row-what">{words.length > 0 ? words.join(', ') : base?.name}</h1>
            <div className="quiet">
              {[
                ...(words.length > 0 && base ? [base.name] : []),
                ...(set.call ? [callWords(set.call)] : []),
                ...(set.apartPaces ? [`${set.apartPaces} own paces apart`] : []),
              ].join(' · ')}
            </div>
          </div>
          <div className="rep-no">
            <Figure parts={[{ figure: String(up.rep), unit: `of ${set.reps}` }]} />
            <div className="run-next">
              set {up.set} of {set.sets}
            </div>
          </div>
        </div>
        <Notes away={away} cautions={plan?.cautions ?? []} />
        {set.call && <CallBar call={set.call} at={call} />}
        <div className="quiet small-text">
          {!taught && !hurt
            ? `${set.amount} times, all together.`
            : hurt
              ? 'Who is hurt? A tap ends it for them.'
              : set.freeze
                ? 'Freeze. Who showed something? As they stand, from your left.'
                : 'Who showed something? Tap again for another fault.'}
        </div>
        <div
          className={pairs ? 'row-keys row-pairs' : 'row-keys'}
          role="group"
          aria-label="As they stand"
        >
          {now.map((turn, i) => {
            const athlete = at.athleteOf(turn.athleteId);
            const fault = shown[turn.athleteId];
            const others = helping(i + 1);
            return (
              <button
                key={turn.athleteId}
                type="button"
                className={fault === undefined ? 'row-key' : 'row-key row-fault'}
                aria-pressed={fault !== undefined}
                onClick={() => tap(turn)}
              >
                <strong>{athlete.name.split(' ')[0]}</strong>
                {others.length > 0 && <span className="small-text">{others.join(', ')}</span>}
                {fault !== undefined && taught && (
                  <span className="small-text">{faultOf(taught, fault)?.name}</span>
                )}
              </button>
            );
          })}
        </div>
        {waiting.length > 0 && (
          <div className="run-next">
            {waiting.length === 1 ? 'waits' : 'wait'}:{' '}
            {waiting.map((id) => at.athleteOf(id).name.split(' ')[0]).join(', ')}
          </div>
        )}
      </div>
      <div className="run-answers">
        <button
          type="button"
          className={faulty > 0 && called ? 'answer answer-fault' : 'answer'}
          // What is still being called has not been seen yet; a tempo goes on until it is stopped.
          disabled={call.running && (set.call?.kind === 'steps' || set.call?.kind === 'start')}
          onClick={press}
        >
          {!called
            ? 'Call'
            : !taught
              ? 'Done'
              : set.call
                ? 'Next call'
                : faulty > 0
                  ? 'Log'
                  : 'All clean'}
          {called && taught && (faulty > 0 || set.call) && (
            <small>
              {faulty} with a fault, {clean} clean
            </small>
          )}
        </button>
        <div className="others">
          {set.call && called && (
            <Button
              variant="outline-dark"
              onClick={() => (call.running ? call.stop() : call.call(up))}
            >
              {call.running ? 'Stop' : 'Call again'}
            </Button>
          )}
          <Button variant="outline-dark" disabled={!last} onClick={onUndo}>
            Undo
          </Button>
          <Button
            variant={hurt ? 'dark' : 'outline-dark'}
            aria-pressed={hurt}
            onClick={() => setHurt(!hurt)}
          >
            Pain
          </Button>
          <Button variant="outline-dark" onClick={onPeople}>
            Athletes
          </Button>
        </div>
      </div>
    </>
  );
};
