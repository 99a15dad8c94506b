import type { Athlete } from '@gravek/contract/athlete';
import type { Ledger, Results, SessionResults } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { wayParts } from '@gravek/core/units';
import { addResults, fewestMade, makesBySpot, slowsBy } from '@gravek/library/cue/results';
import { sideWord } from '@gravek/library/movement/sides';
import { exitName } from '@gravek/library/session/work';
import { Link } from 'react-router';
import { dayName } from '../../controls/dates';
import { Figure } from '../../controls/Figure';
import { SpotMakes } from '../../drawing/SpotMakes';
import { useChosenGround } from '../../member/chosenGround';
import { useLengthStyle } from '../../member/member';
import { useCatalogue } from '../catalogue/useCatalogue';
import { clock } from '../../controls/clock';

/** Sessions of the curve: as many as the table of faults shows. */
const SHOWN = 10;
/** Rounds of touches that are drawn one by one. */
const ROUNDS = 8;

type Person = Pick<Athlete, 'hand' | 'takeoffFoot'>;

const percent = ({ made, tried }: Pick<Results, 'made' | 'tried'>): number =>
  Math.round((100 * made) / tried);
const meanHeldS = ({ heldS, held }: Results): number => heldS / held;
const meanSplitS = ({ splitS, splits }: Results): number => splitS / splits;

/** How high a session stands beside the others: the share that was made, else seconds, touches or metres. */
const heightOf = (session: Results, all: Results): number => {
  if (session.tried > 0) return session.made / session.tried;
  if (session.held > 0) return meanHeldS(session) / (all.bestHeldS || 1);
  // The quicker the higher.
  if (session.splits > 0) return all.bestSplitS! / meanSplitS(session);
  const most = all.ranM > 0 ? 'ranM' : 'ranS';
  return session[most] / (all[most] || 1);
};

const told = (session: SessionResults, unit: Parameters<typeof wayParts>[1]): string =>
  [
    dayName(session.date),
    ...(session.tried > 0 ? [`${session.made} of ${session.tried} made`] : []),
    ...(session.held > 0
      ? [`${meanHeldS(session).toFixed(1)} s on average, ${session.bestHeldS.toFixed(1)} s at best`]
      : []),
    ...(session.splits > 0 ? [`${meanSplitS(session).toFixed(2)} s from touch to touch`] : []),
    ...(session.ranM > 0 ? [Object.values(wayParts(session.ranM, unit)).join(' ')] : []),
    ...(session.ranS > 0 ? [`${clock(Math.round(session.ranS))} min`] : []),
  ].join(', ');

/** How the last round stands to the first, for a line of a table; empty where there is only one. */
const lastRound = (results: Results): string => {
  const slower = slowsBy(results);
  if (slower === null) return '';
  const part = Math.round(100 * slower);
  return `, last round ${part === 0 ? 'as the first' : `${part > 0 ? '+' : '−'}${Math.abs(part)} %`}`;
};

/** Columns of what occurs; what nobody did has none. */
const columnsOf = (results: readonly Results[], unit: Parameters<typeof wayParts>[1]) =>
  [
    {
      head: 'Made',
      has: ({ tried }: Results) => tried > 0,
      cell: (results: Results) => (
        <>
          <span className="figure">{percent(results)}</span>
          <span className="unit"> %</span>{' '}
          <small className="quiet">
            {results.made} of {results.tried}
          </small>
        </>
      ),
    },
    {
      head: 'Held',
      has: ({ held }: Results) => held > 0,
      cell: (results: Results) => (
        <>
          <span className="figure">{meanHeldS(results).toFixed(1)}</span>
          <span className="unit"> s</span>{' '}
          <small className="quiet">best {results.bestHeldS.toFixed(1)} s</small>
        </>
      ),
    },
    {
      head: 'Touch to touch',
      has: ({ rounds }: Results) => rounds > 0,
      cell: (results: Results) => (
        <>
          {results.splits > 0 ? (
            <>
              <span className="figure">{meanSplitS(results).toFixed(2)}</span>
              <span className="unit"> s</span>{' '}
              <small className="quiet">
                best {results.bestSplitS!.toFixed(2)} s{lastRound(results)}
              </small>
            </>
          ) : (
            <small className="quiet">{results.touches} touches, not timed</small>
          )}
        </>
      ),
    },
    {
      head: 'Run',
      has: ({ runs }: Results) => runs > 0,
      cell: (results: Results) => (
        <>
          {results.ranM > 0 && <Figure parts={[wayParts(results.ranM, unit)]} />}{' '}
          {results.ranS > 0 && (
            <small className="quiet">
              {results.ranM > 0 && 'in '}
              {clock(Math.round(results.ranS))} min
            </small>
          )}
        </>
      ),
    },
  ].filter(({ has }) => results.some(has));

type Columns = ReturnType<typeof columnsOf>;

const Heads = ({ columns }: { columns: Columns }) => (
  <>
    {columns.map(({ head }) => (
      <th key={head} scope="col" className="num">
        {head}
      </th>
    ))}
  </>
);

const Figures = ({ columns, results }: { columns: Columns; results: Results }) => (
  <>
    {columns.map(({ head, has, cell }) => (
      <td key={head} className="num">
        {has(results) ? cell(results) : <span className="quiet">–</span>}
      </td>
    ))}
  </>
);

/** What the results say first: where makes are fewest, and whether the last round is slower than the first. */
export const resultsSentence = (
  movement: Movement,
  results: readonly Results[],
  sideOf: (results: Results) => string,
): string => {
  const spot = fewestMade(results, 'spot');
  const exit = fewestMade(results, 'exit');
  const where = spot ?? exit;
  const name = where && (where.spot ?? exitName(movement, where.exit!));
  const all = addResults(
    results.map((result) => ({ ...result, side: 'own' as const })),
    'side',
  )[0];
  const slower = all ? slowsBy(all) : null;
  const tenths = slower === null ? 0 : Math.round(100 * slower);
  return [
    ...(where
      ? [`Fewest are made at “${name}”, ${sideOf(where)}: ${where.made} of ${where.tried}.`]
      : []),
    ...(slower === null
      ? []
      : tenths === 0
        ? ['The last round is as quick as the first.']
        : [
            `The last round is ${Math.abs(tenths)} % ${tenths > 0 ? 'slower' : 'quicker'} than the first.`,
          ]),
  ].join(' ');
};

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
        nameOf={(one) => `${one.spot}, ${sideOf(one)}`}
      />
      <MadeAt
        label="Makes by exit"
        results={addResults(sessions, 'exit').filter(({ exit }) => exit !== null)}
        nameOf={(one) => `${exitName(movement, one.exit!)}, ${sideOf(one)}`}
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
