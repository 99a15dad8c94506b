import {
  compareStepCounts,
  currentModel,
  nearbyPlans,
  otherFoot,
  solveStraight,
  speedParts,
  type NearbyPlan,
  type StraightInput,
  type StraightResult,
} from '@gravek/core';
import { straightAsk, type Approach, type Athlete, type StraightChoices } from '@gravek/contract';
import { barredBy, movementOf } from '@gravek/library';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, fieldsOf } from '../api/client';
import { useApproaches, useAthletes, useWrite } from '../api/queries';
import { usePutAway } from '../api/usePutAway';
import { useLengthStyle, useMayPlan, useMember } from '../app/member';
import { UNIT_NAMES, UNITS, useSettings } from '../app/settings';
import { RESTRICTION_NAMES } from '../athletes/restrictions';
import { Conflict, DraftBack, useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { unread } from '../controls/form';
import { Figure, Labelled, Length, Speed } from '../controls/Figure';
import { Empty, Loaded } from '../controls/Notice';
import { NumberInput } from '../controls/NumberInput';
import { tell } from '../controls/toasts';
import { Beats } from '../drawing/Beats';
import { FootWord } from '../drawing/FootPrint';
import { Strip } from '../drawing/Strip';
import { ChoiceFields } from './ChoiceFields';
import { CountTable } from './CountTable';
import { around, choiceMessages, draftOf, newDraft, type PlanDraft } from './draft';
import { offer, whatChanges, whyNot, withOffer } from './explain';
import { Sheet } from './Sheet';
import { AddToSession } from './AddToSession';
import { Brake } from './Brake';

type Solved = {
  ask: StraightInput;
  result: StraightResult;
  /** what works near an ask that does not */
  nearby: NearbyPlan[];
};

const solve = (choices: StraightChoices, athlete: Athlete): Solved | null => {
  if (Object.keys(choiceMessages(choices)).length > 0) return null;
  const { model } = currentModel(athlete);
  const ask = straightAsk(choices, { takeoffFoot: athlete.takeoffFoot }, model);
  const result = solveStraight(ask);
  return { ask, result, nearby: result.feasible ? [] : nearbyPlans(ask, result) };
};

const Editor = ({
  saved,
  athletes,
  first,
}: {
  saved: Approach | null;
  athletes: Athlete[];
  first: Athlete | undefined;
}) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const navigate = useNavigate();
  const setUnit = useSettings((settings) => settings.setUnit);
  const [draft, setDraft, discard, found] = useDraft<PlanDraft>(
    `approach.${saved?.id ?? 'new'}`,
    saved ? draftOf(saved) : newDraft(first),
  );
  const [athleteId, setAthleteId] = useState(first?.id ?? draft.athleteIds[0] ?? athletes[0]!.id);
  const athlete = athletes.find((one) => one.id === athleteId) ?? athletes[0]!;
  const style = useLengthStyle(athlete.shoeM);
  const [typed, setTyped] = useState<Record<string, string | null>>({});
  const [served, setServed] = useState<Record<string, string>>({});
  const conflict = useConflict<Approach>(
    (theirs) => discard(draftOf(theirs)),
    (version) => setDraft({ ...draft, version }),
  );
  const save = useWrite(
    (body: object) =>
      draft.version === null
        ? api.post<Approach>('/approaches', { ...body, id: draft.id })
        : api.put<Approach>(`/approaches/${draft.id}`, { ...body, version: draft.version }),
    'approaches',
    'reps',
  );

  const { choices } = draft;
  const solved = useMemo(() => solve(choices, athlete), [choices, athlete]);
  const comparison = useMemo(() => {
    if (!solved) return null;
    const { steps: _steps, checkMarks: _marks, ...ask } = solved.ask;
    return draft.to >= draft.from ? compareStepCounts(ask, draft.from, draft.to) : null;
  }, [solved, draft.from, draft.to]);
  const { source } = currentModel(athlete);
  const barred = barredBy(movementOf('straight-run-up'), athlete.restrictions, today);

  const setChoices = (change: Partial<StraightChoices>): void => {
    const next = { ...choices, ...change };
    const inRange =
      change.steps === undefined || (change.steps >= draft.from && change.steps <= draft.to);
    setDraft({
      ...draft,
      choices: next,
      ...(inRange || !Number.isInteger(next.steps)
        ? {}
        : around(Math.min(60, Math.max(1, next.steps)))),
    });
  };
  const messages = { ...served, ...choiceMessages(choices), ...unread(typed) };
  const plan = solved?.result.feasible ? solved.result : null;
  const drawn = plan ?? solved?.nearby[0]?.plan ?? null;
  const changedElsewhere =
    conflict.shown.problem === null &&
    saved !== null &&
    draft.version !== null &&
    saved.version > draft.version;

  const submit = async (): Promise<void> => {
    conflict.clear();
    setServed({});
    if (Object.values(typed).some(Boolean) || Object.keys(choiceMessages(choices)).length > 0) {
      conflict.say('Mend the fields that are marked, then save.');
      return;
    }
    const athleteIds = draft.athleteIds.includes(athlete.id)
      ? draft.athleteIds
      : [...draft.athleteIds, athlete.id];
    try {
      const stored = await save.mutateAsync({
        name: draft.name,
        movement: 'straight-run-up',
        choices,
        athleteIds,
      });
      discard(draftOf(stored));
      tell(
        `${stored.name} is saved, solved for ${stored.solved.length === 1 ? 'one athlete' : `${stored.solved.length} athletes`}.`,
      );
      if (!saved)
        void navigate(`/approaches/${stored.id}?athlete=${athlete.id}`, { replace: true });
    } catch (error) {
      conflict.show(error);
      setServed(
        Object.fromEntries(
          Object.entries(fieldsOf(error)).map(([path, text]) => [
            path.replace('choices.', ''),
            text,
          ]),
        ),
      );
    }
  };

  const putAway = usePutAway('approaches');
  const leave = async (): Promise<void> => {
    if (await putAway(`/approaches/${draft.id}`, `${draft.name} is put away.`))
      void navigate('/approaches');
  };

  const onPlan = athletes.filter((one) => draft.athleteIds.includes(one.id));
  const others = athletes.filter((one) => !draft.athleteIds.includes(one.id) && !one.archived);
  const target = choices.target;
  return (
    <>
      <header className="planner-head">
        <div className="planner-title">
          <Form.Control
            aria-label="Name of the approach"
            className="plan-name"
            value={draft.name}
            disabled={!mayPlan}
            onChange={(event) => setDraft({ ...draft, name: event.target.value })}
          />
          {served.name && <div className="field-message">{served.name}</div>}
          <Form.Select
            aria-label="Athlete"
            className="plan-athlete"
            value={athlete.id}
            onChange={(event) => setAthleteId(event.target.value)}
          >
            {onPlan.length > 0 && (
              <optgroup label="On this approach">
                {onPlan.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </optgroup>
            )}
            <optgroup label="Others">
              {others.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </optgroup>
          </Form.Select>
        </div>
        {plan && (
          <>
            <Labelled label="Start mark">
              <Length m={plan.distanceM} style={style} big />
            </Labelled>
            <Labelled label="Steps">
              <Figure parts={[{ figure: String(plan.steps.length), unit: '' }]} big />
            </Labelled>
            <Labelled label="First foot">
              <span className="figure figure-big">{plan.startFoot}</span>
            </Labelled>
            <Labelled label={`On the ${target}`}>
              <span className="figure figure-big">{plan.steps.at(-1)!.foot}</span>
            </Labelled>
            <Labelled label={`Speed at the ${target}`}>
              <Speed mps={plan.endSpeedMps} unit={style.unit} big />
            </Labelled>
          </>
        )}
        <div className="page-acts ms-auto d-flex gap-2 no-print">
          {saved && <AddToSession approachId={saved.id} athleteId={athlete.id} />}
          {mayPlan && (
            <Button disabled={save.isPending} onClick={() => void submit()}>
              {save.isPending ? 'Saving …' : 'Save'}
            </Button>
          )}
        </div>
      </header>

      <div className="stack mb-2" style={{ gap: 8 }}>
        <Conflict {...conflict.shown} />
        {changedElsewhere && (
          <div className="note" role="status">
            Somebody has saved this approach since you opened it.{' '}
            <Button size="sm" variant="outline-dark" onClick={() => discard(draftOf(saved))}>
              Show theirs
            </Button>
          </div>
        )}
        {found && !changedElsewhere && mayPlan && (
          <DraftBack onDrop={() => discard(saved ? draftOf(saved) : newDraft(first))} />
        )}
        {source === 'estimate' && (
          <div className="note">
            <span className="tag tag-estimate">estimate</span> {athlete.name} was never measured;
            steps are taken from {athlete.heightM ? 'body height' : 'a usual height'}.{' '}
            <Link to={`/athletes/${athlete.id}`}>Measure a run</Link> before setting out to the
            centimetre.
          </div>
        )}
        {barred && (
          <div className="note note-wrong">
            {athlete.name} is restricted until {barred.until} ({RESTRICTION_NAMES[barred.kind]});
            sessions will not let this run.
          </div>
        )}
      </div>

      <div className="strip-panel">
        {solved && !solved.result.feasible && (
          <div className="note note-wrong my-2" role="alert">
            <strong>That cannot be run.</strong> {whyNot(solved.result, choices, style)}
            <div className="row-line mt-2">
              {solved.nearby.length > 0 ? 'These work:' : 'No plan nearby works either.'}
              {solved.nearby.map((nearby) => (
                <Button
                  key={nearby.change}
                  size="sm"
                  variant="outline-dark"
                  disabled={!mayPlan}
                  onClick={() => setChoices(withOffer(choices, nearby))}
                >
                  {offer(nearby, style)}
                </Button>
              ))}
            </div>
          </div>
        )}
        {drawn ? (
          <div style={plan ? undefined : { opacity: 0.4 }}>
            <Strip plan={drawn} style={style} shoeM={athlete.shoeM ?? 0.28} target={target} />
            <Beats plan={drawn} />
          </div>
        ) : (
          <div className="empty" role="status">
            <strong>Nothing to draw yet.</strong>
            {Object.values(messages).find(Boolean) ??
              'Mend the fields below and the run-up is drawn.'}
          </div>
        )}
      </div>

      <div className="planner-columns">
        <section aria-label="The plan" className="no-print">
          <h2>The plan</h2>
          <ChoiceFields
            choices={choices}
            style={style}
            naturalM={solved ? (solved.result.minDistanceM + solved.result.maxDistanceM) / 2 : null}
            messages={messages}
            onChoices={setChoices}
            onMessage={(field, message) => setTyped((before) => ({ ...before, [field]: message }))}
            disabled={!mayPlan}
          />
        </section>
        <section aria-label="Step counts compared" className="no-print">
          <div className="row-line mb-1">
            <h2 className="mb-0">Step counts compared</h2>
            <span className="ms-auto row-line small-text quiet" style={{ gap: 6 }}>
              from
              <NumberInput
                aria-label="Compare from"
                width="3.2rem"
                decimals={0}
                value={draft.from}
                onNumber={(from) =>
                  setDraft({ ...draft, from: Math.min(60, Math.max(1, Math.round(from))) })
                }
                onMessage={() => undefined}
              />
              to
              <NumberInput
                aria-label="Compare to"
                width="3.2rem"
                decimals={0}
                value={draft.to}
                onNumber={(to) =>
                  setDraft({ ...draft, to: Math.min(60, Math.max(1, Math.round(to))) })
                }
                onMessage={() => undefined}
              />
            </span>
          </div>
          {comparison && comparison.choices.length > 0 ? (
            <CountTable
              comparison={comparison}
              chosen={choices.steps}
              free={choices.distanceM === null}
              tolerance={choices.tolerance}
              style={style}
              onSteps={(steps) => mayPlan && setChoices({ steps })}
            />
          ) : (
            <p className="quiet">Choose a range of counts that leaves room for the ending.</p>
          )}
          {plan && <div className="note mt-3">{whatChanges(plan, style)}</div>}
          {solved && plan?.brake && (
            <div className="mt-2">
              <Brake ask={solved.ask} onChoices={setChoices} />
            </div>
          )}
        </section>
        <div className="stack">
          {plan ? (
            <Sheet plan={plan} style={style} target={target} />
          ) : (
            <Empty title="No sheet yet.">It follows as soon as the plan can be run.</Empty>
          )}
          <div className="row-line no-print">
            <Form.Select
              aria-label="Write lengths in"
              style={{ width: 'auto' }}
              value={style.unit}
              onChange={(event) => setUnit(event.target.value as (typeof UNITS)[number])}
            >
              {UNITS.map((unit) => (
                <option key={unit} value={unit} disabled={unit === 'shoes' && !athlete.shoeM}>
                  {UNIT_NAMES[unit]}
                </option>
              ))}
            </Form.Select>
            <Button variant="outline-dark" onClick={() => window.print()}>
              Print
            </Button>
            {saved && mayPlan && (
              <Button variant="link" onClick={() => void leave()}>
                Put away
              </Button>
            )}
          </div>
          {plan && (
            <p className="small-text quiet mb-0">
              {plan.totalTimeS.toFixed(1)} s from the first push to the {target},{' '}
              {speedParts(plan.endSpeedMps, style.unit).figure}{' '}
              {speedParts(plan.endSpeedMps, style.unit).unit} on the last step. Mirrored, the{' '}
              <FootWord foot={otherFoot(plan.startFoot)} /> foot goes first.
            </p>
          )}
        </div>
      </div>
    </>
  );
};

export const Planner = () => {
  const { id = 'new' } = useParams();
  const [query] = useSearchParams();
  const athletes = useAthletes();
  const approaches = useApproaches();
  return (
    <Loaded query={athletes} what="Getting the athletes …">
      {(people) => (
        <Loaded query={approaches} what="Getting the approaches …">
          {(list) => {
            const saved = list.find((one) => one.id === id) ?? null;
            if (people.every((one) => one.archived)) {
              return (
                <Empty title="A plan needs an athlete.">
                  <Link className="btn btn-primary" to="/athletes">
                    Add an athlete
                  </Link>
                </Empty>
              );
            }
            if (id !== 'new' && !saved) {
              return (
                <Empty title="This approach is not there any more.">
                  <Link className="btn btn-primary" to="/approaches">
                    All approaches
                  </Link>
                </Empty>
              );
            }
            const wanted = query.get('athlete');
            const first =
              people.find((one) => one.id === wanted) ??
              people.find((one) => saved?.athleteIds.includes(one.id)) ??
              people.find((one) => !one.archived);
            return (
              <Editor key={`${id}/${wanted ?? ''}`} saved={saved} athletes={people} first={first} />
            );
          }}
        </Loaded>
      )}
    </Loaded>
  );
};
