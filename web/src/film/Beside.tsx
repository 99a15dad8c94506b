import { formatLength } from '@gravek/core/units';
import type { Reviewed } from '@gravek/library/film/reviewed';
import type { StepBeside } from '@gravek/library/film/watched';
import { scaleLinear } from 'd3-scale';
import { FootPrint } from '../drawing/FootPrint';
import { withRoom } from '../drawing/room';
import { useWidth } from '../drawing/useWidth';
import { useLengthStyle } from '../member/member';
import { give, giveTime, milliseconds } from './words';

const LEFT = 62;
const RIGHT = 20;
const ROWS = { plan: 34, seen: 84, planBeat: 138, seenBeat: 164 };
const HEIGHT = 196;

type Shown = StepBeside & { planned: NonNullable<StepBeside['planned']> };

/**
 * The steps that were seen over the plan's own, to scale, and their beats under them, aligned where the first
 * contact of the film lies in the plan.
 */
export const Beside = ({ reviewed }: { reviewed: Reviewed }) => {
  const [ref, width] = useWidth<HTMLDivElement>(800);
  const style = useLengthStyle();
  const rows = reviewed.rows.filter((row): row is Shown => row.planned !== null);
  if (rows.length === 0) return null;
  const sums = (of: (row: Shown) => number): number[] =>
    rows.reduce<number[]>((all, row) => [...all, all.at(-1)! + of(row)], [0]);
  const planM = sums((row) => row.planned.lengthM);
  const seenM = sums((row) => row.seen.lengthM);
  const planS = sums((row) => row.planned.intervalS);
  // A step whose time does not count is drawn as long as it was planned.
  const seenS = sums((row) => (row.isTimed ? row.seen : row.planned).intervalS);
  const x = scaleLinear([0, Math.max(planM.at(-1)!, seenM.at(-1)!)], [LEFT, width - RIGHT]);
  const t = scaleLinear([0, Math.max(planS.at(-1)!, seenS.at(-1)!)], [LEFT, width - RIGHT]);
  const print = Math.max(10, Math.min(26, x(0.28) - x(0)));
  const told = rows.flatMap((row, i) =>
    row.longer || row.shorter ? [{ row, at: x((seenM[i]! + seenM[i + 1]!) / 2) }] : [],
  );
  const text = rows
    .map(
      ({ planned, seen }) =>
        `step ${planned.n}: ${formatLength(seen.lengthM, style)}, planned ${formatLength(planned.lengthM, style)}`,
    )
    .join('; ');
  return (
    <div ref={ref}>
      <svg
        className="film-beside"
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`Steps seen beside the plan: ${text}`}
      >
        <g aria-hidden="true">
          <text className="quiet-label" x={0} y={ROWS.plan + 4}>
            planned
          </text>
          <text className="quiet-label" x={0} y={ROWS.seen + 4}>
            seen
          </text>
          <text className="quiet-label" x={0} y={ROWS.planBeat + 4}>
            beats
          </text>
          {planM.map((at, i) => (
            <g key={i}>
              <line
                className="film-same"
                x1={x(at)}
                x2={x(seenM[i]!)}
                y1={ROWS.plan + 8}
                y2={ROWS.seen - 8}
              />
              {i > 0 && (
                <FootPrint
                  x={x(at)}
                  y={ROWS.plan}
                  length={print}
                  foot={rows[i - 1]!.planned.foot}
                  color="var(--ink-quiet)"
                />
              )}
              {i > 0 && (
                <FootPrint
                  x={x(seenM[i]!)}
                  y={ROWS.seen}
                  length={print}
                  foot={rows[i - 1]!.seen.foot}
                  color={rows[i - 1]!.longer || rows[i - 1]!.shorter ? 'var(--clay)' : 'var(--ink)'}
                />
              )}
            </g>
          ))}
          {rows.map(({ planned }, i) => (
            <text
              key={planned.n}
              className="quiet-label"
              x={x(planM[i + 1]!) - print / 2}
              y={ROWS.plan - 14}
              textAnchor="middle"
            >
              {planned.n}
            </text>
          ))}
          {[...withRoom(told, ({ at }) => at, 56)].map(({ row, at }) => (
            <text
              key={row.planned.n}
              className="film-off"
              x={at}
              y={ROWS.seen + 22}
              textAnchor="middle"
            >
              {row.longer ? '+' : '−'}
              {formatLength(Math.abs(row.lengthOffM!), { ...style, small: true })}
            </text>
          ))}
          {(
            [
              [planS, ROWS.planBeat, 'film-planned-beat'],
              [seenS, ROWS.seenBeat, 'film-seen-beat'],
            ] as const
          ).map(([beats, y, look]) => (
            <g key={look}>
              <line className="film-axis" x1={LEFT} x2={width - RIGHT} y1={y} y2={y} />
              {beats.map((at, i) => (
                <line key={i} className={look} x1={t(at)} x2={t(at)} y1={y - 9} y2={y + 9} />
              ))}
            </g>
          ))}
        </g>
      </svg>
      <div className="table-scroll" role="group" aria-label="Figures of each step" tabIndex={0}>
        <table className="grid-table film-steps">
          <caption className="visually-hidden">Step by step beside the plan</caption>
          <thead>
            <tr>
              <th>Step</th>
              <th className="num">Length</th>
              <th className="num">planned</th>
              <th className="num">differs</th>
              <th className="num">Time</th>
              <th className="num">planned</th>
              <th className="num">Steps/min</th>
              <th className="num">On the ground</th>
              <th className="num">In the air</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const { planned, seen, lengthOffM } = row;
              const differs = row.longer || row.shorter;
              return (
                <tr key={planned.n} className={differs ? 'film-differs' : undefined}>
                  <td>
                    {planned.n} {row.wrongFoot ? `${seen.foot}!` : seen.foot}
                  </td>
                  <td className="num">
                    <strong>{formatLength(seen.lengthM, style)}</strong>{' '}
                    <span className="quiet small-text">{give(seen.lengthSdM, style)}</span>
                  </td>
                  <td className="num">{formatLength(planned.lengthM, style)}</td>
                  <td className="num">
                    {lengthOffM! < 0 ? '−' : '+'}
                    {formatLength(Math.abs(lengthOffM!), { ...style, small: true })}
                  </td>
                  <td className="num">
                    {row.isTimed ? (
                      <>
                        {milliseconds(seen.intervalS)}{' '}
                        <span className="quiet small-text">{giveTime(seen.intervalSdS)}</span>
                      </>
                    ) : (
                      '–'
                    )}
                  </td>
                  <td className="num">{milliseconds(planned.intervalS)}</td>
                  <td className="num">{row.isTimed ? Math.round(seen.cadenceSpm) : '–'}</td>
                  <td className="num">
                    {seen.contactS === null ? '–' : milliseconds(seen.contactS)}
                  </td>
                  <td className="num">
                    {seen.flightS === null ? '–' : milliseconds(seen.flightS)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </div>
  );
};
