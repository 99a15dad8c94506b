import { spanM } from '@gravek/core/layout/body';
import { runWidthM } from '@gravek/core/layout/ground';
import { straightLayout } from '@gravek/core/layout/straightLayout';
import { currentFigures } from '@gravek/core/measuring/measures';
import { compareStepCounts } from '@gravek/core/runup/stepCounts';
import type { StraightInput, StraightPlan } from '@gravek/core/runup/straightPlan';
import type { LengthStyle } from '@gravek/core/units';
import type { StraightChoices } from '@gravek/contract/approach';
import { offer, whyNot, withOffer } from '@gravek/library/planning/offers';
import { laneSentence } from '@gravek/library/planning/onGround';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { useStable } from '../../controls/useStable';
import { Beats } from '../../drawing/Beats';
import { Strip } from '../../drawing/Strip';
import { PlayControls } from '../../hearing/PlayControls';
import { Brake } from './Brake';
import type { ChoiceParts } from './parts';
import { useRunUp, useSetting } from './useRunUp';

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
          fullFraction={choices.speedFraction}
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
