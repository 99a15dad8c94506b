import { wayParts } from '@gravek/core/units';
import type { Results, SessionResults } from '@gravek/contract/results';
import type { Movement } from '@gravek/contract/movement';
import { addResults, fewestMade, slowsBy } from '@gravek/library/cue/results';
import { exitName } from '@gravek/library/session/setWords';
import { clock } from '../../controls/clock';
import { dayName } from '../../controls/dates';
import { Figure } from '../../controls/Figure';
/** Rounds of touches that are drawn one by one. */
export const ROUNDS = 8;

export const percent = ({ made, tried }: Pick<Results, 'made' | 'tried'>): number =>
  Math.round((100 * made) / tried);
const meanHeldS = ({ heldS, held }: Results): number => heldS / held;
const meanSplitS = ({ splitS, splits }: Results): number => splitS / splits;

/** How high a session stands beside the others: the share that was made, else seconds, touches or metres. */
export const heightOf = (session: Results, all: Results): number => {
  if (session.tried > 0) return session.made / session.tried;
  if (session.held > 0) return meanHeldS(session) / (all.bestHeldS || 1);
  // The quicker the higher.
  if (session.splits > 0) return all.bestSplitS! / meanSplitS(session);
  const most = all.ranM > 0 ? 'ranM' : 'ranS';
  return session[most] / (all[most] || 1);
};

export const told = (session: SessionResults, unit: Parameters<typeof wayParts>[1]): string =>
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
export const columnsOf = (results: readonly Results[], unit: Parameters<typeof wayParts>[1]) =>
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

export const Heads = ({ columns }: { columns: Columns }) => (
  <>
    {columns.map(({ head }) => (
      <th key={head} scope="col" className="num">
        {head}
      </th>
    ))}
  </>
);

export const Figures = ({ columns, results }: { columns: Columns; results: Results }) => (
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
