import { compareStepCounts, type NearbyPlan } from '@gravek/core/runup/stepCounts';
import type { StraightFailure, StraightInput, StraightPlan } from '@gravek/core/runup/straightPlan';
import type { LengthStyle } from '@gravek/core/units';
import type { StraightChoices } from '@gravek/contract/approach';
import { offer, whyNot } from '@gravek/library/planning/offers';
import { laneSentence } from '@gravek/library/planning/onGround';
import Button from 'react-bootstrap/Button';

/** The lane is too short for the start mark: by how much, and what would start on it. */
export const BeyondLane = ({
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

/** Why a run-up cannot be run, and what nearby would work. */
export const CannotRun = ({
  failure,
  nearby,
  choices,
  style,
  disabled,
  onOffer,
}: {
  failure: StraightFailure;
  nearby: readonly NearbyPlan[];
  choices: StraightChoices;
  style: LengthStyle;
  disabled: boolean | undefined;
  onOffer: (plan: NearbyPlan) => void;
}) => (
  <div className="note note-wrong my-2" role="alert">
    <strong>That cannot be run.</strong> {whyNot(failure, choices, style)}
    <div className="row-line mt-2">
      {nearby.length > 0 ? 'These work:' : 'No plan nearby works either.'}
      {nearby.map((plan) => (
        <Button
          key={plan.change}
          size="sm"
          variant="outline-dark"
          disabled={disabled}
          onClick={() => onOffer(plan)}
        >
          {offer(plan, style)}
        </Button>
      ))}
    </div>
  </div>
);
