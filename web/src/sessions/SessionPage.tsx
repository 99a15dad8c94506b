import type { ApproachSummary } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Ground, OnGround } from '@gravek/contract/ground';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import type { Session, SessionInput } from '@gravek/contract/session';
import { surfaceCautions, takenFrom } from '@gravek/library/planning/onGround';
import { asDrillSet, withoutAthletes } from '@gravek/library/session/sessionFit';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, onPress, sentenceOf } from '../api/client';
import { useApproaches, useAthletes, useGrounds, useSession, useWrite } from '../api/queries';
import { usePutAway } from '../controls/usePutAway';
import { useChosenGround } from '../member/chosenGround';
import { useMayPlan, useMember } from '../member/member';
import { PageHead } from '../controls/PageHead';
import { Loaded, together, Waiting } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { dayName } from '../controls/dates';
import { counted } from '@gravek/core/words';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { AboutSession } from './AboutSession';
import { AddSet, newSet } from './AddSet';
import { BeginFrom } from './BeginFrom';
import { ChooseSets } from './ChooseSets';
import { copyOf, valueOfSession } from '../parts/intoSession/copySession';
import { useDraftedForm } from '../parts/fields/DraftedForm';
import { FieldsContext } from '../parts/fields/fields';
import { CopyMenu } from './CopyMenu';
import { Decide } from '../parts/intoSession/Decide';
import { SetLines } from './SetLines';
import { useFigures } from './useFigures';
import { useFinds } from './useWork';
import { WorkedOut } from './WorkedOut';

/** What a session takes where nobody says how long there is. */
const USUAL_MIN = 45;

const NO_SETS: readonly DrillSet[] = [];

const Cautions = ({ on }: { on: OnGround | null }) =>
  surfaceCautions(on).map((caution) => (
    <div key={caution} className="caution small-text">
      {caution}
    </div>
  ));

/** One that may have been begun before sets could vary, or sessions had a ground. */
const asNow = (kept: SessionInput): SessionInput => ({
  ...kept,
  groundId: kept.groundId ?? null,
  template: kept.template ?? false,
  drillSets: kept.drillSets.map(asDrillSet),
});

/** What is known of a session before its runs are worked out. */
const Meanwhile = ({ session, ground }: { session: Session; ground: Ground | undefined }) => (
  <>
    <PageHead
      over={
        <>
          {dayName(session.date)}
          {ground ? ` · ${ground.name}` : session.place && ` · ${session.place}`}
        </>
      }
      title={session.title}
    />
    <Cautions on={ground ? takenFrom(ground) : null} />
    <Waiting what="Working out the session …" />
  </>
);

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
  const { state } = useLocation() as { state: unknown };
  const finds = useFinds(approaches, session?.drillSets ?? NO_SETS);
  const [query, setQuery] = useSearchParams();
  const { chosen, choose } = useChosenGround();
  const usable = approaches.filter((approach) => !approach.archived);
  const toAdd = usable.find((approach) => approach.id === query.get('add'));
  const date = query.get('day') ?? today;
  const fresh = (): SessionInput => ({
    id: uuid(),
    date,
    title: `Session of ${dayName(date)}`,
    groundId: chosen?.groundId ?? null,
    place: '',
    template: false,
    // With one plan there is nothing to choose.
    drillSets: [toAdd ?? (usable.length === 1 ? usable[0] : undefined)].flatMap((approach) =>
      approach
        ? [
            newSet(
              { kind: 'plan', approachId: approach.id },
              finds,
              approach.athleteIds,
              athletes,
              date,
            ),
          ]
        : [],
    ),
  });
  const save = useWrite(
    (send: () => Promise<Session>) => send(),
    'sessions',
    'approaches',
    'run',
    'faults',
  );
  const form = useDraftedForm<SessionInput, Session>({
    name: `session.${session?.id ?? 'new'}`,
    stored: session,
    valueOf: (stored) => (stored ? valueOfSession(stored) : fresh()),
    older: ({ version: _, ...kept }: Partial<Session>) => kept as SessionInput,
    check: async (value) => {
      const { checkSession } = await onPress(() => import('./sessionCheck'));
      const checked = checkSession(asNow(value));
      const empty = withoutAthletes(value.drillSets, session?.drillSets);
      if (Object.keys(empty).length === 0) return checked;
      return { ok: false, fields: { ...(checked.ok ? {} : checked.fields), ...empty } };
    },
    send: (value, version) =>
      save.mutateAsync(() =>
        version === null
          ? api.post<Session>('/sessions', value)
          : api.put<Session>(`/sessions/${value.id}`, { ...value, version }),
      ),
    onSaved: (stored) => {
      if (query.has('add')) setQuery({}, { replace: true });
      tell(`${stored.title} is saved.`);
    },
    onWrong: (fields) => openFirstWrong(fields),
  });
  const { value: kept, set: setDraft } = form;
  const draft = useMemo(() => asNow(kept), [kept]);
  const { ground, here, lanes, makesOf, bodies, figures, most, slot, notOnDay } = useFigures(
    draft,
    {
      approaches,
      athletes,
      grounds,
    },
  );
  const [opened, setOpened] = useState<string | null>(
    // The line that was open when a new session was saved stays so.
    session === null
      ? (draft.drillSets[0]?.id ?? null)
      : ((state as { opened?: string } | null)?.opened ?? null),
  );
  const [choosing, setChoosing] = useState(false);
  const catalogue = useCatalogue();
  const [aboutShown, setAbout] = useState(session === null);
  const messages = form.fields.problems;
  const putAway = usePutAway('sessions');

  // Sent here by the planner: the approach waits to be put in as a drill set.
  const pending =
    toAdd &&
    !draft.drillSets.some(({ work }) => work.kind === 'plan' && work.approachId === toAdd.id)
      ? toAdd
      : null;
  const addSet = (work: Work): void => {
    const plan =
      work.kind === 'plan'
        ? approaches.find((approach) => approach.id === work.approachId)
        : undefined;
    // What is of no plan is for those who are in the set before.
    const people = plan?.athleteIds ?? draft.drillSets.at(-1)?.athleteIds ?? [];
    const set = newSet(work, finds, people, athletes, draft.date);
    setDraft({ ...draft, drillSets: [...draft.drillSets, set] });
    setOpened(set.id);
  };
  /** Opens the line that something is wrong in, so that it is seen. */
  const openFirstWrong = (fields: Record<string, unknown>): void => {
    const path = Object.keys(fields).find((field) => field.startsWith('drillSets['));
    const set = path && draft.drillSets[Number(/\d+/.exec(path)![0])];
    if (set) setOpened(set.id);
    if (['date', 'title', 'groundId', 'place'].some((field) => field in fields)) setAbout(true);
  };

  const submit = async (thenRun: boolean): Promise<void> => {
    const stored = await form.submit();
    if (!stored) return;
    if (thenRun) void navigate(`/run/${stored.id}`);
    else if (!session)
      void navigate(`/sessions/${stored.id}`, { replace: true, state: { opened } });
  };

  /** Changes the session as it is saved; what is typed here and not saved stays as it is. */
  const keepAsTemplate = async (template: boolean): Promise<void> => {
    const { id, version } = session!;
    const before = valueOfSession(session!);
    try {
      const stored = await save.mutateAsync(() =>
        api.put<Session>(`/sessions/${id}`, { ...before, template, version }),
      );
      if (JSON.stringify(draft) === JSON.stringify(before)) form.restart(stored);
      else {
        setDraft({ ...draft, template });
        form.putOver(stored.version);
      }
      tell(
        template
          ? `${stored.title} is a template: new sessions can begin from it.`
          : `${stored.title} is no template any more.`,
      );
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  const leave = async (): Promise<void> => {
    if (await putAway(`/sessions/${draft.id}`, `${draft.title} is put away.`))
      void navigate('/sessions');
  };

  const sets = draft.drillSets;
  return (
    <>
      <PageHead
        over={
          <>
            {session === null ? 'New session' : dayName(draft.date)}
            {slot && `, ${slot.from}–${slot.to}`}
            {ground ? ` · ${ground.name}` : draft.place && ` · ${draft.place}`}
            {mayPlan && (
              <button
                type="button"
                className="btn btn-link p-0 ms-2 small-text align-baseline"
                aria-expanded={aboutShown}
                onClick={() => setAbout(!aboutShown)}
              >
                {aboutShown ? 'done' : 'change day, name, ground'}
              </button>
            )}
          </>
        }
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
              <>
                <Link className="btn btn-outline-dark" to={`/sessions/${session.id}/card`}>
                  Card
                </Link>
                <CopyMenu session={session} onTemplate={(kept) => void keepAsTemplate(kept)} />
              </>
            )}
            {session && (
              <Button variant="outline-dark" onClick={() => void leave()}>
                Put away
              </Button>
            )}
            <Button variant="outline-dark" disabled={form.busy} onClick={() => void submit(true)}>
              Save and run
            </Button>
            <Button disabled={form.busy} onClick={() => void submit(false)}>
              {form.busy ? 'Saving …' : 'Save'}
            </Button>
          </>
        )}
      </PageHead>
      {aboutShown && (
        <AboutSession
          about={draft}
          grounds={grounds}
          messages={messages}
          onAbout={(change) => {
            if (change.groundId !== undefined) choose(change.groundId);
            setDraft({ ...draft, ...change });
          }}
        />
      )}
      <Decide
        figures={figures}
        slotMin={slot?.minutes ?? null}
        lanes={lanes}
        most={most}
        athletes={athletes}
      />
      {form.head}
      <Cautions on={here} />
      {ground && notOnDay && (
        <div className="note" role="status">
          The club does not have {ground.name} on this day.
        </div>
      )}
      {slot && figures.overS > 0 && (
        <div className="visually-hidden" role="status">
          {Math.ceil(figures.overS / 60)} min more than {ground?.name} is the club’s from{' '}
          {slot.from} to {slot.to}.
        </div>
      )}
      {session === null && (
        <BeginFrom
          approaches={approaches}
          onBegin={(template) => {
            const before = draft;
            const { id: _id, date: _date, ...copied } = copyOf(template, draft.date);
            setDraft({
              ...draft,
              ...copied,
              // Who has left since is not in it.
              drillSets: copied.drillSets.map((set) => ({
                ...set,
                athleteIds: set.athleteIds.filter((id) =>
                  athletes.some((athlete) => athlete.id === id && !athlete.archived),
                ),
              })),
            });
            setOpened(null);
            tell(`${template.title} is copied here.`, () => setDraft(before));
          }}
        />
      )}
      {messages.drillSets && (
        <div className="field-message" role="alert">
          {messages.drillSets}
        </div>
      )}
      <fieldset disabled={!mayPlan} className="session-lines">
        <FieldsContext value={form.fields}>
          <SetLines
            sets={sets}
            figures={figures}
            bodies={bodies}
            athletes={athletes}
            plans={usable}
            makesOf={makesOf}
            date={draft.date}
            lanes={lanes}
            slotMin={slot?.minutes ?? null}
            opened={opened}
            messages={messages}
            mayPlan={mayPlan}
            onOpen={setOpened}
            onSets={(drillSets) => setDraft({ ...draft, drillSets })}
          />
        </FieldsContext>
        {mayPlan && (
          <div className="row-line">
            {pending && (
              <Button onClick={() => addSet({ kind: 'plan', approachId: pending.id })}>
                Add {pending.name}
              </Button>
            )}
            <AddSet plans={usable} onAdd={addSet} />
            <Button
              variant="outline-dark"
              aria-expanded={choosing}
              onClick={() => setChoosing(!choosing)}
            >
              Choose for me
            </Button>
          </div>
        )}
        {mayPlan && choosing && (
          <ChooseSets
            date={draft.date}
            there={[...new Set(sets.flatMap((set) => set.athleteIds))]}
            leftMin={slot ? Math.max(0, Math.floor(slot.minutes - figures.totalS / 60)) : USUAL_MIN}
            lanes={lanes}
            ground={here}
            athletes={athletes}
            plans={usable}
            own={catalogue.documents}
            onTake={(chosen) => {
              const before = draft;
              setDraft({ ...draft, drillSets: [...draft.drillSets, ...chosen] });
              setChoosing(false);
              tell(`${counted(chosen.length, 'set')} put in.`, () => setDraft(before));
            }}
            onClose={() => setChoosing(false)}
          />
        )}
      </fieldset>
    </>
  );
};

export const SessionPage = () => {
  const { id = 'new' } = useParams();
  const session = useSession(id === 'new' ? undefined : id);
  const approaches = useApproaches();
  const athletes = useAthletes();
  const grounds = useGrounds();
  const { today } = useMember();
  const [query] = useSearchParams();
  const nothingYet = { drillSets: NO_SETS, groundId: null, date: query.get('day') ?? today };
  const ready = (found: Session | null) => {
    const ground = grounds.data?.find((ground) => ground.id === found?.groundId);
    const meanwhile = found ? (
      <Meanwhile session={found} ground={ground} />
    ) : (
      <Waiting what="Working out the session …" />
    );
    return (
      <Loaded
        query={together(approaches, athletes, grounds)}
        what="Getting the session …"
        meanwhile={meanwhile}
      >
        {([plans, people, places]) => (
          <WorkedOut
            key={id}
            session={found ?? nothingYet}
            approaches={plans}
            athletes={people}
            grounds={places}
            meanwhile={meanwhile}
          >
            <Builder session={found} approaches={plans} athletes={people} grounds={places} />
          </WorkedOut>
        )}
      </Loaded>
    );
  };
  if (id === 'new') return ready(null);
  return (
    <Loaded query={session} what="Getting the session …">
      {ready}
    </Loaded>
  );
};
