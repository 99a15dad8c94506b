import type { Layout } from '@gravek/core/layout/shape';
import type { LengthStyle } from '@gravek/core/units';
import { groundMarks } from '@gravek/library/sheet';
import { Length } from '../controls/Figure';

/** Marks to set out: by two tapes from what is built, and from the start mark how far ahead and to which side. */
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
              <th className="num">Ahead</th>
              <th className="num">Aside</th>
              {tapes?.map(({ from }) => (
                <th key={from} className="num">
                  From the {from}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {marks.map(({ label, aheadM, asideM, side, tapes: own }, i) => (
              <tr key={i}>
                <td>{label}</td>
                <td className="num">
                  {i === 0 ? 0 : <Length m={Math.abs(aheadM)} style={style} />}
                  {aheadM < 0 && <span className="unit"> back</span>}
                </td>
                <td className="num">
                  {i === 0 && 0}
                  {i > 0 && side === null && '–'}
                  {side && (
                    <>
                      <Length m={asideM} style={style} /> <span className="unit">{side}</span>
                    </>
                  )}
                </td>
                {own?.map(({ from, lengthM }) => (
                  <td key={from} className="num">
                    <Length m={lengthM} style={style} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
};
