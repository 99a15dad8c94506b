import { formatLength } from '@gravek/core/units';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { Ledger } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import type { AthletePlan } from '@gravek/contract/plan';
import { isTelling } from '@gravek/library/cue/ledger';
import { drillFor, drillOf, faultOf } from '@gravek/library/movement/byCode';
import { toldTo } from '@gravek/library/movement/sides';
import { holding } from '@gravek/library/session/restrictions';
import { RUNG_NAMES } from '@gravek/library/session/setWords';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import { useAthlete, useAthleteFaults, useAthletePlans, useLedger } from '../api/queries';
import { dayName } from '../controls/dates';
import { Loaded } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { RESTRICTION_NAMES } from '../controls/restrictionNames';
import { RateChart } from '../drawing/RateChart';
import { StateMark } from '../drawing/StateMark';
import { useLengthStyle, useMember } from '../member/member';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { pointsOf } from '../parts/ledger/points';
import { percent } from '../parts/ledger/words';

/** Movements and faults of one page. */
const MOVEMENTS = 2;
const FAULTS = 6;

/** Where the athlete stands in one movement: the cue and its drill, the curve of its fault, the rung. */
const Standing = ({ ledger, movement }: { ledger: Ledger; movement: Movement }) => {
  const { cue, ladder } = ledger;
  const cued = cue ? faultOf(movement, cue.fault) : undefined;
  const drill =
    cued && cue ? (cue.drill ? drillOf(movement, cue.drill) : drillFor(movement, cued)) : undefined;
  const rows = ledger.rows.filter(isTelling).slice(0, FAULTS);
  const shown = ledger.rows.find((row) => row.code === cued?.code) ?? rows[0];
  return (
    <section aria-label={movement.name} className="sheet-part">
      <h2>
        {movement.name}{' '}
        <span className="quiet small-text">
          {counted(ledger.reps, 'rep')} in {counted(ledger.sessions, 'session')}, last on{' '}
          {dayName(ledger.lastDay)}
        </span>
      </h2>
      <div className="sheet-columns">
        <div>
          <div className="figure-label">The one cue</div>
          <div className="cue-words">{cued?.cue ?? 'None: let it run.'}</div>
          {drill && (
            <div className="small-text">
              Drill: <strong>{drill.name}.</strong> {drill.how}
            </div>
          )}
          {ladder && (
            <div className="mt-1">
              Rung: <strong>{RUNG_NAMES[ladder.rung]}</strong>
              {ladder.step !== 'stay' && <>, next {RUNG_NAMES[ladder.next]}</>}
            </div>
          )}
        </div>
        <table className="grid-table">
          <caption className="visually-hidden">Faults in {movement.name}</caption>
          <thead>
            <tr>
              <th>Fault</th>
              <th className="num">Now</th>
              <th className="num">5 to 95 %</th>
              <th>Stands</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.code}>
                <td>{faultOf(movement, row.code)?.name ?? row.code}</td>
                <td className="num">{percent(row.rate)}</td>
                <td className="num quiet">
                  {Math.round(row.low * 100)}–{percent(row.high)}
                </td>
                <td>
                  <StateMark state={row.state} />
                </td>
              </tr>
            ))}
            {rows.length === 0 && (
              <tr>
                <td colSpan={4} className="quiet">
                  No fault shows often enough to tell.
                </td>
              </tr>
            )}
          </tbody>
        </table>
      </div>
      {shown && (
        <>
          <div className="figure-label mt-2">
            {faultOf(movement, shown.code)?.name ?? shown.code} over the season, share of reps
          </div>
          <RateChart
            name={faultOf(movement, shown.code)?.name ?? shown.code}
            points={pointsOf(ledger, shown)}
          />
        </>
      )}
    </section>
  );
};

const InMovement = ({ athlete, code }: { athlete: Athlete; code: string }) => {
  const ledger = useLedger(athlete.id, code, {});
  const catalogue = useCatalogue();
  return (
    <Loaded query={ledger} what="Getting the sessions …">
      {(found) => <Standing ledger={found} movement={toldTo(catalogue.of(code), athlete)} />}
    </Loaded>
  );
};

const Marks = ({ athlete, plans }: { athlete: Athlete; plans: AthletePlan[] }) => {
  const style = useLengthStyle(athlete.shoeM);
  const fitting = plans.flatMap(({ outline, ...plan }) => (outline ? [{ ...plan, outline }] : []));
  if (fitting.length === 0) return null;
  return (
    <section aria-label="Marks" className="sheet-part">
      <h2>Marks of the plans</h2>
      <div className="table-scroll" tabIndex={0} role="group" aria-label="Marks as a table">
        <table className="grid-table">
          <thead>
            <tr>
              <th>Plan</th>
              <th className="num">Steps</th>
              <th>First foot</th>
              <th className="num">Start mark</th>
              <th>Check marks</th>
            </tr>
          </thead>
          <tbody>
            {fitting.map(({ id, name, outline, modelSource }) => (
              <tr key={id}>
                <td>
                  {name}
                  {modelSource === 'estimate' && <span className="quiet"> (estimate)</span>}
                </td>
                <td className="num">{outline.steps}</td>
                <td>{outline.firstFoot}</td>
                <td className="num">
                  {outline.startM === null ? '–' : formatLength(outline.startM, style)}
                </td>
                <td>
                  {outline.checkMarks
                    .map(
                      ({ stepsOut, toTargetM }) =>
                        `${stepsOut} out: ${formatLength(toTargetM, style)}`,
                    )
                    .join(', ') || '–'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
};

const Sheet = ({ athlete }: { athlete: Athlete }) => {
  const { today, club } = useMember();
  const faults = useAthleteFaults(athlete.id);
  const plans = useAthletePlans(athlete.id);
  const holdingNow = holding(athlete.restrictions, today);
  return (
    <>
      <PageHead over={`${club.name}, ${dayName(today)}`} title={athlete.name}>
        <Link className="btn btn-outline-dark no-print" to={`/athletes/${athlete.id}`}>
          Back
        </Link>
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </PageHead>
      <div className="athlete-sheet">
        {holdingNow.map((restriction) => (
          <p key={restriction.id} className="note">
            {RESTRICTION_NAMES[restriction.kind]} until{' '}
            {restriction.until === null ? 'cleared' : dayName(restriction.until)}.{' '}
            {restriction.note}
          </p>
        ))}
        <Loaded query={faults} what="Getting the reps …">
          {(list) =>
            list.length === 0 ? (
              <p>No reps are logged yet.</p>
            ) : (
              list
                .slice(0, MOVEMENTS)
                .map(({ movement }) => (
                  <InMovement key={movement} athlete={athlete} code={movement} />
                ))
            )
          }
        </Loaded>
        <Loaded query={plans} what="Getting the plans …">
          {(athletePlans) => <Marks athlete={athlete} plans={athletePlans} />}
        </Loaded>
      </div>
    </>
  );
};

/** One page about an athlete to print: where they stand, the one cue, the season, their marks. */
export const AthleteSheet = () => {
  const { id = '' } = useParams();
  const athlete = useAthlete(id);
  return (
    <Loaded query={athlete} what="Getting the athlete …">
      {(athlete) => <Sheet athlete={athlete} />}
    </Loaded>
  );
};
