import type { LengthStyle, StraightPlan } from '@gravek/core';
import { Length } from '../controls/Figure';
import { FootWord } from '../drawing/FootPrint';

/** What to tape, in the order in which a person walks away from the target. */
export const Sheet = ({
  plan,
  style,
  target,
}: {
  plan: StraightPlan;
  style: LengthStyle;
  target: string;
}) => (
  <section aria-label="Setting out">
    <h2>Set out, from the {target}</h2>
    <ol className="sheet-list">
      {[...plan.checkMarks]
        .sort((a, b) => a.toTargetM - b.toTargetM)
        .map((mark) => (
          <li key={mark.stepsOut}>
            <Length m={mark.toTargetM} style={style} />
            <span>
              <strong>
                {mark.stepsOut} {mark.stepsOut === 1 ? 'step' : 'steps'} out
              </strong>
              <br />
              <span className="small-text quiet">
                <FootWord foot={mark.foot} /> toe on it
              </span>
            </span>
          </li>
        ))}
      <li>
        <Length m={plan.distanceM} style={style} />
        <span>
          <strong>Start</strong>
          <br />
          <span className="small-text quiet">
            toes on it, <FootWord foot={plan.startFoot} /> first
          </span>
        </span>
      </li>
    </ol>
  </section>
);
