import { otherFoot } from '@gravek/core/feet';
import { spanM } from '@gravek/core/layout/body';
import { runWidthM } from '@gravek/core/layout/ground';
import { straightLayout } from '@gravek/core/layout/straightLayout';
import { currentFigures } from '@gravek/core/measuring/measures';
import { USUAL_BRAKING_MPS2 } from '@gravek/core/runup/closingSpeed';
import { currentModel } from '@gravek/core/runup/currentModel';
import { compareStepCounts } from '@gravek/core/runup/stepCounts';
import { speedParts } from '@gravek/core/units';
import type { StraightChoices } from '@gravek/contract/approach';
import { phasesOn } from '@gravek/library/planning/branches';
import { whatChanges, withOffer } from '@gravek/library/planning/offers';
import { useDeferredValue, useMemo } from 'react';
import { Empty } from '../../controls/Notice';
import { NumberInput } from '../../controls/NumberInput';
import { useStable } from '../../controls/useStable';
import { Beats } from '../../drawing/Beats';
import { FootWord } from '../../drawing/FootPrint';
import { Strip } from '../../drawing/Strip';
import { PlayControls } from '../../hearing/PlayControls';
import { RunThroughs } from '../../parts/measuring/RunThroughs';
import { GroundChoice } from '../../parts/movement/GroundChoice';
import { RungChoice } from '../../parts/movement/PaceChoices';
import { SchoolChoices } from '../../parts/movement/ReadChoices';
import { ThreeLooks } from '../../parts/movement/ThreeLooks';
import { Holds } from '../holds/Holds';
import { Sheet } from '../setOut/Sheet';
import { UnitAndPrint } from '../setOut/UnitAndPrint';
import { Brake, OverBraking } from './Brake';
import { ChoiceFields } from './ChoiceFields';
import { CountTable } from './CountTable';
import type { ChoiceParts } from './parts';
import { PinnedSteps } from './PinnedSteps';
import { BeyondLane, CannotRun } from './RunUpNotes';
import { loggedOf, NO_PINS, useRunUp, useSetting } from './useRunUp';

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
          fullFraction={choices.speedFraction}
          fraction={run.ask.speedFraction ?? 1}
          limit={currentFigures(athlete.readings).stop}
          paceM={spanM({ value: 1, of: 'pace' }, body)}
          style={style}
        />
      )}
      {straight && !straight.feasible && (
        <CannotRun
          failure={straight}
          nearby={nearby}
          choices={choices}
          style={style}
          disabled={disabled}
          onOffer={(plan) => set(withOffer(choices, plan))}
        />
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
