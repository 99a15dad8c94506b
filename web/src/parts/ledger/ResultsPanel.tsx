import type { Athlete } from '@gravek/contract/athlete';
import type { Ledger } from '@gravek/contract/faults';
import type { Results, SessionResults } from '@gravek/contract/results';
import type { Movement } from '@gravek/contract/movement';
import { addResults, makesBySpot } from '@gravek/library/cue/results';
import { sideWord } from '@gravek/library/movement/sides';
import { exitName } from '@gravek/library/session/setWords';
import { Link } from 'react-router';
import { dayName } from '../../controls/dates';
import { SpotMakes } from '../../drawing/SpotMakes';
import { useChosenGround } from '../../member/chosenGround';
import { useLengthStyle } from '../../member/member';
import { useCatalogue } from '../catalogue/useCatalogue';
import {
  columnsOf,
  Figures,
  Heads,
  heightOf,
  percent,
  resultsSentence,
  ROUNDS,
  told,
} from './resultColumns';

/** Sessions of the curve: as many as the table of faults shows. */
const SHOWN = 10;

type Person = Pick<Athlete, 'hand' | 'takeoffFoot'>;

/** Makes by spot or exit, a bar each, the fewest first. */
const MadeAt = <Makes extends Pick<Results, 'tried' | 'made'>>({
  label,
  results,
  nameOf,
}: {
  label: string;
  results: readonly Makes[];
  nameOf: (makes: Makes) => string;
}) => {
  const shown = results
    .filter(({ tried }) => tried > 0)
    .sort((a, b) => a.made / a.tried - b.made / b.tried);
  if (shown.length < 2) return null;
  return (
    <ul className="list-plain made-at" aria-label={label}>
      {shown.map((makes) => (
        <li key={nameOf(makes)}>
          <span>{nameOf(makes)}</span>
          <span className="made-bar" aria-hidden>
            <span style={{ width: `${percent(makes)}%` }} />
          </span>
          <span className="figure">
            {makes.made}
            <span className="unit"> of {makes.tried}</span>
          </span>
        </li>
      ))}
    </ul>
  );
};

/** The last rounds of touches, each a line in time with a tick at every touch. */
const Rounds = ({ session }: { session: SessionResults }) => {
  const rounds = session.touchedAt.filter((touchS) => touchS.length > 1).slice(0, ROUNDS);
  const longestS = Math.max(...rounds.map((touchS) => touchS.at(-1)!));
  if (rounds.length === 0) return null;
  return (
    <div>
      <div className="figure-label">Touches of {dayName(session.date)}, round by round</div>
      <ol className="list-plain touch-rounds">
        {rounds.map((touchS, i) => (
          <li key={i}>
            <span className="quiet small-text">{i + 1}</span>
            <svg
              viewBox="0 0 300 16"
              preserveAspectRatio="none"
              role="img"
              aria-label={`Round ${i + 1}: ${touchS.length} touches in ${touchS.at(-1)!.toFixed(1)} s`}
            >
              <line x1="0" y1="8" x2={(300 * touchS.at(-1)!) / longestS} y2="8" />
              {touchS.map((atS, n) => (
                <rect key={n} x={(297 * atS) / longestS} y="1" width="3" height="14" />
              ))}
            </svg>
            <span className="figure">
              {touchS.at(-1)!.toFixed(1)}
              <span className="unit"> s</span>
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
};

/** What an athlete made, held, touched and ran in a movement, side by side, with the curve over the sessions. */
export const AthleteResults = ({
  movement,
  athlete,
  sessions,
  chains,
}: {
  movement: Movement;
  athlete: Person;
  sessions: readonly SessionResults[];
  chains: Ledger['chains'];
}) => {
  const { unit } = useLengthStyle();
  const catalogue = useCatalogue();
  const { chosen: ground } = useChosenGround();
  if (sessions.length === 0) return null;
  const sideOf = ({ side }: Results): string => sideWord(movement, athlete, side);
  const columns = columnsOf(sessions, unit);
  const sides = addResults(sessions, 'side');
  const byDay = (side: Results['side']): SessionResults[] =>
    [...new Set(sessions.map(({ date }) => date))].flatMap((date) =>
      addResults(
        sessions.filter((session) => session.date === date && session.side === side),
        'side',
      ).map((day) => ({ ...day, date, touchedAt: [] })),
    );
  const sentence = resultsSentence(movement, sessions, sideOf);
  const lastTouched = sessions.findLast(({ splits }) => splits > 0);
  return (
    <section aria-label="Results">
      {sentence && <p className="mb-1">{sentence}</p>}
      <table className="grid-table result-table">
        <caption className="visually-hidden">What came of the reps, by side</caption>
        <thead>
          <tr>
            <th scope="col">Side</th>
            <th scope="col">Sessions</th>
            <Heads columns={columns} />
          </tr>
        </thead>
        <tbody>
          {sides.map((all) => (
            <tr key={all.side}>
              <th scope="row">{sideOf(all)}</th>
              <td>
                <span className="result-curve">
                  {byDay(all.side)
                    .slice(-SHOWN)
                    .map((session) => (
                      <span
                        key={session.date}
                        className="result-bar"
                        role="img"
                        aria-label={told(session, unit)}
                        title={told(session, unit)}
                        style={{ height: `${Math.round(4 + 20 * heightOf(session, all))}px` }}
                      />
                    ))}
                </span>
              </td>
              <Figures columns={columns} results={all} />
            </tr>
          ))}
        </tbody>
      </table>
      <SpotMakes movement={movement} ground={ground} results={makesBySpot(sessions)} />
      <MadeAt
        label="Makes by spot"
        results={addResults(sessions, 'spot').filter(({ spot }) => spot !== null)}
        nameOf={(made) => `${made.spot}, ${sideOf(made)}`}
      />
      <MadeAt
        label="Makes by exit"
        results={addResults(sessions, 'exit').filter(({ exit }) => exit !== null)}
        nameOf={(made) => `${exitName(movement, made.exit!)}, ${sideOf(made)}`}
      />
      <MadeAt
        label="Makes by move and ending"
        results={chains}
        nameOf={({ movement: code }) => catalogue.nameOf(code)}
      />
      {lastTouched && <Rounds session={lastTouched} />}
    </section>
  );
};

/** What came of the reps of a squad in a movement; nothing where nobody has any of it. */
export const SquadResults = ({
  movement,
  lines,
}: {
  movement: Movement;
  lines: readonly { athlete: Person & { id: string; name: string }; results: Results[] }[];
}) => {
  const { unit } = useLengthStyle();
  const shown = lines.filter(({ results }) => results.length > 0);
  if (shown.length === 0) return null;
  const columns = columnsOf(
    shown.flatMap(({ results }) => results),
    unit,
  );
  const atSpots = addResults(
    shown.flatMap(({ results }) => results.map((result) => ({ ...result, side: 'own' as const }))),
    'spot',
  ).filter(({ spot }) => spot !== null);
  return (
    <section aria-label="Results">
      <h2 className="h6">Results</h2>
      <MadeAt label="Makes of all by spot" results={atSpots} nameOf={({ spot }) => spot!} />
      <div className="table-scroll">
        <table className="grid-table result-table">
          <caption className="visually-hidden">What came of the reps, by athlete and side</caption>
          <thead>
            <tr>
              <th scope="col">Athlete</th>
              <th scope="col">Side</th>
              <Heads columns={columns} />
            </tr>
          </thead>
          <tbody>
            {shown.flatMap(({ athlete, results }) =>
              addResults(results, 'side').map((result) => (
                <tr key={`${athlete.id} ${result.side}`}>
                  <td>
                    <Link className="row-link" to={`/athletes/${athlete.id}`}>
                      {athlete.name}
                    </Link>
                  </td>
                  <td>{sideWord(movement, athlete, result.side)}</td>
                  <Figures columns={columns} results={result} />
                </tr>
              )),
            )}
          </tbody>
        </table>
      </div>
    </section>
  );
};
