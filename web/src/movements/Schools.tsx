import type { Body } from '@gravek/core/layout/body';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { WayCheck } from '@gravek/contract/faults';
import type { Movement, School } from '@gravek/contract/movement';
import { laidOut } from '@gravek/library/planning/plan';
import { countSteps } from '@gravek/core/layout/shape';
import { stepsIn } from '@gravek/library/planning/stepWords';
import { useWays } from '../api/queries';
import { Loaded } from '../controls/Notice';
import { PlanThumb } from '../drawing/PlanThumb';
import { wayFigure, wayMeasure, wayVerdict } from '../parts/ledger/words';
import { IntoNext } from '../parts/intoSession/IntoNext';

/** What the club's own reps say of the ways of a school, two at a time. */
const ByReps = ({
  movement,
  school: { code, options },
  check,
  athletes,
}: {
  movement: Movement;
  school: School;
  check: WayCheck;
  athletes: readonly Athlete[];
}) => {
  const nameOf = (way: string): string =>
    options.find((option) => option.code === way)?.name ?? way;
  const pairs = check.pairs.filter(
    ({ school, looks }) => school === code && looks[0]!.athletes > 0,
  );
  const ways = options.map((option) => `${code}:${option.code}`);
  return (
    <div className="school-reps">
      {pairs.map(({ a, b, looks }) => (
        <table key={`${a} ${b}`} className="table-plain small-text">
          <caption>The club’s reps of the last year, of one athlete in one session each</caption>
          <thead>
            <tr>
              <th scope="col">
                <span className="visually-hidden">Measured</span>
              </th>
              <th scope="col">{nameOf(a)}</th>
              <th scope="col">{nameOf(b)}</th>
              <th scope="col">What it says</th>
            </tr>
          </thead>
          <tbody>
            {looks.map((look) => (
              <tr key={`${look.measure} ${look.side}`}>
                <th scope="row">{wayMeasure(movement, look)}</th>
                <td className="figure">{wayFigure(look, look.a)}</td>
                <td className="figure">{wayFigure(look, look.b)}</td>
                <td className={look.better ? 'strong' : 'quiet'}>
                  {wayVerdict(look, [nameOf(a), nameOf(b)])}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      <div className="row-line">
        {pairs.length === 0 && (
          <span className="quiet small-text">
            Too few to say: nobody has done both in one session yet.
          </span>
        )}
        <IntoNext movement={movement} drill={null} athletes={athletes} ways={ways} />
      </div>
    </div>
  );
};

/** Where coaches disagree: each way with its reason, what it does to the feet, and what came of it in the club. */
export const Schools = ({
  movement,
  body,
  chosen,
  athletes,
}: {
  movement: Movement;
  body: Body;
  chosen: Pick<SequenceChoices, 'reads' | 'schools'>;
  /** for whom both ways are put into a session */
  athletes: readonly Athlete[];
}) => {
  const query = useWays(movement);
  return (
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
              {school.options.length > 1 && (
                <Loaded query={query} what="Holding the ways against the reps …">
                  {(check) => <ByReps {...{ movement, school, check, athletes }} />}
                </Loaded>
              )}
            </div>
          );
        })}
      </section>
    )
  );
};
