import { cast } from '@gravek/core/session/rotation';
import type { Turn } from '@gravek/core/session/runOrder';
import type { RunBundle } from '@gravek/contract/run';
import type { FieldRow, Seen } from '@gravek/library/field/log';
import { ownBeat } from '@gravek/library/field/ownBeat';
import { rowCalls, rowPlaces, watchedAfter, wordsOfRow } from '@gravek/library/field/row';
import type { SetRun } from '@gravek/library/field/sets';
import { faultsOffered, type TurnWords, turnView, turnWords } from '@gravek/library/field/turn';
import { sideWord } from '@gravek/library/movement/sides';
import { helpersOf } from '@gravek/library/session/rotationAxis';
import { variantWords } from '@gravek/library/session/setWords';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useKeys } from '../controls/keys';
import { CallBar } from '../parts/field/CallBar';
import { useSetCall } from '../parts/field/useSetCall';
import { FaultPicker, useFaultPicks } from './FaultPicker';
import { How } from './How';
import { Notes } from './Notes';
import { RowAnswer, RowHead, RowHint, RowKeys, WatchChoice } from './RowKeys';
import { RunClock } from './RunClock';
import { useWatchedAtOnce } from './watchedAtOnce';

const athleteIn = ({ athlete }: TurnWords) => athlete;

/**
 * All at once on a call. A few neighbours are watched, and the next few at the next call: who of them was not
 * tapped is clean, of the others nothing is known. Whoever else showed something may be tapped too.
 */
export const Row = ({
  bundle,
  log,
  at,
  said,
  takenBack,
  onAnswers,
  onUndo,
  onPeople,
}: {
  bundle: RunBundle;
  log: readonly FieldRow[];
  at: SetRun;
  said: string | null;
  /** the answers that were just taken back */
  takenBack: readonly FieldRow[];
  onAnswers: (seen: Seen[]) => void;
  onUndo: () => void;
  onPeople: () => void;
}) => {
  const { set, plan, base, now, last, away, elsewhere, people } = at;
  const isTimed =
    base !== null &&
    base.movement !== null &&
    (set.target === 'metres' || set.target === 'minutes');
  const up = now[0]!;
  const [shown, setShown] = useState<Record<string, readonly string[]>>(() =>
    Object.fromEntries(
      takenBack.flatMap((row) => (row.faults.length > 0 ? [[row.athleteId, row.faults]] : [])),
    ),
  );
  const [tapped, setTapped] = useState<string | null>(null);
  const [hurt, setHurt] = useState(false);
  const [atOnce, setAtOnce] = useWatchedAtOnce(set.watch);
  const views = new Map(now.map((turn) => [turn.athleteId, turnWords(bundle, log, at, turn)]));
  const viewOf = (turn: Turn) => views.get(turn.athleteId)!;
  const all = [...views.values()];
  const first = turnView(bundle, log, at, up);
  const taught = first.movement;
  // Only single steps are called by the foot; how all of them run is not solved for anything else.
  const firstFeet = new Set(
    set.call?.kind === 'steps'
      ? now.map((turn) => turnView(bundle, log, at, turn).outline?.firstFoot ?? 'left')
      : [first.outline?.firstFoot ?? 'left'],
  );
  const calls = rowCalls(
    first.callable,
    all.map(({ athlete: { id, name }, exits }) => ({
      ...{ athleteId: id, name: name.split(' ')[0]!, exits },
    })),
  );
  const beat = ownBeat(set.call, base, all.map(athleteIn));
  const call = useSetCall(
    { ...set, call: beat.call },
    calls,
    first.outline,
    firstFeet.size === 1 ? [...firstFeet][0]! : null,
  );
  const before = set.call?.kind === 'reads' ? (takenBack[0]?.exit ?? null) : null;
  /** the exit that a read asked of somebody at this call */
  const askedOf = (turn: Turn): string | null =>
    call.read
      ? (calls.find(({ code }) => code === call.read!.exit.code)?.codeBy.get(turn.athleteId) ??
        null)
      : before && (takenBack.find((row) => row.athleteId === turn.athleteId)?.exit ?? before);
  const nameOf = (id: string): string => at.athleteOf(id).name.split(' ')[0]!;
  const helpers = helpersOf(set);
  const ring = people.filter((id) => !away.has(id) && !elsewhere.has(id));
  const parts = cast(
    ring,
    now.map((turn) => turn.athleteId),
    1 + helpers.length,
  );
  const helping = (lane: number): string[] =>
    [...parts].flatMap(([id, part]) =>
      part.role > 0 && part.lane === lane ? [`${helpers[part.role - 1]!}: ${nameOf(id)}`] : [],
    );
  const waiting = ring.filter((id) => !parts.has(id));
  // In a row nobody changes places, also when somebody stops; pairs and lanes are made anew.
  const standing = set.stand === 'row' ? people : now.map((turn) => turn.athleteId);
  const rows = log.filter((row) => row.drillSetId === set.id);
  const places = rowPlaces(standing, now, rows, atOnce);
  const watched = places.filter(({ isWatched }) => isWatched);
  const isAllWatched = watched.length === now.length;
  const tappedTurn = now.find((turn) => turn.athleteId === tapped) ?? null;
  const faultsOf = (turn: Turn) =>
    faultsOffered(at, viewOf(turn), { asked: askedOf(turn), taken: null }, viewOf(turn).cue);
  const picks = useFaultPicks(tappedTurn ? faultsOf(tappedTurn) : []);
  const tap = (turn: Turn): void => {
    if (hurt) {
      setHurt(false);
      onAnswers([{ turn, outcome: 'pain' }]);
      return;
    }
    picks.setOpen(false);
    setTapped(tapped === turn.athleteId ? null : turn.athleteId);
  };
  const toggle = (fault: string): void => {
    if (tapped === null) return;
    const before = shown[tapped] ?? [];
    const after = before.includes(fault)
      ? before.filter((code) => code !== fault)
      : [...before, fault];
    setShown({ ...shown, [tapped]: after });
  };
  const showed = (athleteId: string): readonly string[] => shown[athleteId] ?? [];
  const faulty = watched.filter(({ athleteId }) => showed(athleteId).length > 0).length;
  const beside = now.filter((turn) => showed(turn.athleteId).length > 0).length - faulty;
  /** whether the next turn is called as soon as it is up */
  const callNext = useRef(false);
  const upKey = now.map((turn) => turn.key).join();
  useEffect(() => {
    if (callNext.current) call.call(up);
    callNext.current = false;
    // Only when others are up.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [upKey]);
  const logAll = (ranS: number | null = null): void => {
    onAnswers(
      now.map((turn): Seen => {
        const faults = taught ? showed(turn.athleteId) : [];
        const exit = askedOf(turn);
        return {
          turn,
          outcome: taught ? (faults.length === 0 ? 'clean' : 'fault') : 'done',
          faults: [...faults],
          watched: watched.some(({ athleteId }) => athleteId === turn.athleteId),
          cue: viewOf(turn).cue,
          ...(exit === null ? {} : { exit: exit }),
          ranS,
        };
      }),
    );
    setShown({});
    setTapped(null);
    picks.setOpen(false);
  };
  // What was taken back has been called already.
  const called = !set.call || call.events.length > 0 || takenBack.length > 0;
  const press = (): void => {
    if (!called) call.call(up);
    else {
      call.stop();
      callNext.current = set.call !== null;
      logAll();
    }
  };
  useKeys((key) => {
    if (key === 'c' || key === 'l') press();
    else if (key === 'u' && last) onUndo();
    else if (key === ' ' && set.call) call.call(up);
  });

  const words = wordsOfRow(
    all.map(({ athlete, movement, variant }) => ({
      name: athlete.name.split(' ')[0]!,
      words: [
        ...variantWords({ movement }, variant),
        ...(movement && set.vary.sides.length > 1 ? [sideWord(movement, athlete, up.side)] : []),
      ].join(', '),
    })),
  ).filter((told) => told !== '');
  const clean = watched.length - faulty;
  const after = isAllWatched ? [] : watchedAfter(places, atOnce);
  const counted = [
    ...(clean > 0 ? [`${clean} clean`] : []),
    ...(faulty > 0 ? [`${faulty} with a fault`] : []),
    ...(beside > 0 ? [`${beside} more tapped`] : []),
  ].join(', ');
  const summary = [counted, ...(after.length > 0 ? [`next: ${after.map(nameOf).join(', ')}`] : [])];
  return (
    <>
      <div className="run-body">
        {said && (
          <div className="note small-text" role="status">
            {said}
          </div>
        )}
        <RowHead at={at} words={words} beat={beat} />
        {taught && !hurt && (
          <WatchChoice
            atOnce={isAllWatched ? null : atOnce}
            watched={watched.map((place) => place.watched)}
            onAtOnce={setAtOnce}
          />
        )}
        <RowKeys
          places={places}
          isPairs={set.stand === 'pairs'}
          nameOf={nameOf}
          helpingOf={(turn) => helping(now.indexOf(turn) + 1)}
          showed={showed}
          movement={taught}
          tapped={tapped}
          away={elsewhere.size > 0 ? new Map([...elsewhere, ...away]) : away}
          onTap={tap}
        />
        {(!tappedTurn || hurt || !taught) && (
          <RowHint set={set} isTaught={taught !== null} isHurt={hurt} isAllWatched={isAllWatched} />
        )}
        {waiting.length > 0 && (
          <div className="run-next">
            {waiting.length === 1 ? 'waits' : 'wait'}: {waiting.map(nameOf).join(', ')}
          </div>
        )}
        <Notes away={away} cautions={plan?.cautions ?? []} />
      </div>
      <div className="run-now">
        <How how={first.how} />
        <CallBar call={beat.call} at={call} layout={first.layout} />
      </div>
      <div className="run-answers">
        {tappedTurn && !hurt && taught && (
          <FaultPicker
            picks={picks}
            marked={showed(tappedTurn.athleteId)}
            label={`What ${nameOf(tappedTurn.athleteId)} showed`}
            isLabelShown
            onToggle={toggle}
          />
        )}
        {isTimed && called ? (
          <RunClock
            name={`${bundle.session.id} ${upKey}`}
            set={set}
            faults={faulty + beside > 0 ? counted : null}
            takenBackS={takenBack[0]?.ranS ?? null}
            onRan={logAll}
          />
        ) : (
          <RowAnswer
            called={called}
            isCalling={
              // What is still being called has not been seen yet; a tempo goes on until it is stopped.
              call.running && (set.call?.kind === 'steps' || set.call?.kind === 'start')
            }
            hasCall={set.call !== null}
            isTaught={taught !== null}
            faulty={faulty + beside > 0}
            isAllWatched={isAllWatched}
            summary={summary}
            onPress={press}
          />
        )}
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
