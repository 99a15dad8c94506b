import type { OutdatedPlan } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { CueLine } from '@gravek/contract/faults';
import type { Needs } from '@gravek/contract/run';
import type { Session } from '@gravek/contract/session';
import { groupBy } from '@gravek/core/repLog';
import { measurementDue, needsOf, type Need } from '@gravek/library/chooseSets';
import { faultOf } from '@gravek/library/movements';
import { holding } from '@gravek/library/restrictions';
import { toldTo } from '@gravek/library/sides';
import { Link } from 'react-router';
import { useAthletes, useCues, useNeeds, useOutdatedPlans, useSessions } from '../api/queries';
import { useMayPlan, useMember } from '../member/member';
import { PageHead } from '../controls/PageHead';
import { RESTRICTION_NAMES } from '../controls/restrictionNames';
import { Figure } from '../controls/Figure';
import { Empty, Loaded } from '../controls/Notice';
import { Uncounted } from '../controls/Uncounted';
import { StateMark } from '../drawing/StateMark';
import { useCatalogue } from '../movements/useCatalogue';
import { counted, dayName, minutes, shift } from '../controls/dates';
import { useReps } from '../controls/useReps';
import { useOutlook } from '../sessions/useWork';
import { FirstUse } from './FirstUse';
import { useOnNow } from './useOnNow';

const DUE_SHOWN = 5;
/** Athletes of an outdated plan that are named. */
const NAMES = 3;

const OnNow = ({ sessions }: { sessions: Session[] }) => {
  const { today } = useMember();
  const repsOf = useReps();
  const outlookOf = useOutlook();
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
    const { where, seconds, sets } = outlookOf(session);
    return (
      <section key={session.id} className="panel" aria-label={session.title}>
        <div className="row-line mb-2">
          <div>
            <strong className="fs-5">{session.title}</strong>
            <div className="quiet">
              {where}
              {session.date !== today && ', begun yesterday'}
            </div>
          </div>
          <div className="ms-auto text-end">
            <Figure
              big
              parts={[{ figure: String(session.logged), unit: `of ${repsOf(session)} reps` }]}
            />
            <div className="quiet small-text">about {minutes(seconds)}</div>
          </div>
          <Link className="btn btn-primary btn-lg" to={`/run/${session.id}`}>
            {session.logged > 0 ? 'Resume' : 'Run'}
          </Link>
        </div>
        <ul className="list-plain">
          {sets.map((set, i) => (
            <li key={set.id} className="row-line">
              {set.approachId ? (
                <Link className="row-link" to={`/approaches/${set.approachId}`}>
                  {set.name}
                </Link>
              ) : (
                <strong>{set.name}</strong>
              )}
              <span className="quiet">
                {set.line}, {counted(session.drillSets[i]!.athleteIds.length, 'athlete')}
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

/** One line an athlete and movement: the one cue, how it goes, and why it. */
const Cues = ({ athletes, cues }: { athletes: Athlete[]; cues: CueLine[] }) => {
  const catalogue = useCatalogue();
  const people = new Map(athletes.map((athlete) => [athlete.id, athlete]));
  const several = new Set(
    cues.map((cue) => cue.athleteId).filter((id, i, all) => all.indexOf(id) !== i),
  );
  if (cues.length === 0)
    return <span className="quiet">Cues come with the first logged reps.</span>;
  return (
    <ul className="list-plain">
      {cues.map((own) => {
        const athlete = people.get(own.athleteId);
        if (!athlete) return null;
        const movement = toldTo(catalogue.of(own.movement), athlete);
        const cue = own.cue && faultOf(movement, own.cue.fault)?.cue;
        const { state } = own;
        return (
          <li key={`${own.athleteId}/${own.movement}`}>
            <div className="row-line">
              <Link className="row-link" to={`/athletes/${athlete.id}`}>
                {athlete.name}
              </Link>
              {several.has(athlete.id) && <span className="quiet small-text">{movement.name}</span>}
              {state && <StateMark state={state} />}
              <strong className="cue-line">
                {cue ?? (
                  <span className="quiet">
                    no cue: {own.reps > 0 ? 'let it run' : 'watch first'}
                  </span>
                )}
              </strong>
            </div>
            {own.cue && (
              <div className="small-text quiet">
                {own.cue.reason}
                {own.cue.sessions > 0 && ` In ${counted(own.cue.sessions, 'session')} so far.`}
              </div>
            )}
          </li>
        );
      })}
    </ul>
  );
};

const DUE = [
  { kind: 'away', title: 'Does it stay away?' },
  { kind: 'rung', title: 'Ladder' },
  { kind: 'check', title: 'Measure' },
] as const;

/** Tests that are due, what may be cleared and rungs that change: what a session should make room for. */
const Due = ({ athletes, needs }: { athletes: Athlete[]; needs: Needs }) => {
  const { today } = useMember();
  const catalogue = useCatalogue();
  const there = athletes.filter((one) => !one.archived);
  const all = needsOf(there, needs, catalogue.of, today);
  const wordsOf = (own: Need): string => {
    const athlete = there.find((one) => one.id === own.athleteId)!;
    if (own.kind === 'check') return measurementDue(athlete, today) ?? own.what;
    if (own.kind !== 'away') return own.what;
    const movement = toldTo(catalogue.of(own.movement!), athlete);
    return faultOf(movement, own.fault!)?.name.toLowerCase() ?? own.what;
  };
  const groups = DUE.flatMap(({ kind, title }) => {
    const rows = [
      ...groupBy(
        all.filter((one) => one.kind === kind),
        (one) => one.athleteId,
      ),
    ];
    return rows.length === 0 ? [] : [{ kind, title, rows }];
  });
  if (groups.length === 0) return <span className="quiet">Nothing.</span>;
  return groups.map(({ kind, title, rows }) => (
    <div key={kind} className="due-group">
      <div className="figure-label">{title}</div>
      <ul className="list-plain">
        {rows.slice(0, DUE_SHOWN).map(([id, own]) => (
          <li key={id} className="due-line">
            <Link className="row-link" to={`/athletes/${id}`}>
              {there.find((one) => one.id === id)?.name}
            </Link>
            <span className="quiet">{own.map(wordsOf).join(', ')}</span>
          </li>
        ))}
        {rows.length > DUE_SHOWN && <li className="quiet">and {rows.length - DUE_SHOWN} more</li>}
      </ul>
    </div>
  ));
};

/** Plans whose figures are of measures that have changed since. */
const Outdated = ({ athletes, plans }: { athletes: Athlete[]; plans: OutdatedPlan[] }) => {
  const nameOf = new Map(athletes.map(({ id, name }) => [id, name]));
  return (
    <ul className="list-plain">
      {plans.map(({ approachId, name, athleteIds }) => (
        <li key={approachId}>
          <Link className="row-link" to={`/approaches/${approachId}?athlete=${athleteIds[0]}`}>
            {name}
          </Link>
          <div className="quiet small-text">
            {athleteIds
              .slice(0, NAMES)
              .map((id) => nameOf.get(id))
              .join(', ')}
            {athleteIds.length > NAMES && ` and ${athleteIds.length - NAMES} more`}
          </div>
        </li>
      ))}
    </ul>
  );
};

const Restricted = ({ athletes }: { athletes: Athlete[] }) => {
  const { today } = useMember();
  const held = athletes.flatMap((athlete) =>
    athlete.archived
      ? []
      : holding(athlete.restrictions, today).map((restriction) => ({ one: athlete, restriction })),
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
            until {restriction.until === null ? 'cleared' : dayName(restriction.until)}.{' '}
            {restriction.note}
          </div>
        </li>
      ))}
    </ul>
  );
};

export const Today = () => {
  const { today, club } = useMember();
  const sessions = useSessions(shift(today, -1), today);
  const { isOnNow, inTurn } = useOnNow();
  const athletes = useAthletes();
  const cues = useCues(today);
  const needs = useNeeds(today);
  const outdated = useOutdatedPlans();
  return (
    <>
      <PageHead over={club.name} title={dayName(today)} />
      <Loaded query={sessions} what="Getting today …">
        {(all) => {
          const list = all.filter(isOnNow).sort(inTurn);
          return (
            <Loaded query={athletes} what="Getting the athletes …">
              {(people) => (
                <>
                  <FirstUse />
                  <div className="columns">
                    <div className="stack">
                      <OnNow sessions={list} />
                      <section className="panel" aria-label="One cue each">
                        <h2>{list.length > 0 ? 'One cue each, today' : 'One cue each'}</h2>
                        <Uncounted />
                        <Loaded query={cues} what="Choosing the cues …">
                          {(rows) => <Cues athletes={people} cues={rows} />}
                        </Loaded>
                      </section>
                    </div>
                    <div className="stack">
                      <section className="panel" aria-label="Restricted">
                        <h2>Restricted</h2>
                        <Restricted athletes={people} />
                      </section>
                      <section className="panel" aria-label="Due">
                        <h2>Due</h2>
                        <Loaded query={needs} what="Looking what is due …">
                          {(known) => <Due athletes={people} needs={known} />}
                        </Loaded>
                      </section>
                      {(outdated.data?.length ?? 0) > 0 && (
                        <section className="panel" aria-label="Plans out of date">
                          <h2>Plans out of date</h2>
                          <Outdated athletes={people} plans={outdated.data!} />
                        </section>
                      )}
                    </div>
                  </div>
                </>
              )}
            </Loaded>
          );
        }}
      </Loaded>
    </>
  );
};
