import { figureOf, type Pose } from '@gravek/core/posture';
import { POSTURE_LOOKS, type Posture } from '@gravek/core/sideView';
import { LOOK_NAMES, SideStill } from '../../drawing/SideView';
import { MaybeAt, NumberAt, PicksAt } from './At';
import { useAt, useWork } from './work';

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

const LEGS = [
  ['stance', 'The leg it stands on'],
  ['free', 'The other leg'],
] as const;

/** How the body is held at one moment: its figures, and the figure that they make. */
const PoseAt = ({ at }: { at: string }) => {
  const { body } = useWork();
  const { value: pose } = useAt<Pose>(at);
  const { value: looks = [] } = useAt<Posture['looks']>(at.replace(/\.\w+$/, '.looks'));
  return (
    <div className="span-12 pose-columns">
      <SideStill figure={figureOf(pose, body)} looks={looks} body={body} />
      <div className="edit-grid">
        <NumberAt at={`${at}.trunkDeg`} label="Trunk, from upright" unit="°" decimals={0} />
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
