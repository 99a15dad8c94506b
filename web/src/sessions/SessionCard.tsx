import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { Ground } from '@gravek/contract/ground';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { Session } from '@gravek/contract/session';
import { faultOf } from '@gravek/library/movement/byCode';
import { toldTo } from '@gravek/library/movement/sides';
import { targetWords, variesWords } from '@gravek/library/session/setWords';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import { useApproaches, useAthletes, useCues, useGrounds, useSession } from '../api/queries';
import { dayName } from '../controls/dates';
import { Loaded, Waiting } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { howItIsRun } from '../parts/intoSession/howItIsRun';
import { useTimes } from './useFigures';
import { WorkedOut } from './WorkedOut';

/** More names than these are not read off a card. */
const MOST_NAMES = 16;
const MOST_MISSING = 6;
/** With twenty sets more cues would go over the page. */
const MOST_CUES = 80;

const clock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60) % 24).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

const Card = ({
  session,
  ...club
}: {
  session: Session;
  approaches: ApproachSummary[];
  athletes: Athlete[];
  grounds: Ground[];
}) => {
  const { athletes } = club;
  const { figures, ground, slot } = useTimes(session, club);
  const catalogue = useCatalogue();
  const cues = useCues(session.date).data ?? [];
  const sets = session.drillSets;
  const everybody = [...new Set(sets.flatMap((set) => set.athleteIds))];
  const of = (id: string): Athlete | undefined => athletes.find((athlete) => athlete.id === id);
  const firstName = (id: string): string => of(id)?.name.split(' ')[0] ?? '?';
  const who = (ids: readonly string[]): string => {
    const missing = everybody.filter((id) => !ids.includes(id));
    if (missing.length === 0 && everybody.length > 3) return `everybody (${everybody.length})`;
    if (ids.length <= MOST_NAMES) return ids.map(firstName).join(', ');
    return missing.length <= MOST_MISSING
      ? `all but ${missing.map(firstName).join(', ')}`
      : counted(ids.length, 'athlete');
  };
  const from = slot ? Number(slot.from.slice(0, 2)) * 60 + Number(slot.from.slice(3)) : null;
  const at = (seconds: number): string =>
    from === null ? `${Math.round(seconds / 60)}` : clock(from + Math.round(seconds / 60));
  const movements = new Set(figures.sets.flatMap(({ base }) => base?.movement?.code ?? []));
  const lines = cues.flatMap((cueLine) => {
    const athlete = of(cueLine.athleteId);
    if (
      !cueLine.cue ||
      !athlete ||
      !everybody.includes(athlete.id) ||
      !movements.has(cueLine.movement)
    )
      return [];
    const movement = toldTo(catalogue.of(cueLine.movement), athlete);
    const cue = faultOf(movement, cueLine.cue.fault)?.cue;
    return cue ? [{ athlete, movement, cue }] : [];
  });
  const several = new Set(lines.map(({ movement }) => movement.code)).size > 1;
  const much = sets.length * 3 + lines.length;
  return (
    <>
      <PageHead
        over={
          <>
            {dayName(session.date)}
            {slot && `, ${slot.from}–${slot.to}`}
            {ground ? ` · ${ground.name}` : session.place && ` · ${session.place}`}
          </>
        }
        title={session.title}
      >
        <Link className="btn btn-outline-dark no-print" to={`/sessions/${session.id}`}>
          Back to the session
        </Link>
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </PageHead>
      <section
        className={`card-sheet ${much > 45 ? 'many' : ''} ${much > 55 ? 'most' : ''}`}
        aria-label="Card"
      >
        <p className="card-facts">
          <strong>
            {Math.round(figures.totalS / 60)} min{slot && ` of ${slot.minutes}`}
          </strong>
          , {counted(figures.people, 'athlete')}, {figures.reps} reps
          {figures.bring.length > 0 && `. Bring ${figures.bring.join(', ')}`}.
        </p>
        {sets.length === 0 ? (
          <p className="quiet">Nothing is in it yet.</p>
        ) : (
          <table>
            <thead>
              <tr>
                <th>{from === null ? 'min' : 'at'}</th>
                <th>what</th>
                <th>until</th>
                <th>who</th>
              </tr>
            </thead>
            <tbody>
              {sets.map((set, i) => {
                const { base, at: place } = figures.sets[i]!;
                return (
                  <tr key={set.id}>
                    <td>
                      <span className="figure">{at(place.startS)}</span>
                    </td>
                    <td>
                      <strong>{base?.name ?? 'Not there any more'}</strong>
                      <div>
                        {[base ? variesWords(base, set) : '', ...howItIsRun(set)]
                          .filter(Boolean)
                          .join(', ')}
                      </div>
                    </td>
                    <td>
                      {targetWords(set)}
                      {set.sets > 1 && <div>{set.sets} rounds</div>}
                    </td>
                    <td>{who(set.athleteIds)}</td>
                  </tr>
                );
              })}
              <tr>
                <td>
                  <span className="figure">{at(figures.totalS)}</span>
                </td>
                <td colSpan={3}>end</td>
              </tr>
            </tbody>
          </table>
        )}
        {lines.length > 0 && (
          <>
            <h2>One cue each</h2>
            <ul className="card-cues">
              {lines.slice(0, MOST_CUES).map(({ athlete, movement, cue }) => (
                <li key={`${athlete.id}/${movement.code}`}>
                  <strong>{athlete.name.split(' ')[0]}</strong> {cue}
                  {several && <span className="quiet"> ({movement.name.toLowerCase()})</span>}
                </li>
              ))}
              {lines.length > MOST_CUES && (
                <li className="quiet">and {lines.length - MOST_CUES} more on Today</li>
              )}
            </ul>
          </>
        )}
      </section>
    </>
  );
};

/** A session on one page to take along. */
export const SessionCard = () => {
  const { id } = useParams();
  const session = useSession(id);
  const approaches = useApproaches();
  const athletes = useAthletes();
  const grounds = useGrounds();
  return (
    <Loaded query={session} what="Getting the session …">
      {(found) => (
        <Loaded query={approaches} what="Getting the approaches …">
          {(plans) => (
            <Loaded query={athletes} what="Getting the athletes …">
              {(people) => (
                <Loaded query={grounds} what="Getting the grounds …">
                  {(places) => (
                    <WorkedOut
                      session={found}
                      approaches={plans}
                      athletes={people}
                      grounds={places}
                      meanwhile={<Waiting what="Working out the session …" />}
                    >
                      <Card session={found} approaches={plans} athletes={people} grounds={places} />
                    </WorkedOut>
                  )}
                </Loaded>
              )}
            </Loaded>
          )}
        </Loaded>
      )}
    </Loaded>
  );
};
