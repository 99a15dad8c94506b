import type { Foot } from '@gravek/core/feet';
import { SIDE_JOINTS, type PostureAngles } from '@gravek/core/body/posture';
import { formatLength } from '@gravek/core/units';
import type { Reviewed } from '@gravek/library/film/reviewed';
import Button from 'react-bootstrap/Button';
import { Segments } from '../controls/Segments';
import { useLengthStyle } from '../member/member';
import { useTool } from './tools';
import type { Marks } from './useReview';
import type { Playback } from './useClip';
import { give } from './words';

const FIGURES: readonly [keyof PostureAngles, string][] = [
  ['trunkLeanDeg', 'Trunk'],
  ['hipDeg', 'Hip'],
  ['kneeDeg', 'Knee'],
  ['shinLeanDeg', 'Shin'],
  ['ankleDeg', 'Ankle'],
];

const degrees = (value: number): string => `${Math.round(value)}°`.replace('-', '−');

/** More than this off the side, angles say little. */
const FAR_OFF_DEG = 35;

/** Which leg and way the next posture is of. */
export type PoseAsk = { foot: Foot; travel: 'left' | 'right' };

/** The body on chosen frames, beside the posture that the plan has there. */
export const PosturePanel = ({
  marks,
  reviewed,
  playback,
  frameOf,
  ask,
  onAsk,
  onChange,
}: {
  marks: Marks;
  reviewed: Reviewed;
  playback: Playback;
  frameOf: (atS: number) => number;
  ask: PoseAsk;
  onAsk: (ask: PoseAsk) => void;
  onChange: (part: Partial<Marks>) => void;
}) => {
  const style = useLengthStyle();
  const begun = useTool((state) => state.begun);
  const written = (m: number): string =>
    Math.abs(m) < 0.005
      ? 'under it'
      : `${formatLength(Math.abs(m), { ...style, small: true })} ${m < 0 ? 'behind' : 'ahead'}`;
  return (
    <div className="stack">
      <div className="row-line">
        <Segments
          label="The leg"
          options={[
            { value: 'left', label: 'Left leg' },
            { value: 'right', label: 'Right leg' },
          ]}
          value={ask.foot}
          onChoose={(foot) => onAsk({ ...ask, foot })}
        />
        <Segments
          label="The athlete goes"
          options={[
            { value: 'left', label: 'goes left' },
            { value: 'right', label: 'goes right' },
          ]}
          value={ask.travel}
          onChoose={(travel) => onAsk({ ...ask, travel })}
        />
      </div>
      <p className="note mb-0">
        Press on this frame: <strong>{SIDE_JOINTS[begun.length]}</strong>
        {begun.length === 0 && ', then hip, knee, ankle and toe of the leg that lands'}.
      </p>
      {reviewed.poses.length === 0 ? (
        <p className="quiet mb-0">
          {marks.poses.length > 0
            ? `The angles come once the steps can be measured. ${reviewed.why ?? ''}`
            : 'Stop at a contact: the first two steps, or the one before the jump.'}
        </p>
      ) : (
        reviewed.poses.map((pose) => {
          const planned = reviewed.side?.contacts.find((contact) => contact.n === pose.n) ?? null;
          const marked = marks.poses[pose.index]!;
          return (
            <section key={pose.index} aria-label={`Posture ${pose.index + 1}`}>
              <div className="row-line">
                <Button
                  variant="link"
                  className="p-0"
                  onClick={() => playback.go(frameOf(marked.on.atS))}
                >
                  {pose.n === null ? `At ${marked.on.atS.toFixed(3)} s` : `As step ${pose.n} lands`}
                </Button>
                <span className="quiet small-text">{marked.foot} leg</span>
                <Button
                  variant="link"
                  size="sm"
                  className="p-0 ms-auto"
                  aria-label={`Remove posture ${pose.index + 1}`}
                  onClick={() =>
                    onChange({ poses: marks.poses.filter((_, k) => k !== pose.index) })
                  }
                >
                  Remove
                </Button>
              </div>
              <table className="grid-table small-text">
                <caption className="visually-hidden">Angles beside the plan</caption>
                <thead>
                  <tr>
                    <td />
                    <th className="num">seen</th>
                    <th className="num">planned</th>
                  </tr>
                </thead>
                <tbody>
                  {FIGURES.map(([key, name]) => (
                    <tr key={key}>
                      <td>{name}</td>
                      <td className="num">{degrees(pose[key])}</td>
                      <td className="num">{planned ? degrees(planned[key]) : '–'}</td>
                    </tr>
                  ))}
                  <tr>
                    <td>Foot to hip</td>
                    <td className="num">
                      {written(pose.footToHipM)} {give(pose.footToHipSdM, style)}
                    </td>
                    <td className="num">{planned ? written(planned.footToHipM) : '–'}</td>
                  </tr>
                </tbody>
              </table>
              {pose.offSideDeg !== null && (
                <p
                  className={
                    pose.offSideDeg > FAR_OFF_DEG ? 'note mb-0 small-text' : 'quiet small-text mb-0'
                  }
                >
                  The camera stands {Math.round(pose.offSideDeg)}° off the side
                  {pose.offSideDeg > FAR_OFF_DEG
                    ? ': too far for angles; film from the side.'
                    : '; that is allowed for.'}
                </p>
              )}
            </section>
          );
        })
      )}
    </div>
  );
};
