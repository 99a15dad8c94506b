import type { Results } from '@gravek/contract/faults';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import { sideWord } from '@gravek/library/sides';
import { Link } from 'react-router';
import { dayName } from '../controls/dates';

/** Sessions of the curve: as many as the table of faults shows. */
const SHOWN = 10;

type Person = Pick<Athlete, 'hand' | 'takeoffFoot'>;
type Session = Results & { date: string };

const percent = ({ made, tried }: Results): number => Math.round((100 * made) / tried);

/** How high a session stands: of what was tried the share that was made, else of the longest hold. */
const heightOf = (session: Results, bestS: number): number =>
  session.tried > 0 ? session.made / session.tried : (session.meanHeldS ?? 0) / bestS;

const told = (session: Session): string =>
  [
    dayName(session.date),
    ...(session.tried > 0 ? [`${session.made} of ${session.tried} made`] : []),
    ...(session.held > 0
      ? [`${session.meanHeldS!.toFixed(1)} s on average, ${session.bestHeldS.toFixed(1)} s at best`]
      : []),
  ].join(', ');

const Heads = () => (
  <>
    <th scope="col" className="num">
      Made
    </th>
    <th scope="col" className="num">
      Held
    </th>
  </>
);

const Figures = ({ results }: { results: Results }) => (
  <>
    <td className="num">
      {results.tried > 0 ? (
        <>
          <span className="figure">{percent(results)}</span>
          <span className="unit"> %</span>{' '}
          <small className="quiet">
            {results.made} of {results.tried}
          </small>
        </>
      ) : (
        <span className="quiet">–</span>
      )}
    </td>
    <td className="num">
      {results.held > 0 ? (
        <>
          <span className="figure">{results.meanHeldS!.toFixed(1)}</span>
          <span className="unit"> s</span>{' '}
          <small className="quiet">best {results.bestHeldS.toFixed(1)} s</small>
        </>
      ) : (
        <span className="quiet">–</span>
      )}
    </td>
  </>
);

const added = (sessions: readonly Session[]): Results => {
  const held = sessions.reduce((sum, session) => sum + session.held, 0);
  const heldS = sessions.reduce((sum, { held: n, meanHeldS }) => sum + n * (meanHeldS ?? 0), 0);
  return {
    side: sessions[0]!.side,
    tried: sessions.reduce((sum, { tried }) => sum + tried, 0),
    made: sessions.reduce((sum, { made }) => sum + made, 0),
    held,
    meanHeldS: held > 0 ? heldS / held : null,
    bestHeldS: Math.max(...sessions.map(({ bestHeldS }) => bestHeldS)),
  };
};

/** What an athlete made and held in a movement, side by side, with the curve over the sessions. */
export const AthleteResults = ({
  movement,
  athlete,
  sessions,
}: {
  movement: Movement;
  athlete: Person;
  sessions: readonly Session[];
}) => {
  if (sessions.length === 0) return null;
  const sides = (['own', 'other'] as const).flatMap((side) => {
    const own = sessions.filter((session) => session.side === side);
    return own.length === 0 ? [] : [{ side, own }];
  });
  return (
    <section aria-label="Makes and seconds">
      <table className="grid-table">
        <caption className="visually-hidden">What was made and held, by side</caption>
        <thead>
          <tr>
            <th scope="col">Side</th>
            <th scope="col">Sessions</th>
            <Heads />
          </tr>
        </thead>
        <tbody>
          {sides.map(({ side, own }) => {
            const all = added(own);
            return (
              <tr key={side}>
                <th scope="row">{sideWord(movement, athlete, side)}</th>
                <td>
                  <span className="result-curve">
                    {own.slice(-SHOWN).map((session, i) => (
                      <span
                        key={i}
                        className="result-bar"
                        role="img"
                        aria-label={told(session)}
                        title={told(session)}
                        style={{
                          height: `${Math.round(4 + 20 * heightOf(session, all.bestHeldS || 1))}px`,
                        }}
                      />
                    ))}
                  </span>
                </td>
                <Figures results={all} />
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
};

/** What everybody of a squad made and held in a movement; nothing where nobody did. */
export const SquadResults = ({
  movement,
  lines,
}: {
  movement: Movement;
  lines: readonly { athlete: Person & { id: string; name: string }; results: Results[] }[];
}) => {
  const shown = lines.filter(({ results }) => results.length > 0);
  if (shown.length === 0) return null;
  return (
    <section aria-label="Makes and seconds">
      <h2 className="h6">Made and held</h2>
      <div className="table-scroll">
        <table className="grid-table">
          <caption className="visually-hidden">What was made and held, by athlete and side</caption>
          <thead>
            <tr>
              <th scope="col">Athlete</th>
              <th scope="col">Side</th>
              <Heads />
            </tr>
          </thead>
          <tbody>
            {shown.flatMap(({ athlete, results }) =>
              results.map((result) => (
                <tr key={`${athlete.id} ${result.side}`}>
                  <td>
                    <Link className="row-link" to={`/athletes/${athlete.id}`}>
                      {athlete.name}
                    </Link>
                  </td>
                  <td>{sideWord(movement, athlete, result.side)}</td>
                  <Figures results={result} />
                </tr>
              )),
            )}
          </tbody>
        </table>
      </div>
    </section>
  );
};
