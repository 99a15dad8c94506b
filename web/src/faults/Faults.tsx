import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import { counted } from '@gravek/core/words';
import type { SquadFault } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { addReads } from '@gravek/library/cue/ledger';
import {
  byNeed,
  type SharedFault,
  sharedFaults,
  WATCHED_FROM,
  whyNeeded,
} from '@gravek/library/cue/squadFaults';
import { faultOf } from '@gravek/library/movement/byCode';
import { toldTo } from '@gravek/library/movement/sides';
import { Link } from 'react-router';
import { Empty } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { Uncounted } from '../controls/Uncounted';
import { StateMark } from '../drawing/StateMark';
import { IntoNext } from '../parts/intoSession/IntoNext';
import { Causes } from '../parts/ledger/Causes';
import { InSquad, type SquadLine } from '../parts/ledger/InSquad';
import { Reads } from '../parts/ledger/Reads';
import { SquadResults } from '../parts/ledger/ResultsPanel';

/** Of those who share a fault. */
const NAMES = 6;

const Cell = ({ fault }: { fault: SquadFault | undefined }) =>
  fault === undefined ? (
    <td className="fault-cell quiet" aria-label="not live">
      ·
    </td>
  ) : (
    <td
      className={`fault-cell ${fault.rate >= LIVE_RATE ? 'live' : ''}`}
      title={`between ${Math.round(fault.low * 100)} and ${Math.round(fault.high * 100)} %`}
    >
      <span className="figure">{Math.round(fault.rate * 100)}</span>
      <span className="unit"> %</span>
      <StateMark state={fault.state} wordless />
    </td>
  );

const cueWords = (movement: Movement, { athlete, cue }: SquadLine): string | undefined =>
  cue ? faultOf(toldTo(movement, athlete), cue.fault)?.cue : undefined;

/** What several share, and the drill that they can do together. */
const Shared = ({
  shared,
  movement,
  lines,
}: {
  shared: SharedFault[];
  movement: Movement;
  lines: SquadLine[];
}) => {
  const nameOf = new Map(lines.map(({ athlete }) => [athlete.id, athlete.name.split(' ')[0]!]));
  if (shared.length === 0) return null;
  return (
    <section aria-label="What most share">
      <ul className="list-plain shared-faults">
        {shared.map(({ fault, athleteIds, drill }) => (
          <li key={fault.code}>
            <div>
              <strong>{fault.name}</strong>, {athleteIds.length} of {lines.length}
            </div>
            <div className="quiet small-text">
              {athleteIds
                .slice(0, NAMES)
                .map((id) => nameOf.get(id))
                .join(', ')}
              {athleteIds.length > NAMES && ` and ${athleteIds.length - NAMES} more`}
            </div>
            {drill && (
              <div className="row-line small-text mt-1">
                <span title={drill.how}>Together: {drill.name}</span>
                <IntoNext
                  movement={movement}
                  drill={drill}
                  athletes={lines
                    .map(({ athlete }) => athlete)
                    .filter(({ id }) => athleteIds.includes(id))}
                />
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
};

const Unwatched = ({ lines }: { lines: SquadLine[] }) => {
  const few = lines.filter(({ lately }) => lately < WATCHED_FROM);
  if (few.length === 0) return null;
  return (
    <p className="mb-0">
      <strong>Not watched enough:</strong>{' '}
      {few.map(({ athlete, lately }, i) => (
        <span key={athlete.id}>
          {i > 0 && ', '}
          <Link to={`/athletes/${athlete.id}`}>{athlete.name}</Link> ({counted(lately, 'rep')})
        </span>
      ))}
      <span className="quiet"> in four weeks; ten are needed to judge.</span>
    </p>
  );
};

/** One line an athlete, worst first: for a phone. */
const Lines = ({ lines, movement }: { lines: SquadLine[]; movement: Movement }) => (
  <ul className="list-plain squad-lines">
    {lines.map((line) => {
      const { athlete, faults, cue } = line;
      const [worst] = [...faults].sort(
        (a, b) => Number(b.code === cue?.fault) - Number(a.code === cue?.fault) || b.rate - a.rate,
      );
      return (
        <li key={athlete.id}>
          <Link className="row-link" to={`/athletes/${athlete.id}`}>
            {athlete.name}
          </Link>
          <span className="squad-worst">
            {worst ? (
              <>
                <span className="figure">{Math.round(worst.rate * 100)}</span>
                <span className="unit"> %</span> <StateMark state={worst.state} wordless />
              </>
            ) : (
              <span className="quiet">none live</span>
            )}
          </span>
          <span className="squad-cue">
            {cueWords(movement, line) ?? <span className="quiet">no cue: let it run</span>}
          </span>
        </li>
      );
    })}
  </ul>
);

const Grid = ({ lines, movement }: { lines: SquadLine[]; movement: Movement }) => {
  // Faults that nobody shows take no room.
  const faults = movement.faults.filter(({ code }) =>
    lines.some((line) => line.faults.some((fault) => fault.code === code)),
  );
  return (
    <div className="table-scroll squad-grid">
      <table className="grid-table fault-table">
        <caption className="visually-hidden">Rate and state of each fault, by athlete</caption>
        <thead>
          <tr>
            <th>Athlete</th>
            <th>Cue for the next session</th>
            {faults.map((fault) => (
              <th key={fault.code} className="fault-head">
                {fault.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.athlete.id}>
              <td>
                <Link className="row-link" to={`/athletes/${line.athlete.id}`}>
                  {line.athlete.name}
                </Link>
              </td>
              <td>
                {cueWords(movement, line) ?? <span className="quiet">none needed</span>}
                {line.cue?.by && <span className="quiet small-text"> (chosen)</span>}
              </td>
              {faults.map((fault) => (
                <Cell key={fault.code} fault={line.faults.find((it) => it.code === fault.code)} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
};

const Picture = ({ movement, lines: unsorted }: { movement: Movement; lines: SquadLine[] }) => {
  const lines = byNeed(movement, unsorted);
  if (lines.length === 0) {
    return <p className="quiet">Nobody of this squad has run {movement.name.toLowerCase()} yet.</p>;
  }
  const [first] = lines;
  const why = whyNeeded(movement, first!);
  return (
    <>
      {why && (
        <p className="mb-0">
          <strong>{first!.athlete.name} first:</strong> {why}.
        </p>
      )}
      <Unwatched lines={lines} />
      <div className="squad-first">
        <Lines lines={lines} movement={movement} />
        <Shared shared={sharedFaults(movement, lines)} movement={movement} lines={lines} />
      </div>
      <Grid lines={lines} movement={movement} />
      <Reads movement={movement} reads={addReads(lines.flatMap((line) => line.reads))} />
      <SquadResults movement={movement} lines={lines} />
      <div className="row-line small-text">
        <span className="quiet">
          Figures: share of reps that show the fault since its last sure change. A dot: not live,
          under {Math.round(LIVE_RATE * 100)} %.
        </span>
        {(['back', 'stuck', 'clearing', 'cleared', 'steady', 'new'] as const).map((state) => (
          <StateMark key={state} state={state} />
        ))}
      </div>
      <Causes key={movement.code} movement={movement} />
    </>
  );
};

export const Faults = () => (
  <>
    <PageHead title="Faults" over="Who most deserves the next session, and with which one cue">
      <Link className="btn btn-outline-dark" to="/faults/season">
        The season so far
      </Link>
    </PageHead>
    <Uncounted />
    <InSquad
      empty={
        <Empty title="No reps yet.">
          Run a session; each athlete’s faults and their trend appear here.
          <div>
            <Link className="btn btn-primary" to="/run">
              Run a session
            </Link>
          </div>
        </Empty>
      }
    >
      {({ choice, ...shown }) => (
        <div className="stack">
          {choice}
          <Picture {...shown} />
        </div>
      )}
    </InSquad>
  </>
);
