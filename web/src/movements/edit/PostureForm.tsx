import { BODY_FIGURE_NAMES, BODY_FIGURE_UNITS, BODY_FIGURES } from '@gravek/core/body/bodyFigures';
import { type ArmPose, figureOf, type Pose } from '@gravek/core/body/posture';
import {
  type Posture,
  POSTURE_LOOKS,
  POSTURE_MOMENTS,
  type PostureMoment,
} from '@gravek/core/body/keyframes';
import type { Checkpoint } from '@gravek/contract/movement';
import { LOOK_NAMES } from '../../drawing/BodyFigure';
import { SideStill } from '../../drawing/BodySheet';
import { ChoiceAt, FlagAt, LengthAt, NumberAt } from '../../parts/fields/At';
import { useAt } from '../../parts/fields/fields';
import { MaybeAt, PicksAt } from '../../parts/fields/PicksAt';
import { useWork } from './work';

const MOMENTS: Record<PostureMoment, string> = {
  contact: 'as the foot lands',
  last: 'by the last contact',
  push: 'while pushing off',
};

/** What the drawn body must show of a checkpoint, so that words and drawing cannot part. */
export const DrawnAt = ({ at }: { at: string }) => {
  const { value: drawn } = useAt<Checkpoint['drawn']>(at);
  const unit = drawn ? BODY_FIGURE_UNITS[drawn.figure] : '°';
  return (
    <MaybeAt
      at={at}
      label="The drawn body must show it"
      fresh={(): Checkpoint['drawn'] => ({ figure: 'trunk', of: 'contact', from: 0, to: 30 })}
    >
      <ChoiceAt
        at={`${at}.figure`}
        label="What is read off it"
        options={BODY_FIGURES.map((figure) => [figure, BODY_FIGURE_NAMES[figure]] as const)}
      />
      <ChoiceAt
        at={`${at}.of`}
        label="When"
        options={POSTURE_MOMENTS.map((moment) => [moment, MOMENTS[moment]] as const)}
      />
      <NumberAt at={`${at}.from`} label="At the least" unit={unit} />
      <NumberAt at={`${at}.to`} label="At the most" unit={unit} />
    </MaybeAt>
  );
};

const STANDING: Pose = {
  trunkDeg: 20,
  stance: { thighDeg: 30, shinDeg: 15, ankleDeg: 94 },
  free: { thighDeg: 30, shinDeg: 15, ankleDeg: 94 },
};

export const freshPosture = (): Posture => ({
  looks: ['trunk', 'knee'],
  contact: STANDING,
  last: null,
  push: null,
});

/** At the height of the eyes, elbows over the feet. */
const HANDS_UP: ArmPose = { raiseDeg: 40, elbowDeg: 50, asideDeg: 20 };

const LEGS = [
  ['stance', 'The leg it stands on'],
  ['free', 'The other leg'],
] as const;

const ARMS = [
  ['stance', 'The arm on the side of that leg'],
  ['free', 'The other arm'],
] as const;

/** How the body is held at one moment: its figures, and the figure that they make. */
const PoseAt = ({ at }: { at: string }) => {
  const { body } = useWork();
  const { value: pose } = useAt<Pose>(at);
  const { value: posture } = useAt<Posture>(at.replace(/\.\w+$/, ''));
  return (
    <div className="span-12 pose-columns">
      <SideStill
        figure={figureOf(pose, body, posture.liftM, posture.boxM)}
        looks={posture.looks}
        body={body}
        wall={posture.wall}
        boxM={posture.boxM}
      />
      <div className="edit-grid">
        <NumberAt at={`${at}.trunkDeg`} label="Trunk, from upright" unit="°" decimals={0} />
        <NumberAt at={`${at}.archDeg`} label="Back, arched by" unit="°" decimals={0} />
        {LEGS.map(([leg, name]) => (
          <fieldset key={leg} className="edit-group span-12">
            <legend>{name}</legend>
            <div className="edit-grid">
              <NumberAt at={`${at}.${leg}.thighDeg`} label="Thigh, forward" unit="°" decimals={0} />
              <NumberAt at={`${at}.${leg}.shinDeg`} label="Shin, leaning" unit="°" decimals={0} />
              <NumberAt at={`${at}.${leg}.ankleDeg`} label="Ankle, inside" unit="°" decimals={0} />
            </div>
          </fieldset>
        ))}
        <MaybeAt
          at={`${at}.arms`}
          label="The arms are coached"
          fresh={() => ({ stance: HANDS_UP, free: HANDS_UP })}
        >
          {ARMS.map(([arm, name]) => (
            <fieldset key={arm} className="edit-group span-12">
              <legend>{name}</legend>
              <div className="edit-grid">
                <NumberAt
                  at={`${at}.arms.${arm}.raiseDeg`}
                  label="Upper arm, raised"
                  unit="°"
                  decimals={0}
                />
                <NumberAt
                  at={`${at}.arms.${arm}.elbowDeg`}
                  label="Elbow, inside"
                  unit="°"
                  decimals={0}
                />
                <NumberAt
                  at={`${at}.arms.${arm}.asideDeg`}
                  label="Out to the side"
                  unit="°"
                  decimals={0}
                />
                <NumberAt
                  at={`${at}.arms.${arm}.foreAsideDeg`}
                  label="Forearm, out to the side"
                  unit="°"
                  decimals={0}
                  usual={pose.arms?.[arm].asideDeg ?? 0}
                />
              </div>
            </fieldset>
          ))}
        </MaybeAt>
      </div>
    </div>
  );
};

/** How the body is held in a phase, seen from the side. */
export const PostureAt = ({ at }: { at: string }) => {
  const { value: posture } = useAt<Posture>(at);
  return (
    <>
      <div className="span-12">
        <PicksAt
          at={`${at}.looks`}
          label="Looked at"
          options={POSTURE_LOOKS.map((look) => [look, LOOK_NAMES[look].toLowerCase()] as const)}
        />
      </div>
      <FlagAt at={`${at}.front`} label="Shown from the front as well" />
      <FlagAt at={`${at}.wall`} label="The hands are on a wall" />
      <MaybeAt at={`${at}.boxM`} label="It stands on a box" fresh={() => 0.4} none={undefined}>
        <LengthAt at={`${at}.boxM`} label="Height of the box" />
      </MaybeAt>
      <MaybeAt at={`${at}.liftM`} label="It is in the air" fresh={() => 0.5} none={undefined}>
        <LengthAt at={`${at}.liftM`} label="Off the ground" />
      </MaybeAt>
      <PoseAt at={`${at}.contact`} />
      <MaybeAt
        at={`${at}.last`}
        label="Held otherwise by the last contact; those between come nearer to it"
        fresh={() => posture.contact}
      >
        <PoseAt at={`${at}.last`} />
      </MaybeAt>
      <MaybeAt
        at={`${at}.push`}
        label="Held otherwise while pushing off, on the way to the contact"
        fresh={() => posture.contact}
      >
        <PoseAt at={`${at}.push`} />
      </MaybeAt>
    </>
  );
};
