import type { Layout } from '@gravek/core/layout/shape';
import type { LengthStyle } from '@gravek/core/units';
import { groundMarks, type GroundMark } from '@gravek/library/planning/sheet';
import { Length } from '../../controls/Figure';

/** A mark seen from the start mark: how far ahead and how far to which side. */
const FromStart = ({
  mark: { aheadM, asideM, side },
  isStart,
  style,
}: {
  mark: GroundMark;
  isStart: boolean;
  style: LengthStyle;
}) => (
  <>
    <td className="num">
      {isStart ? 0 : <Length m={Math.abs(aheadM)} style={style} />}
      {aheadM < 0 && <span className="unit"> back</span>}
    </td>
    <td className="num">
      {isStart && 0}
      {!isStart && side === null && '–'}
      {side && (
        <>
          <Length m={asideM} style={style} /> <span className="unit">{side}</span>
        </>
      )}
    </td>
  </>
);

/** Marks to set out: by two tapes from what is built, or from the start mark. */
export const SetOut = ({ layout, style }: { layout: Layout; style: LengthStyle }) => {
  const marks = groundMarks(layout);
  const tapes = marks[0]?.tapes;
  return (
    <section className="panel sheet-panel" aria-label="To set out">
      <h2>To set out</h2>
      {marks.length < 2 && !tapes ? (
        <p className="mb-0">Only a start mark.</p>
      ) : (
        <table className="grid-table">
          <thead>
            <tr>
              <th>Mark</th>
              {tapes ? (
                tapes.map(({ from }) => (
                  <th key={from} className="num" title={`Tape from the ${from}`}>
                    {from}
                  </th>
                ))
              ) : (
                <>
                  <th className="num">Ahead</th>
                  <th className="num">Aside</th>
                </>
              )}
            </tr>
          </thead>
          <tbody>
            {marks.map((mark, i) => (
              <tr key={i}>
                <td>{mark.label}</td>
                {mark.tapes ? (
                  mark.tapes.map(({ from, lengthM }) => (
                    <td key={from} className="num">
                      <Length m={lengthM} style={style} />
                    </td>
                  ))
                ) : (
                  <FromStart mark={mark} isStart={i === 0} style={style} />
                )}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {tapes && (
        <p className="quiet small-text mb-0 mt-1">
          Two tapes, one at each of these points: where they meet is the mark. Left and right as one
          stands at the start.
        </p>
      )}
    </section>
  );
};
