import type { GroundPoint } from '@gravek/core/film/planeMap';
import { formatLength } from '@gravek/core/units';
import type { Reviewed } from '@gravek/library/film/reviewed';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Field } from '../controls/Field';
import { LengthInput } from '../controls/LengthInput';
import { Segments } from '../controls/Segments';
import { useLengthStyle } from '../member/member';
import { pairsOf, useGround } from './useGround';
import type { Marks } from './useReview';

/** Where the ground lies in the picture, by marks of which the place is known, and how exact that is. */
export const GroundPanel = ({
  ground,
  marks,
  reviewed,
  hasLine,
  onChange,
}: {
  ground: ReturnType<typeof useGround>;
  marks: Marks;
  reviewed: Reviewed;
  /** the run is aimed at a line: places are told by how far before it they lie */
  hasLine: boolean;
  onChange: (part: Partial<Marks>) => void;
}) => {
  const style = useLengthStyle();
  const groundStyle = style.unit === 'shoes' ? { unit: 'metric' as const } : style;
  const { tapes, setTapes, next, kind } = ground;
  const pairs = pairsOf(marks.view);
  const rmsM = reviewed.seen?.rmsM ?? null;
  const [messages, setMessages] = useState<Record<string, string | null>>({});
  const note =
    (field: string) =>
    (message: string | null): void =>
      setMessages({ ...messages, [field]: message });
  const place = ({ alongM, acrossM }: GroundPoint): string => {
    const far = formatLength(Math.abs(alongM), groundStyle);
    const where = hasLine
      ? alongM === 0
        ? 'at the line'
        : `${far} ${alongM < 0 ? 'before' : 'beyond'} the line`
      : `${alongM < 0 ? '−' : ''}${far} along`;
    return `${where}, ${acrossM > 0 ? 'right' : 'left'} edge`;
  };
  const length = (field: string, label: string, valueM: number, set: (m: number) => void) => (
    <Field label={label} message={messages[field] ?? undefined}>
      <LengthInput
        valueM={valueM}
        style={groundStyle}
        onLength={(m) => m !== null && set(m)}
        onMessage={note(field)}
      />
    </Field>
  );
  return (
    <div className="stack">
      <Segments
        label="How the ground is known"
        options={[
          { value: 'marks', label: 'Tape across a lane' },
          { value: 'side', label: 'One length, from the side' },
        ]}
        value={kind}
        onChoose={ground.setKind}
      />
      {kind === 'marks' ? (
        <>
          <div className="film-fields">
            {length(
              'first',
              hasLine ? 'First tape, before the line' : 'First tape, before the start',
              tapes.firstM,
              (firstM) => setTapes({ ...tapes, firstM }),
            )}
            {length('every', 'A tape every', tapes.everyM, (everyM) =>
              setTapes({ ...tapes, everyM: Math.max(0.1, everyM) }),
            )}
            {length('wide', 'Lane is wide', tapes.widthM, (widthM) =>
              setTapes({ ...tapes, widthM: Math.max(0.1, widthM) }),
            )}
          </div>
          <p className="note mb-0">
            {pairs.length > 4 ? 'More marks make it more exact; next:' : 'Press in the film:'}{' '}
            <strong>{place(next)}</strong>, as the athlete runs.{' '}
            <Button variant="link" className="p-0 align-baseline" onClick={ground.skip}>
              Not in the picture
            </Button>
          </p>
          {pairs.length > 0 && (
            <ol className="list-plain small-text film-list">
              {pairs.map(({ ground: at }, i) => (
                <li key={i} className="row-line">
                  <span>
                    {i + 1}. {place(at)}
                  </span>
                  <Button
                    size="sm"
                    variant="link"
                    className="ms-auto p-0"
                    aria-label={`Remove ground mark ${i + 1}`}
                    onClick={() => {
                      const left = pairs.filter((_, k) => k !== i);
                      onChange({ view: left.length > 0 ? { kind: 'marks', pairs: left } : null });
                    }}
                  >
                    Remove
                  </Button>
                </li>
              ))}
            </ol>
          )}
          {rmsM !== null && (
            <p className="mb-0">
              {pairs.length > 4 ? (
                <>
                  The marks agree within{' '}
                  <strong>{formatLength(rmsM, { ...groundStyle, small: true })}</strong>.
                </>
              ) : (
                'Four marks fit in any case; a fifth shows whether they are right.'
              )}
            </p>
          )}
        </>
      ) : (
        <>
          <p className="note mb-0">
            The camera stands square to the side. Press both ends of a length that lies on the
            ground along the run, in the direction of the run.
          </p>
          {marks.view?.kind === 'side' &&
            length('known', 'It is so long', marks.view.lengthM, (lengthM) =>
              onChange({
                view: { ...(marks.view as typeof marks.view & { kind: 'side' }), lengthM },
              }),
            )}
        </>
      )}
    </div>
  );
};
