import {
  compareStepCounts,
  currentFigures,
  currentModel,
  nearbyPlans,
  otherFoot,
  solveStraight,
  speedParts,
  type NearbyPlan,
  type StraightInput,
  type StraightResult,
} from '@gravek/core';
import {
  straightAsk,
  type Approach,
  type Athlete,
  type Movement,
  type StraightChoices,
} from '@gravek/contract';
import { useDeferredValue, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useLengthStyle, useMayPlan } from '../app/member';
import { unread } from '../controls/form';
import { Figure, Labelled, Length, Speed } from '../controls/Figure';
import { Empty } from '../controls/Notice';
import { NumberInput } from '../controls/NumberInput';
import { UndoRedo } from '../controls/UndoRedo';
import { useStable } from '../controls/useStable';
import { Zoom } from '../controls/Zoom';
import { Beats } from '../drawing/Beats';
import { FootWord } from '../drawing/FootPrint';
import { Strip } from '../drawing/Strip';
import { beatsOfPlan } from '../hearing/beats';
import { PlayControls } from '../hearing/PlayControls';
import { usePlayer } from '../hearing/player';
import { RunThroughs } from '../measuring/RunThroughs';
import { Brake } from './Brake';
import { ChoiceFields } from './ChoiceFields';
import { CountTable } from './CountTable';
import { around, choiceMessages, newStrip, stripOf, type StripDraft } from './draft';
import { offer, whatChanges, whyNot, withOffer } from './explain';
import { Holds } from './Holds';
import { OutOfDate, outdatedOf } from './OutOfDate';
import { PlanHead, PlanNotes } from './PlanHead';
import { Sheet } from './Sheet';
import { StepTable } from './StepTable';
import { UnitAndPrint } from './UnitAndPrint';
import { usePlan } from './usePlan';

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

const NO_PINS: readonly never[] = [];

/** A run-up to a target, planned on the strip. */
export const StripPlanner = ({
  movement,
  saved,
  start,
  athletes,
  first,
}: {
  movement: Movement;
  saved: Approach | null;
  /** what a new plan begins with */
  start: StraightChoices;
  athletes: Athlete[];
  first: Athlete | undefined;
}) => {
  const mayPlan = useMayPlan();
  const work = usePlan<StripDraft>(saved, newStrip(movement, start, first), stripOf);
  const { draft, change, served } = work;
  const [athleteId, setAthleteId] = useState(first?.id ?? draft.athleteIds[0] ?? athletes[0]!.id);
  const athlete = athletes.find((one) => one.id === athleteId) ?? athletes[0]!;
  const style = useLengthStyle(athlete.shoeM);
  const [typed, setTyped] = useState<Record<string, string | null>>({});

  const { choices } = draft;
  const solved = useMemo(() => solve(choices, athlete), [choices, athlete]);
  // While a print is dragged the strip keeps up with the hand; what stands below it may come later.
  const shown = useDeferredValue(solved);
  const shownPlan = shown?.result.feasible ? shown.result : null;
  const shownDrawn = shownPlan ?? shown?.nearby[0]?.plan ?? null;
  const comparison = useMemo(() => {
    if (!shown) return null;
    const { steps: _steps, checkMarks: _marks, pins: _pins, ...ask } = shown.ask;
    return draft.to >= draft.from ? compareStepCounts(ask, draft.from, draft.to) : null;
  }, [shown, draft.from, draft.to]);
  const counts = useMemo(() => ({ from: draft.from, to: draft.to }), [draft.from, draft.to]);
  const current = useMemo(() => currentModel(athlete), [athlete]);
  const { source } = current;
  const figures = useMemo(() => currentFigures(athlete.readings), [athlete]);

  const setChoices = (asked: Partial<StraightChoices>, what = Object.keys(asked).join()): void => {
    // A pin holds for its count only.
    const free = asked.steps !== undefined && asked.steps !== choices.steps ? { pins: [] } : {};
    const next = { ...choices, ...free, ...asked };
    const inRange =
      asked.steps === undefined || (asked.steps >= draft.from && asked.steps <= draft.to);
    change(
      {
        ...draft,
        choices: next,
        ...(inRange || !Number.isInteger(next.steps)
          ? {}
          : around(Math.min(60, Math.max(1, next.steps)))),
      },
      what,
    );
  };
  const pin = (step: number, lengthM: number | null): void => {
    const others = choices.pins.filter((one) => one.step !== step);
    setChoices(
      {
        pins:
          lengthM === null
            ? others
            : [...others, { step, lengthM }].sort((a, b) => a.step - b.step),
      },
      `pin ${step}`,
    );
  };
  const messages = { ...served, ...choiceMessages(choices), ...unread(typed) };
  const plan = solved?.result.feasible ? solved.result : null;
  const drawn = plan ?? solved?.nearby[0]?.plan ?? null;
  const wrong = (): boolean =>
    Object.values(typed).some(Boolean) || Object.keys(choiceMessages(choices)).length > 0;
  const onPin = useStable(pin);
  const onUnpinAll = useStable(() => setChoices({ pins: [] }));
  const onSteps = useStable((steps: number) => mayPlan && setChoices({ steps }));
  const onMove = useStable((byM: number) => {
    if (plan) setChoices({ distanceM: Number((plan.distanceM + byM).toFixed(3)) });
  });
  const target = choices.target;
  const beats = useMemo(() => (plan ? beatsOfPlan(plan) : []), [plan]);
  const player = usePlayer(beats, plan?.totalTimeS ?? 0);
  const [zoom, setZoom] = useState(1);
  const outdated = outdatedOf(saved, athlete.id, current.model);
  return (
    <>
      <PlanHead
        plan={{ ...work, rename: (name) => change({ ...draft, name }, 'name') }}
        athlete={athlete}
        athletes={athletes}
        saved={saved !== null}
        onAthlete={setAthleteId}
        onSave={() => void work.save(athlete.id, wrong())}
      >
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
      </PlanHead>
      <PlanNotes
        plan={work}
        athlete={athlete}
        movement={movement}
        estimated={
          source === 'estimate'
            ? `${athlete.name} was never measured; steps are taken from ${athlete.heightM ? 'body height' : 'a usual height'}.`
            : null
        }
      />

      {outdated && (
        <OutOfDate
          stored={outdated}
          nowM={plan?.distanceM ?? null}
          target={target}
          style={style}
          onSolve={mayPlan ? () => void work.save(athlete.id, wrong()) : undefined}
        />
      )}

      <div className="strip-panel">
        <div className="row-line no-print strip-tools">
          <UndoRedo {...work.history} />
          <Zoom zoom={zoom} onZoom={setZoom} />
          {saved && (
            <Link
              className="btn btn-outline-dark btn-sm ms-auto"
              to={`/approaches/${saved.id}/squad`}
            >
              Squad sheet
            </Link>
          )}
        </div>
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
            <Strip
              plan={drawn}
              style={style}
              shoeM={athlete.shoeM ?? 0.28}
              target={target}
              zoom={zoom}
              player={plan ? player : undefined}
              onPin={mayPlan && plan ? onPin : undefined}
            />
            {plan ? <Beats plan={plan} player={player} /> : <Beats plan={drawn} />}
            {plan && (
              <PlayControls
                player={player}
                name={draft.name}
                nameAt={(timeS) => {
                  const step = plan.steps.findLast((one) => one.timeS <= timeS + 1e-9);
                  return step ? `step ${step.n}, ${step.foot}` : 'start';
                }}
              />
            )}
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
                  change({ ...draft, from: Math.min(60, Math.max(1, Math.round(from))) }, 'from')
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
                  change({ ...draft, to: Math.min(60, Math.max(1, Math.round(to))) }, 'to')
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
              onSteps={onSteps}
            />
          ) : (
            <p className="quiet">Choose a range of counts that leaves room for the ending.</p>
          )}
          {shownPlan && <div className="note mt-3">{whatChanges(shownPlan, style)}</div>}
          {solved && plan?.brake && (
            <div className="mt-2">
              <Brake ask={solved.ask} limit={figures.stop} onChoices={setChoices} />
            </div>
          )}
        </section>
        <div className="stack">
          {shownPlan ? (
            <Sheet
              plan={shownPlan}
              style={style}
              target={target}
              title={`${draft.name}, ${athlete.name}`}
            />
          ) : (
            <Empty title="No sheet yet.">It follows as soon as the plan can be run.</Empty>
          )}
          <UnitAndPrint
            athlete={athlete}
            unit={style.unit}
            onLeave={saved && mayPlan ? () => void work.leave() : undefined}
          />
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
      {shownDrawn && shown && (
        <div className="stack mt-3 no-print">
          {shownDrawn.steps.length === shown.ask.steps && (
            <StepTable
              plan={shownDrawn}
              pins={shown.ask.pins ?? NO_PINS}
              style={style}
              onPin={mayPlan ? onPin : undefined}
              onUnpinAll={onUnpinAll}
            />
          )}
          {shownPlan && (
            <div className="columns">
              <Holds
                plan={shownPlan}
                ask={shown.ask}
                counts={counts}
                current={current}
                target={target}
                style={style}
              />
              <RunThroughs
                athlete={athlete}
                target={target}
                style={style}
                onMove={mayPlan ? onMove : undefined}
              />
            </div>
          )}
        </div>
      )}
    </>
  );
};
