import { currentModel } from '@gravek/core/runup/currentModel';
import { tapeStepM } from '@gravek/core/runup/setOut';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import { counted } from '@gravek/core/words';
import type { StraightChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import { offer } from '@gravek/library/planning/offers';
import { beyondLaneM } from '@gravek/library/planning/onGround';
import {
  type SquadLine,
  type SquadMark,
  squadMarks,
  whyNotShort,
} from '@gravek/library/planning/squad';
import { Link } from 'react-router';
import { Length } from '../../controls/Figure';
import { FootWord } from '../../drawing/FootPrint';

const toTape = (m: number, style: LengthStyle): number => {
  const stepM = tapeStepM(style.unit, style.shoeM);
  return Math.round(m / stepM) * stepM;
};

export const Lines = ({
  list,
  nameOf,
  style: club,
  shareM,
  ground,
}: {
  list: SquadLine[];
  nameOf: ReadonlyMap<string, Athlete>;
  style: LengthStyle;
  shareM: number;
  ground: StraightChoices['ground'];
}) => {
  // One tape lies on the ground for everybody: shoes differ, so the squad is written in metres then.
  const style: LengthStyle = club.unit === 'shoes' ? { unit: 'metric' } : club;
  const fits = list.filter((line) => line.plan !== null && line.barred === null);
  const rest = list.filter((line) => line.plan === null || line.barred !== null);
  const marks = squadMarks(fits, shareM);
  return (
    <>
      <div className="table-scroll" tabIndex={0} role="group" aria-label="Squad sheet">
        <table className="grid-table squad-table">
          <caption className="visually-hidden">Start marks, nearest first</caption>
          <thead>
            <tr>
              <th>Start mark</th>
              <th>Athlete</th>
              <th className="num">Steps</th>
              <th>First foot</th>
              <th>Check marks</th>
              <th className="num">Own mark</th>
            </tr>
          </thead>
          <tbody>
            {marks.map((mark) => (
              <MarkRows
                key={mark.users[0]!.line.athleteId}
                mark={mark}
                nameOf={nameOf}
                style={style}
                ground={ground}
              />
            ))}
          </tbody>
        </table>
      </div>
      {fits.length === 0 && <p className="quiet">It fits nobody here; see why below.</p>}
      {marks.some((mark) => mark.users.length > 1) && (
        <p className="quiet small-text mb-0">
          {counted(marks.length, 'mark')} for {counted(fits.length, 'athlete')}. Who shares one
          starts from it with their own steps a little changed, check marks with them; “gives” says
          by how much their own mark lies elsewhere.
        </p>
      )}
      {rest.length > 0 && (
        <section aria-label="Does not fit">
          <h2>Does not fit</h2>
          <ul className="list-plain">
            {rest.map((line) => (
              <li key={line.athleteId}>
                <strong>{nameOf.get(line.athleteId)?.name}</strong>: {whyNotShort(line)}
                {line.nearby && line.barred === null && (
                  <span className="quiet"> Would work: {offer(line.nearby, style)}.</span>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
};

const MarkRows = ({
  mark,
  nameOf,
  style,
  ground,
}: {
  mark: SquadMark;
  nameOf: ReadonlyMap<string, Athlete>;
  style: LengthStyle;
  ground: StraightChoices['ground'];
}) => {
  const small = { ...style, small: true };
  return (
    <>
      {mark.users.map(({ line: who, plan, ownM, givesM }, i) => {
        const athlete = nameOf.get(who.athleteId);
        return (
          <tr key={who.athleteId}>
            {i === 0 && (
              <td rowSpan={mark.users.length} className="squad-mark">
                <Length m={toTape(mark.atM, style)} style={style} big />
                {beyondLaneM(mark.atM, ground) > 0 && (
                  <div className="field-message">beyond the lane</div>
                )}
              </td>
            )}
            <td>
              <Link className="row-link" to={`/athletes/${who.athleteId}`}>
                {athlete?.name}
              </Link>
              {athlete && currentModel(athlete).source === 'estimate' && (
                <span className="tag tag-estimate ms-2">estimate</span>
              )}
            </td>
            <td className="num">
              <span className="figure">{who.steps}</span>
            </td>
            <td>
              <FootWord foot={plan.startFoot} />
            </td>
            <td>
              {plan.checkMarks.map((check) => (
                <span key={check.stepsOut} className="me-3">
                  <Length m={toTape(check.toTargetM, style)} style={style} />{' '}
                  <span className="quiet small-text">{check.stepsOut} out</span>
                </span>
              ))}
            </td>
            <td className="num">
              {mark.users.length > 1 ? (
                <>
                  <Length m={ownM} style={style} />
                  <div className="quiet small-text">
                    gives {formatLength(Math.abs(givesM), small)}, steps change by up to{' '}
                    {(plan.maxAdjust * 100).toFixed(1)} %
                  </div>
                </>
              ) : (
                <span className="quiet">–</span>
              )}
            </td>
          </tr>
        );
      })}
    </>
  );
};
