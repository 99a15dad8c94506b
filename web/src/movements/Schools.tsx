import type { Body } from '@gravek/core/layout/body';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement } from '@gravek/contract/movement';
import { laidOut } from '@gravek/library/plan';
import { countSteps } from '@gravek/core/layout/shape';
import { stepsIn } from '@gravek/library/stepWords';
import { PlanThumb } from '../drawing/PlanThumb';

/** Where coaches disagree: each way with its reason and what it does to the feet, side by side. */
export const Schools = ({
  movement,
  body,
  chosen,
}: {
  movement: Movement;
  body: Body;
  chosen: Pick<SequenceChoices, 'reads' | 'schools'>;
}) =>
  movement.schools.length > 0 && (
    <section className="panel" aria-label="Schools">
      <h2>Where coaches disagree</h2>
      {movement.schools.map((school) => {
        const drawn = school.options.some(
          (option) => option.changes.length > 0 || option.skips.length > 0,
        );
        return (
          <div key={school.code} className="school">
            <strong>{school.question}</strong>
            <div className="school-ways">
              {school.options.map((option) => {
                const layout = laidOut(movement, body, {
                  reads: chosen.reads,
                  schools: { ...chosen.schools, [school.code]: option.code },
                });
                return (
                  <div key={option.code} className="school-way">
                    <div className="figure-label">{option.name}</div>
                    <p className="mb-1">{option.reason}</p>
                    {drawn && (
                      <>
                        <PlanThumb layout={layout} />
                        <div className="small-text quiet">
                          {stepsIn(countSteps(layout), layout.totalTimeS, 2)}
                        </div>
                      </>
                    )}
                  </div>
                );
              })}
            </div>
          </div>
        );
      })}
    </section>
  );
