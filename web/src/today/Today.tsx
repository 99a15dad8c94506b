import { currentModel, dayNumber } from '@gravek/core';
import type { Athlete, DrillSet, FaultCount, Session } from '@gravek/contract';
import { faultOf, holding, toldTo, type AthleteFaults } from '@gravek/library';
import { Link } from 'react-router';
import { useApproaches, useAthletes, useFaultCounts, useSessions } from '../api/queries';
import { useMayPlan, useMember } from '../app/member';
import { PageHead } from '../app/Shell';
import { RESTRICTION_NAMES } from '../athletes/restrictions';
import { Figure } from '../controls/Figure';
import { Empty, Loaded } from '../controls/Notice';
import { StateMark } from '../drawing/StateMark';
import { usePicture } from '../faults/usePicture';
import { useCatalogue } from '../movements/useCatalogue';
import { dayName } from '../sessions/dates';
import { drillSetTime, minutes, sessionReps } from '../sessions/load';

/** After so many days a measured run is due again. */
const RETEST_DAYS = 42;
const DUE_SHOWN = 8;

const OnNow = ({ sessions }: { sessions: Session[] }) => {
  const approaches = useApproaches().data ?? [];
  const mayPlan = useMayPlan();
  if (sessions.length === 0) {
    return (
      <Empty title="Nothing is planned for today.">
        {mayPlan && (
          <Link className="btn btn-primary" to="/sessions/new">
            Plan a session
          </Link>
        )}
      </Empty>
    );
  }
  return sessions.map((session) => {
    const sets = session.drillSets.map((set: DrillSet) => ({
      set,
      approach: approaches.find((one) => one.id === set.approachId),
    }));
    const seconds = sets.reduce(
      (sum, { set, approach }) => sum + (drillSetTime(set, approach)?.totalS ?? 0),
      0,
    );
    return (
      <section key={session.id} className="panel" aria-label={session.title}>
        <div className="row-line mb-2">
          <div>
            <strong className="fs-5">{session.title}</strong>
            <div className="quiet">{session.place}</div>
          </div>
          <div className="ms-auto text-end">
            <Figure
              big
              parts={[{ figure: String(session.logged), unit: `of ${sessionReps(session)} reps` }]}
            />
            <div className="quiet small-text">about {minutes(seconds)}</div>
          </div>
          <Link className="btn btn-primary btn-lg" to={`/run/${session.id}`}>
            {session.logged > 0 ? 'Resume' : 'Run'}
          </Link>
        </div>
        <ul className="list-plain">
          {sets.map(({ set, approach }) => (
            <li key={set.id} className="row-line">
              <Link className="row-link" to={`/approaches/${set.approachId}`}>
                {approach?.name ?? 'Approach'}
              </Link>
              <span className="quiet">
                {set.sets} × {set.reps}, {set.athleteIds.length}{' '}
                {set.athleteIds.length === 1 ? 'athlete' : 'athletes'}
              </span>
            </li>
          ))}
        </ul>
        <Link to={`/sessions/${session.id}`} className="small-text">
          {mayPlan ? 'Change the session' : 'See the session'}
        </Link>
      </section>
    );
  });
};

const Cues = ({
  athletes,
  counts,
  up,
}: {
  athletes: Athlete[];
  counts: FaultCount[];
  /** athletes of today's sessions, or everybody when there is none */
  up: ReadonlySet<string>;
}) => {
  const catalogue = useCatalogue();
  const picture = usePicture(counts, catalogue.documents);
  if (counts.length === 0)
    return <span className="quiet">Cues come with the first logged reps.</span>;
  return (
    <Loaded query={picture} what="Choosing the cues …">
      {(list: AthleteFaults[]) => {
        const rows = athletes.filter((one) => up.has(one.id) && !one.archived);
        return (
          <ul className="list-plain">
            {rows.map((one) => {
              const own = list.find((it) => it.athleteId === one.id);
              const cue =
                own?.cue &&
                faultOf(toldTo(catalogue.of(own.movement), one), own.cue.fault.code)?.cue;
              const state = own?.faults.find((it) => it.code === own.cue?.fault.code)?.trend.state;
              return (
                <li key={one.id}>
                  <div className="row-line">
                    <Link className="row-link" to={`/athletes/${one.id}`}>
                      {one.name}
                    </Link>
                    {state && <StateMark state={state} />}
                    <strong className="cue-line">
                      {cue ?? (
                        <span className="quiet">no cue: {own ? 'let it run' : 'watch first'}</span>
                      )}
                    </strong>
                  </div>
                  {own?.cue && <div className="small-text quiet">{own.cue.reason}</div>}
                </li>
              );
            })}
          </ul>
        );
      }}
    </Loaded>
  );
};

const Due = ({ athletes }: { athletes: Athlete[] }) => {
  const { today } = useMember();
  const now = dayNumber('today', today);
  const due = [...athletes]
    .sort((a, b) => a.trials.length - b.trials.length)
    .flatMap((one) => {
      if (one.archived) return [];
      if (currentModel(one).source === 'estimate') return [{ one, what: 'never measured' }];
      const days = now - dayNumber('takenOn', one.trials[0]!.takenOn);
      return days > RETEST_DAYS
        ? [{ one, what: `measured ${Math.floor(days / 7)} weeks ago` }]
        : [];
    });
  if (due.length === 0) return <span className="quiet">Everybody is measured.</span>;
  return (
    <ul className="list-plain">
      {due.slice(0, DUE_SHOWN).map(({ one, what }) => (
        <li key={one.id} className="row-line">
          <Link className="row-link" to={`/athletes/${one.id}`}>
            {one.name}
          </Link>
          <span className="quiet ms-auto">{what}</span>
        </li>
      ))}
      {due.length > DUE_SHOWN && <li className="quiet">and {due.length - DUE_SHOWN} more</li>}
    </ul>
  );
};

const Restricted = ({ athletes }: { athletes: Athlete[] }) => {
  const { today } = useMember();
  const held = athletes.flatMap((one) =>
    one.archived
      ? []
      : holding(one.restrictions, today).map((restriction) => ({ one, restriction })),
  );
  if (held.length === 0) return <span className="quiet">Nobody.</span>;
  return (
    <ul className="list-plain">
      {held.map(({ one, restriction }) => (
        <li key={restriction.id}>
          <div className="row-line">
            <Link className="row-link" to={`/athletes/${one.id}`}>
              {one.name}
            </Link>
            <span className="ms-auto">{RESTRICTION_NAMES[restriction.kind]}</span>
          </div>
          <div className="quiet small-text">
            until {dayName(restriction.until, 'd MMM')}. {restriction.note}
          </div>
        </li>
      ))}
    </ul>
  );
};

export const Today = () => {
  const { today, club } = useMember();
  const sessions = useSessions(today, today);
  const athletes = useAthletes();
  const counts = useFaultCounts();
  return (
    <>
      <PageHead over={club.name} title={dayName(today, 'EEEE d MMMM')} />
      <Loaded query={sessions} what="Getting today …">
        {(all) => {
          const list = all.filter((one) => !one.archived);
          return (
            <Loaded query={athletes} what="Getting the athletes …">
              {(people) => {
                const up = new Set(
                  list.length > 0
                    ? list.flatMap((one) => one.drillSets.flatMap((set) => set.athleteIds))
                    : people.map((one) => one.id),
                );
                return (
                  <div className="columns">
                    <div className="stack">
                      <OnNow sessions={list} />
                      <section className="panel" aria-label="One cue each">
                        <h2>{list.length > 0 ? 'One cue each, today' : 'One cue each'}</h2>
                        <Loaded query={counts} what="Getting the reps …">
                          {(rows) => <Cues athletes={people} counts={rows} up={up} />}
                        </Loaded>
                      </section>
                    </div>
                    <div className="stack">
                      <section className="panel" aria-label="Restricted">
                        <h2>Restricted</h2>
                        <Restricted athletes={people} />
                      </section>
                      <section className="panel" aria-label="Due">
                        <h2>Measurement due</h2>
                        <Due athletes={people} />
                      </section>
                    </div>
                  </div>
                );
              }}
            </Loaded>
          );
        }}
      </Loaded>
    </>
  );
};
