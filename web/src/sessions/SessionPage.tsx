import {
  check,
  sessionInput,
  type ApproachSummary,
  type Athlete,
  type DrillSet,
  type Ground,
  type Session,
  type SessionInput,
} from '@gravek/contract';
import {
  drillSetTime,
  freshDrillSet,
  repsOf,
  slotsOn,
  surfaceCautions,
  takenFrom,
  withoutAthletes,
} from '@gravek/library';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf } from '../api/client';
import { useApproaches, useAthletes, useGrounds, useSession, useWrite } from '../api/queries';
import { usePutAway } from '../controls/usePutAway';
import { useChosenGround } from '../member/chosenGround';
import { useLengthStyle, useMayPlan, useMember } from '../member/member';
import { PageHead } from '../controls/PageHead';
import { Conflict, DraftBack, useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { unread } from '../controls/form';
import { Figure, Labelled } from '../controls/Figure';
import { Empty, Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { useCatalogue, type Catalogue } from '../movements/useCatalogue';
import { dayName, minutes } from '../controls/dates';
import { DrillSetEditor } from './DrillSetEditor';
import { Where } from './Where';

type Draft = SessionInput & { version: number | null };

const newSet = (
  movements: Catalogue,
  approach: ApproachSummary,
  people: readonly Athlete[],
  date: string,
): DrillSet =>
  freshDrillSet(uuid(), { ...approach, movement: movements.of(approach.movement) }, people, date);

const draftOf = ({ id, date, title, groundId, place, drillSets, version }: Session): Draft => ({
  id,
  date,
  title,
  groundId,
  place,
  drillSets,
  version,
});

const Builder = ({
  session,
  approaches,
  athletes,
  grounds,
}: {
  session: Session | null;
  approaches: ApproachSummary[];
  athletes: Athlete[];
  /** those put away too */
  grounds: Ground[];
}) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const navigate = useNavigate();
  const style = useLengthStyle();
  const movements = useCatalogue();
  const [query, setQuery] = useSearchParams();
  const { chosen, choose } = useChosenGround();
  const usable = approaches.filter((approach) => !approach.archived);
  const toAdd = usable.find((one) => one.id === query.get('add'));
  const date = query.get('day') ?? today;
  const fresh: Draft = {
    id: uuid(),
    date,
    title: `Session of ${dayName(date)}`,
    groundId: chosen?.groundId ?? null,
    place: '',
    drillSets: [toAdd ?? usable[0]].flatMap((one) =>
      one ? [newSet(movements, one, athletes, date)] : [],
    ),
    version: null,
  };
  const [kept, setDraft, discard, found] = useDraft<Draft>(
    `session.${session?.id ?? 'new'}`,
    session ? draftOf(session) : fresh,
  );
  // One that was begun before sets had a pace, or sessions a ground, has none.
  const draft = {
    ...kept,
    groundId: kept.groundId ?? null,
    drillSets: kept.drillSets.map((set) => ({ ...set, pace: set.pace ?? 1 })),
  };
  const [messages, setMessages] = useState<Record<string, string>>({});
  const [typed, setTyped] = useState<Record<string, string | null>>({});
  const conflict = useConflict<Session>(
    (theirs) => discard(draftOf(theirs)),
    (version) => setDraft({ ...draft, version }),
  );
  const save = useWrite(
    (body: object) =>
      draft.version === null
        ? api.post<Session>('/sessions', body)
        : api.put<Session>(`/sessions/${draft.id}`, body),
    'sessions',
    'approaches',
    'run',
    'faults',
  );
  const putAway = usePutAway('sessions');

  // Sent here by the planner: the approach waits to be put in as a drill set.
  const pending =
    toAdd && !draft.drillSets.some((set) => set.approachId === toAdd.id) ? toAdd : null;
  const addSet = (approach: ApproachSummary): void =>
    setDraft({
      ...draft,
      drillSets: [...draft.drillSets, newSet(movements, approach, athletes, draft.date)],
    });
  const setSet = (i: number, change: Partial<DrillSet>): void =>
    setDraft({
      ...draft,
      drillSets: draft.drillSets.map((set, j) => (j === i ? { ...set, ...change } : set)),
    });
  const move = (i: number, by: number): void => {
    const sets = [...draft.drillSets];
    const [set] = sets.splice(i, 1);
    sets.splice(i + by, 0, set!);
    setDraft({ ...draft, drillSets: sets });
  };
  const takeOut = (i: number): void => {
    const before = draft;
    setDraft({ ...draft, drillSets: draft.drillSets.filter((_, j) => j !== i) });
    tell('The drill set is taken out.', () => setDraft(before));
  };

  const submit = async (thenRun: boolean): Promise<void> => {
    conflict.clear();
    const { version, ...body } = draft;
    const checked = check(sessionInput, body);
    const wrong = {
      ...unread(typed),
      ...withoutAthletes(draft.drillSets, session?.drillSets),
    };
    if (!checked.ok || Object.keys(wrong).length > 0) {
      setMessages({ ...(checked.ok ? {} : checked.fields), ...wrong });
      conflict.say('Mend the fields that are marked, then save.');
      return;
    }
    setMessages({});
    try {
      const stored = await save.mutateAsync(version === null ? body : { ...body, version });
      discard(draftOf(stored));
      if (query.has('add')) setQuery({}, { replace: true });
      tell(`${stored.title} is saved.`);
      if (thenRun) void navigate(`/run/${stored.id}`);
      else if (!session) void navigate(`/sessions/${stored.id}`, { replace: true });
    } catch (error) {
      setMessages(fieldsOf(error));
      conflict.show(error);
    }
  };

  const leave = async (): Promise<void> => {
    if (await putAway(`/sessions/${draft.id}`, `${draft.title} is put away.`))
      void navigate('/sessions');
  };

  const sets = draft.drillSets;
  const ground = grounds.find((one) => one.id === draft.groundId);
  const here = ground ? takenFrom(ground) : null;
  const times = sets.map((set) =>
    drillSetTime(
      set,
      approaches.find((approach) => approach.id === set.approachId),
      { lanes: ground?.lanes, people: athletes, on: draft.date },
    ),
  );
  const total = times.reduce((sum, one) => sum + (one?.totalS ?? 0), 0);
  const idle = times.filter((time) => time !== null);
  // Of several on a day the one that it fits into best.
  const slots = ground ? slotsOn(ground, draft.date) : [];
  const slot = slots.find((one) => one.minutes * 60 >= total) ?? slots.at(-1);
  const overMin = slot ? Math.ceil(total / 60 - slot.minutes) : 0;
  return (
    <>
      <PageHead
        over={draft.version === null ? 'New session' : dayName(draft.date)}
        title={draft.title || 'Session'}
      >
        {session && !session.archived && (
          <Link
            className={mayPlan ? 'btn btn-outline-dark' : 'btn btn-primary'}
            to={`/run/${session.id}`}
          >
            {session.logged > 0 ? 'Resume' : 'Run'}
          </Link>
        )}
        {mayPlan && (
          <>
            {session && (
              <Button variant="outline-dark" onClick={() => void leave()}>
                Put away
              </Button>
            )}
            <Button disabled={save.isPending} onClick={() => void submit(false)}>
              {save.isPending ? 'Saving …' : 'Save'}
            </Button>
          </>
        )}
      </PageHead>
      <div className="figures-row mb-3">
        <Labelled label={ground && ground.lanes > 1 ? `About, in ${ground.lanes} lanes` : 'About'}>
          <Figure parts={[{ figure: String(Math.round(total / 60)), unit: 'min' }]} big />
        </Labelled>
        {slot && (
          <Labelled label={`Slot from ${slot.from} to ${slot.to}`}>
            <Figure parts={[{ figure: String(slot.minutes), unit: 'min' }]} big />
          </Labelled>
        )}
        <Labelled label="Athletes">
          <Figure
            parts={[
              { figure: String(new Set(sets.flatMap((set) => set.athleteIds)).size), unit: '' },
            ]}
            big
          />
        </Labelled>
        <Labelled label="Reps">
          <Figure
            parts={[
              {
                figure: String(
                  sets.reduce((sum, set) => sum + repsOf(set, athletes, draft.date), 0),
                ),
                unit: '',
              },
            ]}
            big
          />
        </Labelled>
        {idle.length > 0 && (
          <Labelled label="Each stands still">
            <Figure
              parts={[
                {
                  figure: String(
                    Math.round(
                      (100 * idle.reduce((sum, one) => sum + one.idleFraction, 0)) / idle.length,
                    ),
                  ),
                  unit: '%',
                },
              ]}
              big
            />
          </Labelled>
        )}
      </div>
      <div className="stack">
        <Conflict {...conflict.shown} />
        {surfaceCautions(here).map((caution) => (
          <div key={caution} className="caution small-text">
            {caution}
          </div>
        ))}
        {ground && slots.length === 0 && ground.slots.length > 0 && (
          <div className="note" role="status">
            The club does not have {ground.name} on this day.
          </div>
        )}
        {slot && overMin > 0 && (
          <div className="note note-wrong" role="status">
            {overMin} min more than {ground?.name} is the club’s from {slot.from} to {slot.to}.
          </div>
        )}
        {found && <DraftBack onDrop={() => discard(session ? draftOf(session) : fresh)} />}
        <fieldset disabled={!mayPlan} className="stack">
          <div className="set-editor panel">
            <div className="span-3">
              <Field label="Day" message={messages.date}>
                <Form.Control
                  type="date"
                  value={draft.date}
                  onChange={(event) => setDraft({ ...draft, date: event.target.value })}
                />
              </Field>
            </div>
            <div className="span-6">
              <Field label="Name" message={messages.title}>
                <Form.Control
                  value={draft.title}
                  onChange={(event) => setDraft({ ...draft, title: event.target.value })}
                />
              </Field>
            </div>
            <div className="span-3">
              <Where
                grounds={grounds}
                groundId={draft.groundId}
                place={draft.place}
                messages={messages}
                onWhere={(where) => {
                  if (where.groundId !== undefined) choose(where.groundId);
                  setDraft({ ...draft, ...where });
                }}
              />
            </div>
          </div>
          {usable.length === 0 && (
            <Empty title="A drill set needs an approach.">
              <Link className="btn btn-primary" to="/approaches/new">
                Plan a movement
              </Link>
            </Empty>
          )}
          {messages.drillSets && (
            <div className="field-message" role="alert">
              {messages.drillSets}
            </div>
          )}
          {sets.map((set, i) => (
            <section key={set.id} className="panel" aria-label={`Drill set ${i + 1}`}>
              <div className="row-line mb-2">
                <h2 className="mb-0">Drill set {i + 1}</h2>
                {times[i] && (
                  <span className="quiet small-text">
                    about {minutes(times[i].totalS)}, a rep every{' '}
                    <span className="figure">{Math.round(times[i].cycleS)}</span> s for each
                  </span>
                )}
                <span className="ms-auto d-flex gap-1">
                  <Button
                    size="sm"
                    variant="outline-dark"
                    aria-label={`Drill set ${i + 1} earlier`}
                    disabled={i === 0}
                    onClick={() => move(i, -1)}
                  >
                    <ChevronUp size={16} />
                  </Button>
                  <Button
                    size="sm"
                    variant="outline-dark"
                    aria-label={`Drill set ${i + 1} later`}
                    disabled={i === sets.length - 1}
                    onClick={() => move(i, 1)}
                  >
                    <ChevronDown size={16} />
                  </Button>
                  <Button size="sm" variant="outline-dark" onClick={() => takeOut(i)}>
                    Take out
                  </Button>
                </span>
              </div>
              <DrillSetEditor
                set={set}
                index={i}
                date={draft.date}
                movements={movements}
                approaches={usable}
                athletes={athletes}
                ground={here}
                style={style}
                messages={{ ...messages, ...unread(typed) }}
                onSet={(change) => setSet(i, change)}
                onMessage={(path, message) =>
                  setTyped((before) => ({ ...before, [path]: message }))
                }
              />
            </section>
          ))}
          {mayPlan && usable.length > 0 && (
            <div className="row-line">
              {pending && <Button onClick={() => addSet(pending)}>Add {pending.name}</Button>}
              <Button
                variant="outline-dark"
                onClick={() =>
                  addSet(
                    usable.find((one) => !sets.some((set) => set.approachId === one.id)) ??
                      usable[0]!,
                  )
                }
              >
                Add a drill set
              </Button>
              <Button
                className="ms-auto"
                variant="outline-dark"
                disabled={save.isPending}
                onClick={() => void submit(true)}
              >
                Save and run
              </Button>
            </div>
          )}
        </fieldset>
      </div>
    </>
  );
};

export const SessionPage = () => {
  const { id = 'new' } = useParams();
  const session = useSession(id === 'new' ? undefined : id);
  const approaches = useApproaches();
  const athletes = useAthletes();
  const grounds = useGrounds();
  const ready = (found: Session | null) => (
    <Loaded query={approaches} what="Getting the approaches …">
      {(plans) => (
        <Loaded query={athletes} what="Getting the athletes …">
          {(people) => (
            <Loaded query={grounds} what="Getting the grounds …">
              {(places) => (
                <Builder
                  key={id}
                  session={found}
                  approaches={plans}
                  athletes={people}
                  grounds={places}
                />
              )}
            </Loaded>
          )}
        </Loaded>
      )}
    </Loaded>
  );
  if (id === 'new') return ready(null);
  return (
    <Loaded query={session} what="Getting the session …">
      {(found) => ready(found)}
    </Loaded>
  );
};
