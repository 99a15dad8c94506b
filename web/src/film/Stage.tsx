import { SIDE_JOINTS } from '@gravek/core/body/posture';
import type { PicturePoint } from '@gravek/core/film/planeMap';
import { formatLength } from '@gravek/core/units';
import { type RefObject, useMemo, useRef } from 'react';
import { useLengthStyle } from '../member/member';
import type { Clip } from './clip';
import { Handle, netOf } from './StageHandle';
import { type Tool, useTool } from './tools';
import type { Playback } from './useClip';
import type { Marks } from './useReview';

/** The film with what was marked drawn over it. */
export const Stage = ({
  clip,
  playback,
  marks,
  video,
  zoom,
  onPointer,
  onPlace,
  onChange,
}: {
  clip: Clip;
  playback: Playback;
  marks: Marks;
  video: RefObject<HTMLVideoElement | null>;
  zoom: number;
  /** where the pointer is over the picture; null beside it */
  onPointer: (at: PicturePoint | null) => void;
  onPlace: (at: PicturePoint) => void;
  onChange: (part: Partial<Marks>, what?: string) => void;
}) => {
  const { width, height } = clip.mark;
  const tool = useTool((state) => state.tool);
  const lengthStyle = useLengthStyle();
  const style = lengthStyle.unit === 'shoes' ? { unit: 'metric' as const } : lengthStyle;
  const layer = useRef<SVGSVGElement>(null);
  const net = useMemo(() => netOf(marks.view), [marks.view]);
  const toPicture = ({ clientX, clientY }: { clientX: number; clientY: number }): PicturePoint => {
    const box = layer.current!.getBoundingClientRect();
    return {
      x: ((clientX - box.left) / box.width) * width,
      y: ((clientY - box.top) / box.height) * height,
    };
  };
  /** Pixels of the film that look like one of a drawing of usual size. */
  const unit = width / 900 / zoom;
  const shows = (shown: Tool): boolean => tool === shown;
  const { view } = marks;
  const setPairs = (pairs: Extract<Marks['view'], { kind: 'marks' }>['pairs']): void =>
    onChange({ view: pairs.length > 0 ? { kind: 'marks', pairs } : null });
  return (
    <div className="film-window">
      <div
        className="film-stage"
        style={{ width: `${zoom * 100}%`, aspectRatio: `${width}/${height}` }}
      >
        <video
          ref={video}
          src={clip.url}
          muted
          playsInline
          preload="auto"
          aria-label={`Film ${clip.mark.name}`}
        />
        <svg
          ref={layer}
          viewBox={`0 0 ${width} ${height}`}
          className={shows('look') ? undefined : 'film-marking'}
          role="group"
          aria-label="Marks on the film"
          onPointerMove={(event) => onPointer(toPicture(event))}
          onPointerLeave={() => onPointer(null)}
          onClick={(event) => onPlace(toPicture(event))}
        >
          {(shows('ground') || shows('contacts')) &&
            net.map((points, i) => (
              <polyline
                key={i}
                className="film-net"
                points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
                strokeWidth={unit}
              />
            ))}
          {shows('ground') &&
            view?.kind === 'marks' &&
            view.pairs.map(({ px, ground }, i) => (
              <Handle
                key={i}
                at={px}
                label={`Ground mark ${i + 1}`}
                toPicture={toPicture}
                onMove={(to) =>
                  setPairs(
                    view.pairs.map((pair, k) => (k === i ? { px: to, ground: pair.ground } : pair)),
                  )
                }
                onRemove={() => setPairs(view.pairs.filter((_, k) => k !== i))}
              >
                <circle r={11 * unit} className="film-catch" />
                <path
                  className="film-cross"
                  d={`M${-9 * unit},0 H${9 * unit} M0,${-9 * unit} V${9 * unit}`}
                  strokeWidth={2 * unit}
                />
                {ground.acrossM > 0 && (
                  <text
                    className="film-text"
                    y={24 * unit}
                    fontSize={13 * unit}
                    textAnchor="middle"
                  >
                    {formatLength(Math.abs(ground.alongM), style)}
                  </text>
                )}
              </Handle>
            ))}
          {shows('ground') && view?.kind === 'side' && (
            <>
              <line
                className="film-known"
                x1={view.from.x}
                y1={view.from.y}
                x2={view.to.x}
                y2={view.to.y}
                strokeWidth={2 * unit}
              />
              {(['from', 'to'] as const).map((end) => (
                <Handle
                  key={end}
                  at={view[end]}
                  label={end === 'from' ? 'Begin of the known length' : 'End of the known length'}
                  toPicture={toPicture}
                  onMove={(to) => onChange({ view: { ...view, [end]: to } })}
                  onRemove={() => onChange({ view: null })}
                >
                  <circle r={11 * unit} className="film-catch" />
                  <circle r={4 * unit} className="film-dot" />
                </Handle>
              ))}
            </>
          )}
          {(shows('contacts') || shows('look')) &&
            marks.contacts.map((contact, i) => {
              const down =
                playback.timeS >= contact.on.atS &&
                playback.timeS < (contact.off?.atS ?? contact.on.atS + 0.1);
              const { at } = contact;
              const print = (
                <>
                  <circle r={10 * unit} className="film-catch" />
                  <circle
                    r={(down ? 6 : 3.4) * unit}
                    className={`film-foot ${contact.foot}${down ? ' down' : ''}`}
                    strokeWidth={2 * unit}
                  />
                  {(down || shows('contacts')) && (
                    <text
                      className="film-text"
                      x={0}
                      y={22 * unit}
                      fontSize={13 * unit}
                      textAnchor="middle"
                    >
                      {i + 1}
                    </text>
                  )}
                </>
              );
              return shows('contacts') ? (
                <Handle
                  key={contact.on.atS + contact.foot}
                  at={at}
                  label={`Contact ${i + 1}, ${contact.foot}`}
                  toPicture={toPicture}
                  onMove={(to) =>
                    onChange({
                      contacts: marks.contacts.map((contact, k) =>
                        k === i ? { ...contact, at: to } : contact,
                      ),
                    })
                  }
                  onRemove={() => onChange({ contacts: marks.contacts.filter((_, k) => k !== i) })}
                >
                  {print}
                </Handle>
              ) : (
                <g key={contact.on.atS + contact.foot} transform={`translate(${at.x},${at.y})`}>
                  {print}
                </g>
              );
            })}
          {(shows('posture') || shows('look')) &&
            marks.poses.map((pose, p) => {
              if (Math.abs(pose.on.atS - playback.timeS) > 1e-6) return null;
              const bones = (['shoulder', 'hip', 'knee', 'ankle', 'toe'] as const)
                .map((joint) => `${pose.joints[joint].x},${pose.joints[joint].y}`)
                .join(' ');
              return (
                <g key={p}>
                  <polyline className="film-bone" points={bones} strokeWidth={3 * unit} />
                  {shows('posture') &&
                    SIDE_JOINTS.map((joint) => (
                      <Handle
                        key={joint}
                        at={pose.joints[joint]}
                        label={`The ${joint}`}
                        toPicture={toPicture}
                        onMove={(to) =>
                          onChange({
                            poses: marks.poses.map((pose, k) =>
                              k === p ? { ...pose, joints: { ...pose.joints, [joint]: to } } : pose,
                            ),
                          })
                        }
                        onRemove={() => onChange({ poses: marks.poses.filter((_, k) => k !== p) })}
                      >
                        <circle r={11 * unit} className="film-catch" />
                        <circle r={4.5 * unit} className="film-dot" />
                      </Handle>
                    ))}
                </g>
              );
            })}
          <Begun unit={unit} />
        </svg>
      </div>
    </div>
  );
};

/** Joints, or ends of a length, that were pressed and wait for the others. */
const Begun = ({ unit }: { unit: number }) => {
  const begun = useTool((state) => state.begun);
  return begun.map(({ x, y }, i) => (
    <circle key={i} cx={x} cy={y} r={4.5 * unit} className="film-dot" />
  ));
};
