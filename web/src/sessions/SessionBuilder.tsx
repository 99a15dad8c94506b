import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { Work } from '@gravek/contract/drillSet';
import type { Ground } from '@gravek/contract/ground';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { Session } from '@gravek/contract/session';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useLocation, useNavigate } from 'react-router';
import { dayName } from '../controls/dates';
import { PageHead } from '../controls/PageHead';
import { tell } from '../controls/toasts';
import { usePutAway } from '../controls/usePutAway';
import { useChosenGround } from '../member/chosenGround';
import { useMayPlan } from '../member/member';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { FieldsContext } from '../parts/fields/fields';
import { copyOf } from '../parts/intoSession/copySession';
import { Decide } from '../parts/intoSession/Decide';
import { AboutSession } from './AboutSession';
import { AddSet, newSet } from './AddSet';
import { BeginFrom } from './BeginFrom';
import { AlsoBooked, Cautions } from './Cautions';
import { ChooseSets } from './ChooseSets';
import { Groups, intoGroups, withNewStations } from './Groups';
import { SessionActs } from './SessionActs';
import { SetLines } from './SetLines';
import { useFigures } from './useFigures';
import { NO_SETS, useSessionForm, withUsualTitle } from './useSessionForm';
import { useFinds } from './useWork';

/** What a session takes where nobody says how long there is. */
const USUAL_MIN = 45;

export const SessionBuilder = ({
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
  const mayPlan = useMayPlan();
  const navigate = useNavigate();
  const { state } = useLocation() as { state: unknown };
  const finds = useFinds(approaches, session?.drillSets ?? NO_SETS);
  const { choose } = useChosenGround();
  const usable = approaches.filter((approach) => !approach.archived);
  const { draft, form, keepAsTemplate, toAdd } = useSessionForm({
    session,
    plans: usable,
    athletes,
    finds,
    onWrong: (fields) => openFirstWrong(fields),
  });
  const { set: setDraft } = form;
  const { ground, here, lanes, makesOf, bodies, baseOfSet, figures, most, slot, notOnDay } =
    useFigures(draft, {
      approaches,
      athletes,
      grounds,
    });
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

  const pending =
    toAdd &&
    !draft.drillSets.some(({ work }) => work.kind === 'plan' && work.approachId === toAdd.id)
      ? toAdd
      : null;
  const addSets = (works: readonly Work[]): void => {
    // What is of no plan is for those who are in the set before.
    const before = draft.drillSets.at(-1)?.athleteIds ?? [];
    const added = works.map((work) => {
      const plan =
        work.kind === 'plan'
          ? approaches.find((approach) => approach.id === work.approachId)
          : undefined;
      return newSet(work, finds, plan?.athleteIds ?? before, athletes, draft.date);
    });
    setDraft({ ...draft, drillSets: [...draft.drillSets, ...added] });
    // Of several none is in the way of the others.
    setOpened(added.length === 1 ? added[0]!.id : null);
  };
  const club = { athletes, baseOfSet, date: draft.date };
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
        <SessionActs
          session={session}
          busy={form.busy}
          onTemplate={(template) => void keepAsTemplate(template)}
          onPutAway={() => void leave()}
          onSave={(thenRun) => void submit(thenRun)}
        />
      </PageHead>
      {aboutShown && (
        <AboutSession
          about={draft}
          grounds={grounds}
          messages={messages}
          onAbout={(change) => {
            if (change.groundId !== undefined) choose(change.groundId);
            setDraft({ ...draft, ...withUsualTitle(draft, change), ...change });
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
      <AlsoBooked draft={draft} ground={ground} athletes={athletes} />
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
            onSets={(drillSets) =>
              setDraft({
                ...draft,
                drillSets: draft.circuit
                  ? withNewStations(draft.drillSets, drillSets, draft.circuit, club)
                  : drillSets,
              })
            }
            inGroups={draft.circuit !== undefined}
          />
        </FieldsContext>
        {mayPlan && (
          <div className="row-line">
            {pending && (
              <Button onClick={() => addSets([{ kind: 'plan', approachId: pending.id }])}>
                Add {pending.name}
              </Button>
            )}
            <AddSet plans={usable} onAdd={addSets} />
            <Button
              variant="outline-dark"
              aria-expanded={choosing}
              onClick={() => setChoosing(!choosing)}
            >
              Choose for me
            </Button>
            {!draft.circuit && sets.length > 1 && (
              <Button
                variant="outline-dark"
                onClick={() => {
                  const before = draft;
                  setDraft(intoGroups(draft, club, { slotMin: slot?.minutes ?? null, lanes }));
                  tell('Everybody goes round all the sets.', () => setDraft(before));
                }}
              >
                In groups
              </Button>
            )}
          </div>
        )}
        {draft.circuit && (
          <FieldsContext value={form.fields}>
            <Groups
              draft={draft}
              circuit={draft.circuit}
              club={club}
              message={messages['circuit.groups']}
              onDraft={(change) => setDraft({ ...draft, ...change })}
            />
          </FieldsContext>
        )}
        {mayPlan && choosing && (
          <ChooseSets
            date={draft.date}
            presentIds={[...new Set(sets.flatMap((set) => set.athleteIds))]}
            leftMin={slot ? Math.max(0, Math.floor(slot.minutes - figures.totalS / 60)) : USUAL_MIN}
            lanes={lanes}
            ground={here}
            athletes={athletes}
            plans={usable}
            clubMovements={catalogue.documents}
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
