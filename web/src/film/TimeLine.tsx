import type { Movement } from '@gravek/contract/movement';
import { phaseOf } from '@gravek/library/movement/byCode';
import Form from 'react-bootstrap/Form';
import { useWidth } from '../drawing/useWidth';
import type { Clip } from './clip';
import type { Marks } from './useReview';
import type { Playback } from './useClip';

const HEIGHT = 46;
/** Half of the knob: the slider's ends lie so far within its box. */
const INSET = 8;

/** Time of the film: phases, feet on the ground, the frame that is shown. */
export const TimeLine = ({
  clip,
  playback,
  marks,
  ticks,
  movement,
}: {
  clip: Clip;
  playback: Playback;
  marks: Marks;
  ticks: Marks['ticks'];
  movement: Movement;
}) => {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const last = clip.frames.length - 1;
  // Frames may lie unevenly in time, and the slider steps by frames: so does what is drawn with it.
  const x = (timeS: number): number => {
    const i = clip.frames.findLastIndex((frame) => frame <= timeS + 1e-6);
    return INSET + (Math.max(0, i) / last) * (width - 2 * INSET);
  };
  return (
    <div className="film-time" ref={ref}>
      <svg width={width} height={HEIGHT} aria-hidden="true">
        {ticks.map(({ phase, atS }, i) => {
          const from = x(atS);
          const to = i + 1 < ticks.length ? x(ticks[i + 1]!.atS) : width - INSET;
          const name = phaseOf(movement, phase)?.name ?? phase;
          return (
            <g key={phase + atS}>
              <line x1={from} x2={from} y1={0} y2={HEIGHT} className="film-tick" />
              {to - from > name.length * 6.2 + 8 && (
                <text x={from + 4} y={12} className="film-phase">
                  {name}
                </text>
              )}
            </g>
          );
        })}
        {marks.contacts.map(({ on, off, foot }, i) => (
          <g key={i} className={`film-beat ${foot}`}>
            <rect
              x={x(on.atS)}
              y={foot === 'left' ? 19 : 32}
              width={Math.max(3, (off ? x(off.atS) : x(on.atS)) - x(on.atS))}
              height={10}
              rx={3}
            />
          </g>
        ))}
      </svg>
      <Form.Range
        aria-label="Frame"
        min={0}
        max={last}
        step={1}
        value={playback.at}
        aria-valuetext={`Frame ${playback.at + 1} of ${last + 1}, ${playback.timeS.toFixed(3)} s`}
        onChange={(event) => playback.go(Number(event.target.value))}
      />
      <div className="film-count small-text quiet">
        <span>
          frame <strong>{playback.at + 1}</strong> of {last + 1}
        </span>
        <span>
          <strong>{playback.timeS.toFixed(3)}</strong> s
        </span>
      </div>
    </div>
  );
};
