import type { Turn } from '@gravek/core/session/runOrder';
import type { Movement } from '@gravek/contract/movement';
import type { OwnBeat } from '@gravek/library/field/ownBeat';
import type { RowPlace } from '@gravek/library/field/row';
import type { SetRun } from '@gravek/library/field/sets';
import { faultOf } from '@gravek/library/movement/byCode';
import Form from 'react-bootstrap/Form';
import { Figure } from '../controls/Figure';
import { callWords } from '../parts/field/CallBar';

const NUMBERS = ['this one', 'these two', 'these three', 'these four', 'these five', 'these six'];

/** What a row does, and how often it has done it. */
export const RowHead = ({
  at,
  words,
  beat: { call, apartSpm },
}: {
  at: SetRun;
  words: readonly string[];
  beat: OwnBeat;
}) => {
  const { set, base, now } = at;
  const up = now[0]!;
  return (
    <div className="run-who">
      <div>
        <h1 className="row-what">{words.length > 0 ? words.join('; ') : base?.name}</h1>
        <div className="quiet">
          {[
            ...(words.length > 0 && base ? [base.name] : []),
            ...(call ? [callWords(call)] : []),
            ...(apartSpm
              ? [`their own targets are ${apartSpm.join(' to ')}: one at a time by headphones`]
              : []),
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
  );
};

/** How many of a row are watched at a call, and how often each of them was. */
export const WatchChoice = ({
  atOnce,
  watched,
  onAtOnce,
}: {
  /** null where all of them are */
  atOnce: number | null;
  /** how often each who is watched now has been watched */
  watched: readonly number[];
  onAtOnce: (atOnce: number) => void;
}) => (
  <div className="row-line row-watch">
    {atOnce === null ? (
      <strong>Watch all</strong>
    ) : (
      <>
        <label>
          <strong>Watch</strong>{' '}
          <Form.Select
            size="sm"
            className="row-at-once"
            aria-label="How many you watch at a call"
            value={atOnce}
            onChange={(event) => onAtOnce(Number(event.target.value))}
          >
            {NUMBERS.map((number, i) => (
              <option key={number} value={i + 1}>
                {number}
              </option>
            ))}
          </Form.Select>
        </label>
        <span className="quiet small-text">watched {watched.join(', ')} times so far</span>
      </>
    )}
  </div>
);

/** Everybody in the row as they stand, to be tapped where something showed. */
export const RowKeys = ({
  places,
  isPairs,
  nameOf,
  helpingOf,
  showed,
  movement,
  tapped,
  away,
  onTap,
}: {
  places: readonly RowPlace[];
  isPairs: boolean;
  nameOf: (athleteId: string) => string;
  /** who helps at a turn, and how */
  helpingOf: (turn: Turn) => string[];
  /** the faults tapped so far */
  showed: (athleteId: string) => readonly string[];
  /** whose faults are named; null where nothing is looked for */
  movement: Movement | null;
  tapped: string | null;
  away: ReadonlyMap<string, string>;
  onTap: (turn: Turn) => void;
}) => (
  <div
    className={isPairs ? 'row-keys row-pairs' : 'row-keys'}
    role="group"
    aria-label="As they stand"
  >
    {places.map(({ athleteId, turn, isWatched }) => {
      const faults = showed(athleteId);
      const others = turn ? helpingOf(turn) : [];
      const mark = `${isWatched ? ' row-watched' : ''}${faults.length > 0 ? ' row-fault' : ''}`;
      return (
        <button
          key={athleteId}
          type="button"
          className={`row-key${mark}`}
          disabled={!turn}
          aria-pressed={faults.length > 0}
          aria-expanded={tapped === athleteId}
          onClick={() => turn && onTap(turn)}
        >
          <strong>{nameOf(athleteId)}</strong>
          {isWatched && <span className="visually-hidden">watch</span>}
          {others.length > 0 && <span className="small-text">{others.join(', ')}</span>}
          {!turn && (
            <span className="small-text">{away.has(athleteId) ? 'not in it' : 'done'}</span>
          )}
          {faults.length > 0 && movement && (
            <span className="small-text">
              {faultOf(movement, faults[0]!)?.name}
              {faults.length > 1 && ` and ${faults.length - 1} more`}
            </span>
          )}
        </button>
      );
    })}
  </div>
);

/** What to tap, in one line. */
export const RowHint = ({
  set,
  isTaught,
  isHurt,
  isAllWatched,
}: {
  set: SetRun['set'];
  isTaught: boolean;
  isHurt: boolean;
  isAllWatched: boolean;
}) => (
  <div className="quiet small-text">
    {!isTaught && !isHurt
      ? `${set.amount} times, all together.`
      : isHurt
        ? 'Who is hurt? A tap ends it for them.'
        : `${set.freeze ? 'Freeze. ' : ''}Tap whoever shows something, then what.${
            isAllWatched ? '' : ' Only those you watch count for rates.'
          }`}
  </div>
);

/** The one button of a row: calls, or logs what was seen of all of them. */
export const RowAnswer = ({
  called,
  isCalling,
  hasCall,
  isTaught,
  faulty,
  isAllWatched,
  summary,
  onPress,
}: {
  called: boolean;
  isCalling: boolean;
  hasCall: boolean;
  isTaught: boolean;
  /** whether a fault of somebody was tapped */
  faulty: boolean;
  isAllWatched: boolean;
  summary: readonly string[];
  onPress: () => void;
}) => (
  <button
    type="button"
    className={faulty && called ? 'answer answer-fault' : 'answer'}
    disabled={isCalling}
    onClick={onPress}
  >
    {!called
      ? 'Call'
      : !isTaught
        ? 'Done'
        : hasCall
          ? 'Next call'
          : faulty || !isAllWatched
            ? 'Log'
            : 'All clean'}
    {called && isTaught && (faulty || !isAllWatched || hasCall) && (
      <small>{summary.join('; ')}</small>
    )}
  </button>
);
