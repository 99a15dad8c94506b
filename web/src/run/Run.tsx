import { turnKey } from '@gravek/core/session/repLog';
import { cast } from '@gravek/core/session/rotation';
import { turnOrder } from '@gravek/core/session/runOrder';
import { variantFrom } from '@gravek/core/session/variants';
import { runSetOf } from '@gravek/contract/drillSet';
import type { RunBundle } from '@gravek/contract/run';
import { type FieldRow, pressOf, type Seen } from '@gravek/library/field/log';
import { isRow, type SetRun } from '@gravek/library/field/sets';
import { helpersOf } from '@gravek/library/session/rotationAxis';
import { stationsOf } from '@gravek/library/session/timeAxis';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { clockMs } from '../controls/clock';
import { useHelp } from '../controls/help';
import { Loaded } from '../controls/Notice';
import { whenIdle } from '../controls/idle';
import { opened } from '../controls/opened';
import { useTitle } from '../controls/useTitle';
import { StationStrip } from '../parts/clock/StationStrip';
import { roundToGoBy, useClockPart, useSessionClock } from '../parts/clock/useSessionClock';
import { stopSilent } from '../parts/silent/useSilent';
import { disconnect } from '../parts/devices/useDevice';
import { Refused } from './Refused';
import { Row } from './Row';
import { Turn, type TurnAnswer } from './Turn';
import { Twice } from './Twice';
import { useFocusKept } from './useFocusKept';
import { useBundle, useRun } from './useRun';
import { useAwake, Waiting } from './Waiting';

const loadDone = async () => (await import('./SetDone')).SetDone;
const SetDone = opened(loadDone);
const People = opened(async () => (await import('./People')).People);

/** Two taps within this are one, milliseconds. */
const DOUBLE_TAP_MS = 300;

/** Who is up, for whoever hears the page. */
const upSaid = ({ state: { up }, now, athleteOf }: SetRun): string => {
  if (!up) return 'Nobody is up.';
  const who = now.length > 1 ? 'All' : athleteOf(up.athleteId).name.split(' ')[0]!;
  return `Up: ${who}, rep ${up.rep}, set ${up.set}`;
};

const Field = ({ bundle }: { bundle: RunBundle }) => {
  useAwake();
  const show = useHelp((help) => help.show);
  const [first, setFirst] = useState<string | null>(null);
  const [peopleShown, setPeople] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  /** the answers that were just taken back: what was tapped in them is still tapped */
  const [takenBack, setTakenBack] = useState<{ times: number; rows: readonly FieldRow[] }>({
    times: 0,
    rows: [],
  });
  const answered = useRef({ outcome: '', ms: 0, key: '' });
  const { session } = bundle;
  const stations = useMemo(() => stationsOf(session), [session]);
  const clock = useSessionClock(session.id, stations?.plan ?? null);
  const round = useClockPart(clock, roundToGoBy, 0);
  const run = useRun(bundle, first, round);
  // There at once when a set is done.
  useEffect(() => whenIdle(() => void loadDone().catch(() => undefined)), []);
  // Whoever leaves the field screen has done with device and partner.
  useEffect(
    () => () => {
      disconnect();
      stopSilent();
    },
    [],
  );
  // A phone stays at its station, whoever is there.
  const firstOpen =
    round > 0 ? stations?.sets[0]?.id : run.sets.find(({ state }) => state.up)?.set.id;
  const [chosen, setChosen] = useState<string | null>(null);
  const current = run.sets.find(({ set }) => set.id === (chosen ?? firstOpen)) ?? run.sets.at(-1);
  const nameOf = ({ base }: SetRun): string => base?.name ?? 'Drill set';

  const upKey = current?.state.up?.key;
  const upName = current?.state.up && current.athleteOf(current.state.up.athleteId).name;
  useTitle([upName, session.title].filter(Boolean).join(', '));
  const focusKept = useFocusKept();
  useEffect(() => {
    // Another turn is up: whoever takes an answer back has this one answered anew.
    if (answered.current.key !== upKey) answered.current.key = '';
  }, [upKey]);

  if (!current) return <p className="p-3">This session has no drill set.</p>;
  const { set, state, last, people, away, elsewhere, now: together } = current;
  const nameBy = (id: string): string => current.athleteOf(id).name.split(' ')[0]!;
  /** One tap is one answer: the second of a double tap would be the next athlete's. */
  const isOneTap = (outcome: string, turnKey: string): boolean => {
    const now = clockMs();
    const before = answered.current;
    if (before.outcome === outcome && now - before.ms < DOUBLE_TAP_MS) return true;
    // A screen that is slow to go on has not asked for a second answer.
    if (before.key === turnKey && outcome !== 'again' && turnKey === state.up?.key) return true;
    answered.current = { outcome, ms: now, key: outcome === 'again' ? '' : turnKey };
    navigator.vibrate?.(15);
    return false;
  };
  const answer: TurnAnswer = (seen) => {
    const { turn, outcome, faults = [] } = seen;
    if (isOneTap(outcome === 'again' ? outcome : `${outcome} ${seen.made ?? ''}`, turn.key)) return;
    const who = nameBy(turn.athleteId);
    setFirst(null);
    setSaid(
      outcome === 'again'
        ? `${who} does rep ${turn.rep} once more${faults.length > 0 ? '; what was marked does not count' : ''}.`
        : null,
    );
    isDone();
    void run.answer(current, [seen]);
  };
  const answerAll = (seen: Seen[]): void => {
    if (isOneTap(seen[0]?.outcome === 'pain' ? 'pain' : 'all', '')) return;
    setSaid(null);
    isDone();
    void run.answer(current, seen);
  };
  const undo = (): void => {
    answered.current.key = '';
    if (!last) return;
    const rows = pressOf(run.log, last);
    setTakenBack({ times: takenBack.times + 1, rows });
    void run.undo(rows);
  };
  const isDone = (): void => setTakenBack({ times: takenBack.times, rows: [] });
  const goTo = (setId: string | null): void => {
    setChosen(setId);
    setFirst(null);
    setSaid(null);
  };
  /** A row about somebody that answers no turn. */
  const say = (athleteId: string, outcome: 'in' | 'out'): void => {
    const setForAthlete = { ...runSetOf(set), athleteIds: [athleteId] };
    const turn =
      state.open.find((turn) => turn.athleteId === athleteId) ??
      turnOrder(setForAthlete).at(outcome === 'in' ? 0 : -1);
    if (turn) void run.answer(current, [{ turn, outcome }]);
  };
  const putOut = (athleteId: string): void => say(athleteId, 'out');
  const helpers = helpersOf(set);
  /** Who does what else while the one who is up performs, in words. */
  const partsBeside = (): string[] => {
    if (helpers.length === 0 || !state.up) return [];
    const ring = people.filter((id) => !away.has(id) && !elsewhere.has(id));
    return [...cast(ring, [state.up.athleteId], 1 + helpers.length)].flatMap(([id, part]) =>
      part.role > 0 ? [`${helpers[part.role - 1]!}: ${nameBy(id)}`] : [],
    );
  };
  // Whoever is done at a station waits for the change.
  const following =
    set.station && round > 0 ? undefined : run.sets.find((set) => set !== current && set.state.up);
  return (
    <main className="run" {...focusKept}>
      <p className="visually-hidden" role="status">
        {upSaid(current)}
      </p>
      <div className="run-bar">
        <Link to="/run">Leave</Link>
        <span className="text-truncate">{session.title}</span>
        <Waiting log={run.log} />
        <button
          type="button"
          className="run-help"
          aria-label="What is this page for?"
          onClick={() => show(true)}
        >
          ?
        </button>
      </div>
      {run.sets.length > 1 && (
        <div className="run-sets" role="group" aria-label="Drill sets">
          {run.sets.map((run) => (
            <button
              key={run.set.id}
              type="button"
              aria-pressed={run.set.id === set.id}
              onClick={() => goTo(run.set.id)}
            >
              {nameOf(run)} <span className="figure">{run.state.done}</span>/
              <span className="figure">{run.state.total}</span>
            </button>
          ))}
        </div>
      )}
      {clock && set.station && <StationStrip session={session} setId={set.id} clock={clock} />}
      {session.archived && (
        <div className="note small-text" role="status">
          This session was put away on another device. What is logged here still counts.
        </div>
      )}
      <Refused waiting={run.waiting} athletes={bundle.athletes} />
      {peopleShown ? (
        <People
          at={current}
          log={run.log}
          device={run.device}
          others={[...bundle.athletes, ...bundle.latecomers].filter(
            (person) => !people.includes(person.id) && !('archived' in person && person.archived),
          )}
          onJoin={(id) => say(id, 'in')}
          onForward={(id) => {
            setFirst(id);
            setPeople(false);
          }}
          onOut={putOut}
          onBack={(row) => void run.undo([row])}
          onClose={() => setPeople(false)}
        />
      ) : together.length > 1 || (together.length === 1 && isRow(current)) ? (
        <Row
          key={`${set.id} ${takenBack.times}`}
          takenBack={takenBack.rows}
          bundle={bundle}
          log={run.log}
          at={current}
          said={said}
          onAnswers={answerAll}
          onUndo={undo}
          onPeople={() => setPeople(true)}
        />
      ) : state.up ? (
        <Turn
          key={`${state.up.key} ${takenBack.times}`}
          takenBack={takenBack.rows.find((row) => turnKey(row) === state.up!.key) ?? null}
          bundle={bundle}
          log={run.log}
          at={current}
          up={state.up}
          said={said}
          parts={partsBeside()}
          onAnswer={answer}
          onUndo={undo}
          onForward={setFirst}
          onPeople={() => setPeople(true)}
        />
      ) : (
        <SetDone
          at={current}
          log={run.log}
          twice={
            <Twice
              log={run.log}
              device={run.device}
              nameOf={nameBy}
              movementOf={({ drillSetId, variant, side }) =>
                run.sets
                  .find(({ set: { id } }) => id === drillSetId)
                  ?.movementOf(variantFrom(variant, side)) ?? null
              }
              onDrop={(rows) => void run.undo(rows)}
            />
          }
          bundle={bundle}
          next={following}
          onNext={() => goTo(following?.set.id ?? null)}
          onUndo={last && undo}
          onPeople={() => setPeople(true)}
        />
      )}
    </main>
  );
};

/** The field screen for a session under way. */
export const Run = () => {
  const { sessionId = '' } = useParams();
  const bundle = useBundle(sessionId);
  return (
    <Loaded query={bundle} what="Getting the session …">
      {(bundle) => <Field bundle={bundle} />}
    </Loaded>
  );
};
