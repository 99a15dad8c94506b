import { otherFoot } from '@gravek/core/feet';
import { spanM } from '@gravek/core/layout/body';
import { runWidthM } from '@gravek/core/layout/ground';
import { straightLayout } from '@gravek/core/layout/straightLayout';
import { currentFigures, runThroughs } from '@gravek/core/measuring/measures';
import type { StraightInput, StraightPlan } from '@gravek/core/runup/solveStraight';
import { USUAL_BRAKING_MPS2 } from '@gravek/core/runup/closingSpeed';
import { compareStepCounts, nearbyPlans, type NearbyPlan } from '@gravek/core/runup/stepCounts';
import { currentModel } from '@gravek/core/runup/stepModel';
import { speedParts, type LengthStyle } from '@gravek/core/units';
import type { Solved, StraightChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import { offer, whatChanges, whyNot, withOffer } from '@gravek/library/planning/offers';
import { laneSentence } from '@gravek/library/planning/onGround';
import { phasesOn, straightAsk } from '@gravek/library/planning/plan';
import { useDeferredValue, useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { NumberInput } from '../../controls/NumberInput';
import { Empty } from '../../controls/Notice';
import { useStable } from '../../controls/useStable';
import { Beats } from '../../drawing/Beats';
import { FootWord } from '../../drawing/FootPrint';
import { Strip } from '../../drawing/Strip';
import { PlayControls } from '../../hearing/PlayControls';
import { RunThroughs } from '../../parts/measuring/RunThroughs';
import { GroundChoice } from '../../parts/movement/GroundChoice';
import { RungChoice } from '../../parts/movement/PaceChoices';
import { ThreeLooks } from '../../parts/movement/ThreeLooks';
import { SchoolChoices } from '../../parts/movement/ReadChoices';
import { Holds } from '../holds/Holds';
import { Sheet } from '../setOut/Sheet';
import { UnitAndPrint } from '../setOut/UnitAndPrint';
import { Brake, OverBraking } from './Brake';
import { ChoiceFields } from './ChoiceFields';
import { CountTable } from './CountTable';
import { around, type PlanDraft } from './draft';
import type { ChoiceParts, PlanParts } from './parts';
import { PinnedSteps } from './PinnedSteps';

const NO_PINS: readonly never[] = [];

type RunUp = {
  ask: StraightInput;
  plan: StraightPlan | null;
  /** what works near an ask that does not */
  nearby: NearbyPlan[];
  /** what is drawn: the plan, or the nearest that works */
  drawn: StraightPlan | null;
};

/** How the athlete's newest run-throughs landed, where there are two and more. */
const loggedOf = ({ readings }: Athlete): { n: number; sdM: number } | null => {
  const newest = readings.find((row) => row.reading.kind === 'run-through')?.reading;
  if (newest?.kind !== 'run-through') return null;
  const { n, sdM } = runThroughs(newest.missesM);
  return sdM === null ? null : { n, sdM };
};

/** The straight run's figures of a plan, and what works nearby where it cannot be run. */
const runUpOf = (
  choices: StraightChoices,
  { body }: Pick<PlanParts, 'body'>,
  solved: Solved | null,
): RunUp | null => {
  if (!solved?.straight) return null;
  const ask = straightAsk(choices, body, body.model);
  const { straight } = solved;
  const nearby = straight.feasible ? [] : nearbyPlans(ask, straight);
  const plan = straight.feasible ? straight : null;
  return { ask, plan, nearby, drawn: plan ?? nearby[0]?.plan ?? null };
};

const useRunUp = (
  choices: StraightChoices,
  { body, solved }: Pick<PlanParts, 'body' | 'solved'>,
): RunUp | null => useMemo(() => runUpOf(choices, { body }, solved), [choices, body, solved]);

/** The draft with some choices changed; the counts that are compared keep up with the count that is chosen. */
const withChoices = (
  draft: PlanDraft,
  choices: StraightChoices,
  asked: Partial<StraightChoices>,
): PlanDraft => {
  // A pin holds for its count only.
  const free = asked.steps !== undefined && asked.steps !== choices.steps ? { pins: [] } : {};
  const next = { ...choices, ...free, ...asked };
  const { steps } = next;
  const inRange =
    asked.steps === undefined || (asked.steps >= draft.from && asked.steps <= draft.to);
  return {
    ...draft,
    choices: next,
    ...(inRange || !Number.isInteger(steps) ? {} : around(Math.min(60, Math.max(1, steps)))),
  };
};

/** How the parts of a run-up change it. */
const useSetting = ({
  draft,
  choices,
  onDraft,
}: Pick<ChoiceParts<StraightChoices>, 'draft' | 'choices' | 'onDraft'>) => {
  const set = (asked: Partial<StraightChoices>, what = Object.keys(asked).join()): void =>
    onDraft(withChoices(draft, choices, asked), what);
  const pin = (step: number, lengthM: number | null): void => {
    const others = choices.pins.filter((pin) => pin.step !== step);
    const pins =
      lengthM === null ? others : [...others, { step, lengthM }].sort((a, b) => a.step - b.step);
    set({ pins }, `pin ${step}`);
  };
  return { set, pin };
};

/** The lane is too short for the start mark: by how much, and what would start on it. */
const BeyondLane = ({
  plan,
  ask,
  ground,
  style,
  disabled,
  onSteps,
}: {
  plan: StraightPlan;
  ask: StraightInput;
  ground: StraightChoices['ground'];
  style: LengthStyle;
  disabled: boolean;
  onSteps: (steps: number) => void;
}) => {
  const sentence = laneSentence(plan.distanceM, ground, style);
  if (!sentence || !ground?.laneM) return null;
  const { recommended } = compareStepCounts(
    { ...ask, distanceM: undefined },
    1,
    plan.steps.length,
    ground.laneM,
  );
  return (
    <div className="note note-wrong my-2" role="alert">
      {sentence}{' '}
      {recommended !== null && (
        <Button
          size="sm"
          variant="outline-dark"
          disabled={disabled}
          onClick={() => onSteps(recommended)}
        >
          {recommended} steps fit
        </Button>
      )}
    </div>
  );
};

/** The strip to scale with its rhythm, or why there is none and what would work. */
export const RunUpDrawing = (parts: ChoiceParts<StraightChoices>) => {
  const { draft, choices, athlete, body, player, style, zoom, disabled, messages } = parts;
  const run = useRunUp(choices, parts);
  const { set, pin } = useSetting(parts);
  const onPin = useStable(pin);
  const { plan = null, drawn = null, nearby = [] } = run ?? {};
  const { target, ground } = choices;
  const layout = useMemo(
    () =>
      drawn &&
      straightLayout(drawn, { target, widthM: runWidthM(body), lines: ground?.marks ?? [] }),
    [drawn, target, body, ground],
  );
  const pinned = useMemo(
    () => new Set(drawn?.steps.flatMap((step) => (step.pinned ? [step.n] : []))),
    [drawn],
  );
  const { straight } = parts.solved ?? {};
  return (
    <>
      {run && plan?.brake && (
        <Brake
          brake={plan.brake}
          asked={choices.speedFraction}
          fraction={run.ask.speedFraction ?? 1}
          limit={currentFigures(athlete.readings).stop}
          paceM={spanM({ value: 1, of: 'pace' }, body)}
          style={style}
        />
      )}
      {straight && !straight.feasible && (
        <div className="note note-wrong my-2" role="alert">
          <strong>That cannot be run.</strong> {whyNot(straight, choices, style)}
          <div className="row-line mt-2">
            {nearby.length > 0 ? 'These work:' : 'No plan nearby works either.'}
            {nearby.map((plan) => (
              <Button
                key={plan.change}
                size="sm"
                variant="outline-dark"
                disabled={disabled}
                onClick={() => set(withOffer(choices, plan))}
              >
                {offer(plan, style)}
              </Button>
            ))}
          </div>
        </div>
      )}
      {plan && run && (
        <BeyondLane
          plan={plan}
          ask={run.ask}
          ground={choices.ground}
          style={style}
          disabled={disabled}
          onSteps={(steps) => set({ steps, distanceM: null })}
        />
      )}
      {drawn && layout ? (
        <div style={plan ? undefined : { opacity: 0.4 }}>
          <Strip
            layout={layout}
            pinned={pinned}
            style={style}
            shoeM={athlete.shoeM ?? 0.28}
            laneM={choices.ground?.laneM}
            zoom={zoom}
            player={plan ? player : undefined}
            onPin={!disabled && plan ? onPin : undefined}
          />
          <Beats
            contacts={drawn.steps.map(({ timeS, foot, role }) => ({
              timeS,
              foot,
              special: role !== 'build',
            }))}
            totalTimeS={drawn.totalTimeS}
            cadences={drawn.steps.map((step) => step.cadenceSpm)}
            player={plan ? player : undefined}
          />
          {plan && (
            <PlayControls
              player={player}
              name={draft.name}
              nameAt={(timeS) => {
                const step = plan.steps.findLast((step) => step.timeS <= timeS + 1e-9);
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
    </>
  );
};

/** Below the strip: what is chosen, step counts side by side, the sheet, every step, how well it holds. */
export const RunUpPanels = (parts: ChoiceParts<StraightChoices>) => {
  const { draft, choices, athlete, body, style, disabled, messages, onDraft, onMessage } = parts;
  const run = useRunUp(choices, parts);
  const { set, pin } = useSetting(parts);
  // While a print is dragged the strip keeps up with the hand; what stands below it may come later.
  const shown = useDeferredValue(run);
  const shownPlan = shown?.plan ?? null;
  const laneM = choices.ground?.laneM ?? undefined;
  const comparison = useMemo(
    () =>
      shown && draft.to >= draft.from
        ? compareStepCounts(shown.ask, draft.from, draft.to, laneM)
        : null,
    [shown, draft.from, draft.to, laneM],
  );
  const counts = useMemo(() => ({ from: draft.from, to: draft.to }), [draft.from, draft.to]);
  const current = useMemo(() => currentModel(athlete), [athlete]);
  const logged = useMemo(() => loggedOf(athlete), [athlete]);
  const onPin = useStable(pin);
  const onUnpinAll = useStable(() => set({ pins: [] }));
  const onSteps = useStable((steps: number) => !disabled && set({ steps }));
  const onMove = useStable((byM: number) => {
    if (run?.plan) set({ distanceM: Number((run.plan.distanceM + byM).toFixed(3)) });
  });
  const { target } = choices;
  const { plan = null } = run ?? {};
  const { straight } = parts.solved ?? {};
  const count = (side: 'from' | 'to') => (
    <NumberInput
      aria-label={`Compare ${side}`}
      width="3.2rem"
      decimals={0}
      value={draft[side]}
      onNumber={(value) =>
        onDraft({ ...draft, [side]: Math.min(60, Math.max(1, Math.round(value))) }, side)
      }
      onMessage={() => undefined}
    />
  );
  return (
    <>
      <div className="planner-columns">
        <section aria-label="The plan" className="no-print">
          <h2>The plan</h2>
          <ChoiceFields
            choices={choices}
            style={style}
            naturalM={straight ? (straight.minDistanceM + straight.maxDistanceM) / 2 : null}
            messages={messages}
            onChoices={set}
            onMessage={onMessage}
            disabled={disabled}
          />
          <div className="stack mt-2">
            <SchoolChoices
              movement={parts.movement}
              chosen={choices.schools ?? {}}
              disabled={disabled}
              onChoose={(schools) => set({ schools })}
            />
            <RungChoice rung={choices.rung} disabled={disabled} onRung={(rung) => set({ rung })} />
            <GroundChoice
              ground={choices.ground}
              disabled={disabled}
              onGround={(ground) => set({ ground })}
            />
          </div>
        </section>
        <section aria-label="Step counts compared" className="no-print">
          <div className="row-line mb-1">
            <h2 className="mb-0">Step counts compared</h2>
            <span className="ms-auto row-line small-text quiet" style={{ gap: 6 }}>
              from
              {count('from')}
              to
              {count('to')}
            </span>
          </div>
          {comparison && comparison.choices.length > 0 ? (
            <CountTable
              comparison={comparison}
              chosen={choices.steps}
              free={choices.distanceM === null}
              tolerance={choices.tolerance}
              laneM={laneM}
              style={style}
              onSteps={onSteps}
            />
          ) : (
            <p className="quiet">Choose a range of counts that leaves room for the ending.</p>
          )}
          {shown && shownPlan && (
            <OverBraking
              plan={shownPlan}
              ask={shown.ask}
              choices={choices}
              limitMps2={body.brakeMps2 ?? USUAL_BRAKING_MPS2}
              isMeasured={body.brakeMps2 !== undefined}
              style={style}
              disabled={disabled}
              onMend={set}
            />
          )}
          {shownPlan && <div className="note mt-3">{whatChanges(shownPlan, style)}</div>}
        </section>
        <div className="stack">
          {shownPlan ? (
            <Sheet
              plan={shownPlan}
              style={style}
              target={target}
              ground={choices.ground}
              title={[draft.name, athlete.name, choices.ground?.name].filter(Boolean).join(', ')}
            />
          ) : (
            <Empty title="No sheet yet.">It follows as soon as the plan can be run.</Empty>
          )}
          <ThreeLooks
            movement={parts.movement}
            path={phasesOn(parts.movement, { schools: choices.schools ?? {} })}
          />
          <UnitAndPrint athlete={athlete} unit={style.unit} onLeave={parts.onLeave} />
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
      {shown?.drawn && (
        <div className="stack mt-3 no-print">
          {shown.drawn.steps.length === shown.ask.steps && (
            <PinnedSteps
              plan={shown.drawn}
              pins={shown.ask.pins ?? NO_PINS}
              style={style}
              onPin={disabled ? undefined : onPin}
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
                logged={logged}
                target={target}
                style={style}
              />
              <RunThroughs
                athlete={athlete}
                target={target}
                style={style}
                onMove={disabled ? undefined : onMove}
              />
            </div>
          )}
        </div>
      )}
    </>
  );
};
