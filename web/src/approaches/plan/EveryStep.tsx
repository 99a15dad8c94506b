import type { Layout } from '@gravek/core/layout/shape';
import type { LengthStyle } from '@gravek/core/units';
import type { Movement } from '@gravek/contract/movement';
import { Length } from '../../controls/Figure';
import { FootWord } from '../../drawing/FootPrint';

/** Every step of a sequence, with its phase and times. */
export const EveryStep = ({
  layout,
  movement,
  style,
}: {
  layout: Layout;
  movement: Movement;
  style: LengthStyle;
}) => (
  <details className="no-print">
    <summary>Every step</summary>
    <div className="table-scroll mt-2">
      <table className="grid-table">
        <thead>
          <tr>
            <th className="num">Step</th>
            <th>Foot</th>
            <th>Phase</th>
            <th className="num">Length</th>
            <th className="num">After</th>
            <th className="num">At</th>
          </tr>
        </thead>
        <tbody>
          {layout.footfalls
            .filter((fall) => fall.n > 0)
            .map((fall, i) => (
              <tr key={i}>
                <td className="num">{fall.n}</td>
                <td>
                  <FootWord foot={fall.foot} />
                </td>
                <td>{movement.phases.find((phase) => phase.code === fall.phase)?.name}</td>
                <td className="num">
                  <Length m={fall.lengthM} style={style} />
                </td>
                <td className="num">
                  <span className="figure">{fall.intervalS.toFixed(2)}</span>
                  <span className="unit"> s</span>
                </td>
                <td className="num">
                  <span className="figure">{fall.timeS.toFixed(2)}</span>
                  <span className="unit"> s</span>
                </td>
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  </details>
);
