import type { GroundPoint, PicturePoint } from '@gravek/core/planeMap';
import { formatLength } from '@gravek/core/units';
import type { Reviewed } from '@gravek/library/reviewed';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Field } from '../controls/Field';
import { LengthInput } from '../controls/LengthInput';
import { Segments } from '../controls/Segments';
import { useLengthStyle } from '../member/member';
import { useTool } from './tools';
import type { Marks } from './useReview';

/** Tape across a lane: every so often, from so far before the line on. */
export type Tapes = { everyM: number; widthM: number; firstM: number };

const USUAL: Tapes = { everyM: 3, widthM: 1.22, firstM: 12 };

type Pairs = Extract<Marks['view'], { kind: 'marks' }>['pairs'];

const pairsOf = (view: Marks['view']): Pairs => (view?.kind === 'marks' ? view.pairs : []);

const same = (a: GroundPoint, b: GroundPoint): boolean =>
  Math.abs(a.alongM - b.alongM) < 0.01 && Math.abs(a.acrossM - b.acrossM) < 0.01;

/** Places that are marked one after the other: at each tape the right edge of the lane, then the left. */
export const nextMark = (tapes: Tapes, marked: readonly GroundPoint[]): GroundPoint => {
  for (let n = 0; ; n += 1) {
    const place = {
      alongM: -tapes.firstM + Math.floor(n / 2) * tapes.everyM,
      acrossM: ((n % 2 === 0 ? 1 : -1) * tapes.widthM) / 2,
    };
    if (!marked.some((one) => same(one, place))) return place;
  }
};

/** Marks that were made say how the tape lies; without any, as is usual. */
const tapesOf = (pairs: Pairs, hasLine: boolean): Tapes => {
  const along = [...new Set(pairs.map(({ ground }) => ground.alongM))].sort((a, b) => a - b);
  const across = pairs.map(({ ground }) => ground.acrossM);
  return {
    everyM: along.length > 1 ? along[1]! - along[0]! : USUAL.everyM,
    widthM:
      across.length > 1 ? Math.max(...across) - Math.min(...across) || USUAL.widthM : USUAL.widthM,
    firstM: along.length > 0 ? -along[0]! : hasLine ? USUAL.firstM : 0,
  };
};

/** The state of the ground tool. */
export const useGround = (
  marks: Marks,
  hasLine: boolean,
  onChange: (part: Partial<Marks>) => void,
) => {
  const pairs = pairsOf(marks.view);
  const [tapes, setTapes] = useState(() => tapesOf(pairs, hasLine));
  const [kind, setKind] = useState<'marks' | 'side'>(marks.view?.kind ?? 'marks');
  /** places that are not in the picture */
  const [skipped, setSkipped] = useState<readonly GroundPoint[]>([]);
  const { begun, press } = useTool();
  const next = nextMark(tapes, [...pairs.map(({ ground }) => ground), ...skipped]);
  return {
    kind,
    setKind: (to: 'marks' | 'side'): void => {
      setKind(to);
      press([]);
      if (marks.view && marks.view.kind !== to) onChange({ view: null });
    },
    tapes,
    setTapes,
    next,
    skip: () => setSkipped([...skipped, next]),
    place: (at: PicturePoint): void => {
      if (kind === 'marks') {
        onChange({
          view: { kind, pairs: [...pairs, { px: at, ground: next }] },
          lineM: hasLine ? (marks.lineM ?? 0) : null,
        });
        return;
      }
      const [from] = begun;
      if (!from) press([at]);
      else {
        press([]);
        const lengthM = marks.view?.kind === 'side' ? marks.view.lengthM : USUAL.everyM;
        onChange({ view: { kind, from, to: at, lengthM } });
      }
    },
  };
};

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
  const own = style.unit === 'shoes' ? { unit: 'metric' as const } : style;
  const { tapes, setTapes, next, kind } = ground;
  const pairs = pairsOf(marks.view);
  const rmsM = reviewed.seen?.rmsM ?? null;
  const [messages, setMessages] = useState<Record<string, string | null>>({});
  const note =
    (field: string) =>
    (message: string | null): void =>
      setMessages({ ...messages, [field]: message });
  const place = ({ alongM, acrossM }: GroundPoint): string => {
    const far = formatLength(Math.abs(alongM), own);
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
        style={own}
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
                  <strong>{formatLength(rmsM, { ...own, small: true })}</strong>.
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
