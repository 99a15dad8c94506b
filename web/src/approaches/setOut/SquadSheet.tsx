import { bodyOf } from '@gravek/core/layout/body';
import { tapeStepM } from '@gravek/core/runup/setOut';
import { currentModel } from '@gravek/core/runup/stepModel';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { Approach, StraightChoices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { Athlete } from '@gravek/contract/athlete';
import { offer } from '@gravek/library/planning/offers';
import { beyondLaneM } from '@gravek/library/planning/onGround';
import { straightAsk } from '@gravek/library/planning/plan';
import { barredBy, demandOf, whyBarred } from '@gravek/library/session/restrictions';
import {
  squadMarks,
  whyNotShort,
  type SquadAsk,
  type SquadLine,
  type SquadMark,
} from '@gravek/library/planning/squad';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useParams } from 'react-router';
import { useApproach, useAthletes } from '../../api/queries';
import { useLengthStyle, useMember } from '../../member/member';
import { PageHead } from '../../controls/PageHead';
import { useDraft } from '../../controls/draft';
import { Length } from '../../controls/Figure';
import { LengthInput } from '../../controls/LengthInput';
import { Empty, Loaded } from '../../controls/Notice';
import { FootWord } from '../../drawing/FootPrint';
import { useCatalogue, type Catalogue } from '../../parts/catalogue/useCatalogue';
import { around, draftName, type PlanDraft } from '../plan/draft';
import { plannerWork } from '../../parts/planning/plannerWork';
import { counted } from '@gravek/core/words';

const ALL = 'everybody on this approach';

const Squad = ({
  approach,
  athletes,
  catalogue,
}: {
  approach: Approach & { choices: StraightChoices };
  athletes: Athlete[];
  catalogue: Catalogue;
}) => {
  const { today } = useMember();
  const style = useLengthStyle();
  const [group, setGroup] = useState(ALL);
  const [own, setOwn] = useState(false);
  const [shareM, setShareM] = useState(0);
  const [message, setMessage] = useState<string | null>(null);
  const [done, setDone] = useState(0);
  const { choices } = approach;
  const squads = [...new Set(athletes.map((athlete) => athlete.squad))].sort();
  const people = athletes.filter(
    (athlete) =>
      !athlete.archived &&
      (group === ALL ? approach.athleteIds.includes(athlete.id) : athlete.squad === group),
  );
  const movement = catalogue.of(approach.movement);
  const asks = people.map((person): SquadAsk => {
    const barred = barredBy(demandOf(movement, choices), person.restrictions, today);
    return {
      athleteId: person.id,
      ask: straightAsk(choices, bodyOf(person), currentModel(person).model),
      counts: own ? around(choices.steps) : null,
      laneM: choices.ground?.laneM ?? undefined,
      barred: barred ? whyBarred(person.name, barred) : null,
    };
  });
  const lines = useQuery<SquadLine[]>({
    queryKey: ['squad', JSON.stringify(asks)],
    queryFn: () => {
      setDone(0);
      return plannerWork().squad(asks, proxy(setDone));
    },
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
  });
  const nameOf = useMemo(
    () => new Map(athletes.map((athlete) => [athlete.id, athlete])),
    [athletes],
  );
  return (
    <div className="stack">
      <div className="row-line no-print">
        <Form.Select
          aria-label="For whom"
          style={{ width: 'auto' }}
          value={group}
          onChange={(event) => setGroup(event.target.value)}
        >
          {[ALL, ...squads].map((text) => (
            <option key={text}>{text}</option>
          ))}
        </Form.Select>
        <Form.Check
          type="switch"
          id="own-count"
          label="each their own count, within two"
          checked={own}
          onChange={() => setOwn(!own)}
        />
        <label className="row-line ms-auto" style={{ gap: 6 }}>
          Neighbours share a start mark that costs nobody more than
          <span style={{ width: '6.5rem' }}>
            <LengthInput
              aria-label="Most that a mark may move"
              valueM={shareM}
              style={{ ...style, small: true }}
              onLength={(m) => m !== null && setShareM(Math.min(2, m))}
              onMessage={setMessage}
            />
          </span>
        </label>
        <Button variant="outline-dark" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      {message && (
        <div className="field-message" role="alert">
          {message}
        </div>
      )}
      {people.length === 0 ? (
        <Empty title="Nobody is on this approach.">Choose a squad above.</Empty>
      ) : (
        <Loaded
          query={lines}
          what={`Solving for ${people.length} athletes${done > 0 ? `, ${done} done` : ''} …`}
        >
          {(list) => (
            <Lines
              list={list}
              nameOf={nameOf}
              style={style}
              shareM={shareM}
              ground={choices.ground}
            />
          )}
        </Loaded>
      )}
    </div>
  );
};

const toTape = (m: number, style: LengthStyle): number => {
  const stepM = tapeStepM(style.unit, style.shoeM);
  return Math.round(m / stepM) * stepM;
};

const Lines = ({
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

/** Says so when the planner holds more than is saved: the sheet is of what is saved. */
const Unsaved = ({ approachId }: { approachId: string }) => {
  const [, , , found] = useDraft<PlanDraft | null>(draftName(approachId), null);
  return (
    found && (
      <div className="note mb-2 no-print" role="status">
        The planner holds changes that are not saved; this sheet is of the plan as it is saved.{' '}
        <Link to={`/approaches/${approachId}`}>Save them first</Link>
      </div>
    )
  );
};

/** One approach solved for a whole squad, a line each, sorted for setting out. */
export const SquadSheet = () => {
  const { id } = useParams();
  const query = useApproach(id);
  const athletes = useAthletes();
  const catalogue = useCatalogue();
  return (
    <Loaded query={query} what="Getting the approach …">
      {(approach) => {
        if (!approach || isSequence(approach.choices)) {
          return (
            <Empty title="There is no squad sheet for this.">
              Only a run-up to a target has start marks to set out.{' '}
              <Link className="btn btn-primary" to="/approaches">
                All approaches
              </Link>
            </Empty>
          );
        }
        const { choices } = approach;
        return (
          <>
            <PageHead
              title={approach.name}
              over={`Squad sheet: ${choices.steps} steps, from the ${choices.target}`}
            >
              <Link className="btn btn-outline-dark" to={`/approaches/${approach.id}`}>
                The plan
              </Link>
            </PageHead>
            <Unsaved approachId={approach.id} />
            <Loaded query={athletes} what="Getting the athletes …">
              {(people) => (
                <Squad
                  approach={{ ...approach, choices }}
                  athletes={people}
                  catalogue={catalogue}
                />
              )}
            </Loaded>
          </>
        );
      }}
    </Loaded>
  );
};
