import { counted } from '@gravek/core/words';
import type { OutdatedPlan } from '@gravek/contract/plan';
import type { TodayCue, TodayDue, TodayRestriction, TodaySession } from '@gravek/contract/today';
import { Link } from 'react-router';
import { useToday } from '../api/queries';
import { dayName, minutes } from '../controls/dates';
import { Figure } from '../controls/Figure';
import { Empty, Loaded } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { RESTRICTION_NAMES } from '../controls/restrictionNames';
import { Uncounted } from '../controls/Uncounted';
import { StateMark } from '../drawing/StateMark';
import { useMayPlan, useMember } from '../member/member';
import { FirstUse } from './FirstUse';

const DUE_SHOWN = 5;
/** Athletes of an outdated plan that are named. */
const NAMES = 3;

const OnNow = ({ sessions }: { sessions: TodaySession[] }) => {
  const { today } = useMember();
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
  return sessions.map(({ id, title, date, where, seconds, reps, logged, sets }) => (
    <section key={id} className="panel" aria-label={title}>
      <div className="row-line mb-2">
        <div>
          <strong className="fs-5">{title}</strong>
          <div className="quiet">
            {where}
            {date !== today && ', begun yesterday'}
          </div>
        </div>
        <div className="ms-auto text-end">
          <Figure big parts={[{ figure: String(logged), unit: `of ${reps} reps` }]} />
          <div className="quiet small-text">about {minutes(seconds)}</div>
        </div>
        <Link className="btn btn-primary btn-lg" to={`/run/${id}`}>
          {logged > 0 ? 'Resume' : 'Run'}
        </Link>
      </div>
      <ul className="list-plain">
        {sets.map((set) => (
          <li key={set.id} className="row-line">
            {set.approachId ? (
              <Link className="row-link" to={`/approaches/${set.approachId}`}>
                {set.name}
              </Link>
            ) : (
              <strong>{set.name}</strong>
            )}
            <span className="quiet">
              {set.line}, {counted(set.athletes, 'athlete')}
            </span>
          </li>
        ))}
      </ul>
      <Link to={`/sessions/${id}`} className="small-text">
        {mayPlan ? 'Change the session' : 'See the session'}
      </Link>
    </section>
  ));
};

/** One line an athlete and movement: the one cue, how it goes, and why it. */
const Cues = ({ cues }: { cues: TodayCue[] }) => {
  if (cues.length === 0)
    return <span className="quiet">Cues come with the first logged reps.</span>;
  return (
    <ul className="list-plain">
      {cues.map(
        ({ athleteId, name, movement, movementName, state, cue, reason, sessions, reps }) => (
          <li key={`${athleteId}/${movement}`}>
            <div className="row-line">
              <Link className="row-link" to={`/athletes/${athleteId}`}>
                {name}
              </Link>
              {movementName && <span className="quiet small-text">{movementName}</span>}
              {state && <StateMark state={state} />}
              <strong className="cue-line">
                {cue ?? (
                  <span className="quiet">no cue: {reps > 0 ? 'let it run' : 'watch first'}</span>
                )}
              </strong>
            </div>
            {cue && (
              <div className="small-text quiet">
                {reason}
                {sessions > 0 && ` In ${counted(sessions, 'session')} so far.`}
              </div>
            )}
          </li>
        ),
      )}
    </ul>
  );
};

const DUE_TITLES: Record<TodayDue['kind'], string> = {
  away: 'Does it stay away?',
  rung: 'Ladder',
  check: 'Measure',
};

const Due = ({ due }: { due: TodayDue[] }) => {
  if (due.length === 0) return <span className="quiet">Nothing.</span>;
  return due.map(({ kind, athletes }) => (
    <div key={kind} className="due-group">
      <div className="figure-label">{DUE_TITLES[kind]}</div>
      <ul className="list-plain">
        {athletes.slice(0, DUE_SHOWN).map(({ athleteId, name, words }) => (
          <li key={athleteId} className="due-line">
            <Link className="row-link" to={`/athletes/${athleteId}`}>
              {name}
            </Link>
            <span className="quiet">{words}</span>
          </li>
        ))}
        {athletes.length > DUE_SHOWN && (
          <li className="quiet">and {athletes.length - DUE_SHOWN} more</li>
        )}
      </ul>
    </div>
  ));
};

/** Plans whose figures are of measures that have changed since. */
const Outdated = ({ plans }: { plans: OutdatedPlan[] }) => (
  <ul className="list-plain">
    {plans.map(({ approachId, name, athletes }) => (
      <li key={approachId}>
        <Link className="row-link" to={`/approaches/${approachId}?athlete=${athletes[0]?.id}`}>
          {name}
        </Link>
        <div className="quiet small-text">
          {athletes
            .slice(0, NAMES)
            .map((athlete) => athlete.name)
            .join(', ')}
          {athletes.length > NAMES && ` and ${athletes.length - NAMES} more`}
        </div>
      </li>
    ))}
  </ul>
);

const Restricted = ({ restricted }: { restricted: TodayRestriction[] }) => {
  if (restricted.length === 0) return <span className="quiet">Nobody.</span>;
  return (
    <ul className="list-plain">
      {restricted.map(({ id, athleteId, name, kind, until, note }) => (
        <li key={id}>
          <div className="row-line">
            <Link className="row-link" to={`/athletes/${athleteId}`}>
              {name}
            </Link>
            <span className="ms-auto">{RESTRICTION_NAMES[kind]}</span>
          </div>
          <div className="quiet small-text">
            until {until === null ? 'cleared' : dayName(until)}. {note}
          </div>
        </li>
      ))}
    </ul>
  );
};

export const Today = () => {
  const { today, club } = useMember();
  const found = useToday();
  return (
    <>
      <PageHead over={club.name} title={dayName(today)} />
      <Loaded query={found} what="Getting today …">
        {({ sessions, cues, due, restricted, outdated, firstSteps }) => (
          <>
            <FirstUse come={firstSteps} />
            <div className="columns">
              <div className="stack">
                <OnNow sessions={sessions} />
                <section className="panel" aria-label="One cue each">
                  <h2>{sessions.length > 0 ? 'One cue each, today' : 'One cue each'}</h2>
                  <Uncounted />
                  <Cues cues={cues} />
                </section>
              </div>
              <div className="stack">
                <section className="panel" aria-label="Restricted">
                  <h2>Restricted</h2>
                  <Restricted restricted={restricted} />
                </section>
                <section className="panel" aria-label="Due">
                  <h2>Due</h2>
                  <Due due={due} />
                </section>
                {outdated.length > 0 && (
                  <section className="panel" aria-label="Plans out of date">
                    <h2>Plans out of date</h2>
                    <Outdated plans={outdated} />
                  </section>
                )}
              </div>
            </div>
          </>
        )}
      </Loaded>
    </>
  );
};
