import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import type { Ledger, LedgerRow } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { faultOf } from '@gravek/library/movement/byCode';
import { format, parseISO } from 'date-fns';
import { dayName } from '../../controls/dates';
import { StateMark } from '../../drawing/StateMark';
import { useWidth } from '../../drawing/useWidth';
import { percent } from './words';

/** Room of the other columns, and of a session's, pixels. */
const BESIDE = 390;
const COLUMN = 27;
const MOST_COLUMNS = 16;
const LEAST_COLUMNS = 3;

/**
 * A row a fault, a column a session: how often it showed, with the rate and its band at the end. Cells in
 * which it was the cue are joined by a line.
 */
export const LedgerTable = ({
  ledger,
  rows,
  movement,
  chosen,
  onChoose,
}: {
  ledger: Ledger;
  rows: readonly LedgerRow[];
  movement: Movement;
  chosen: string | null;
  onChoose: (code: string | null) => void;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const columns = Math.max(
    LEAST_COLUMNS,
    Math.min(MOST_COLUMNS, Math.floor((width - BESIDE) / COLUMN)),
  );
  const first = Math.max(0, ledger.log.length - columns);
  const log = ledger.log.slice(first);
  const cued = (code: string, i: number): boolean =>
    ledger.spans.some((span) => span.fault === code && span.from <= i && i <= span.to);
  return (
    <div
      className="table-scroll"
      ref={ref}
      tabIndex={0}
      role="group"
      aria-label="Faults by session"
    >
      <table className="grid-table ledger">
        <caption className="visually-hidden">
          Share of reps that showed each fault, session by session
        </caption>
        <thead>
          <tr>
            <th>Fault</th>
            {log.map(({ id, date, reps }) => (
              <th key={id} className="ledger-day" title={`${dayName(date)}: ${reps} reps`}>
                {format(parseISO(date), 'd')}
                <small>{format(parseISO(date), 'MMM')}</small>
              </th>
            ))}
            <th className="ledger-rate">Now</th>
            <th>Stands</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.code} className={row.code === chosen ? 'ledger-open' : ''}>
              <td>
                <button
                  type="button"
                  className="row-link"
                  aria-expanded={row.code === chosen}
                  onClick={() => onChoose(row.code === chosen ? null : row.code)}
                >
                  {faultOf(movement, row.code)?.name ?? row.code}
                </button>
              </td>
              {log.map(({ id, date }, c) => {
                const i = first + c;
                const reps = row.exposed[i]!;
                const shown = row.shown[i]!;
                return (
                  <td
                    key={id}
                    className={`ledger-cell ${cued(row.code, i) ? 'cued' : ''}`}
                    title={`${dayName(date)}: ${reps === 0 ? 'no rep could show it' : `${shown} of ${reps} reps`}${cued(row.code, i) ? ', the cue' : ''}`}
                  >
                    <span
                      className="ledger-bar"
                      style={{ height: `${reps === 0 ? 0 : Math.round((shown / reps) * 22)}px` }}
                    />
                    <span className="visually-hidden">
                      {shown} of {reps}
                      {cued(row.code, i) ? ', the cue' : ''}
                    </span>
                  </td>
                );
              })}
              <td className={`ledger-rate ${row.rate >= LIVE_RATE ? 'live' : ''}`}>
                <span className="figure">{Math.round(row.rate * 100)}</span>
                <span className="unit"> %</span>
                <small className="quiet">
                  {' '}
                  {Math.round(row.low * 100)}–{percent(row.high)}
                </small>
              </td>
              <td>
                <StateMark state={row.state} />
              </td>
            </tr>
          ))}
          <tr className="ledger-reps">
            <th scope="row">Reps</th>
            {log.map(({ id, reps }) => (
              <td key={id} className="ledger-cell">
                {reps}
              </td>
            ))}
            <td colSpan={2} />
          </tr>
        </tbody>
      </table>
    </div>
  );
};
