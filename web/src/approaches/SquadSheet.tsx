import {
  currentModel,
  formatLength,
  shareMarks,
  tapeStepM,
  type LengthStyle,
  type SharedMark,
} from '@gravek/core';
import { isSequence, straightAsk, type Approach, type Athlete } from '@gravek/contract';
import { barredBy, whyBarred } from '@gravek/library';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useParams } from 'react-router';
import { useApproaches, useAthletes } from '../api/queries';
import { useLengthStyle, useMember } from '../app/member';
import { PageHead } from '../app/Shell';
import { Length } from '../controls/Figure';
import { LengthInput } from '../controls/LengthInput';
import { Empty, Loaded } from '../controls/Notice';
import { FootWord } from '../drawing/FootPrint';
import { useCatalogue, type Catalogue } from '../movements/useCatalogue';
import { around, stripOf } from './draft';
import { offer } from './explain';
import { plannerWork } from './plannerWork';
import { fromShared, whyNotShort, type SquadAsk, type SquadLine } from './squad';

const ALL = 'everybody on this approach';

const Squad = ({
  approach,
  athletes,
  catalogue,
}: {
  approach: Approach & { choices: ReturnType<typeof stripOf>['choices'] };
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
  const squads = [...new Set(athletes.map((one) => one.squad))].sort();
  const people = athletes.filter(
    (one) =>
      !one.archived && (group === ALL ? approach.athleteIds.includes(one.id) : one.squad === group),
  );
  const movement = catalogue.of(approach.movement);
  const asks = people.map((one): SquadAsk => {
    const barred = barredBy(movement, one.restrictions, today);
    return {
      athleteId: one.id,
      ask: straightAsk(choices, one, currentModel(one).model),
      counts: own ? around(choices.steps) : null,
      barred: barred ? whyBarred(one.name, barred) : null,
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
  const nameOf = useMemo(() => new Map(athletes.map((one) => [one.id, one])), [athletes]);
  return (
    <div className="stack">
      <div className="row-line no-print">
        <Form.Select
          aria-label="For whom"
          style={{ width: 'auto' }}
          value={group}
          onChange={(event) => setGroup(event.target.value)}
        >
          {[ALL, ...squads].map((one) => (
            <option key={one}>{one}</option>
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
          {(list) => <Lines list={list} nameOf={nameOf} style={style} shareM={shareM} />}
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
}: {
  list: SquadLine[];
  nameOf: ReadonlyMap<string, Athlete>;
  style: LengthStyle;
  shareM: number;
}) => {
  // One tape lies on the ground for everybody: shoes differ, so the squad is written in metres then.
  const style: LengthStyle = club.unit === 'shoes' ? { unit: 'metric' } : club;
  const fits = list.filter((line) => line.plan !== null && line.barred === null);
  const rest = list.filter((line) => line.plan === null || line.barred !== null);
  const marks = shareMarks(
    fits.map((who) => ({ who, atM: who.plan!.distanceM })),
    shareM,
  );
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
                key={mark.users[0]!.who.athleteId}
                mark={mark}
                nameOf={nameOf}
                style={style}
              />
            ))}
          </tbody>
        </table>
      </div>
      {fits.length === 0 && <p className="quiet">It fits nobody here; see why below.</p>}
      {marks.some((mark) => mark.users.length > 1) && (
        <p className="quiet small-text mb-0">
          {marks.length} marks for {fits.length} athletes. Who shares one starts from it with their
          own steps a little changed, check marks with them; “gives” says by how much their own mark
          lies elsewhere.
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
}: {
  mark: SharedMark<SquadLine>;
  nameOf: ReadonlyMap<string, Athlete>;
  style: LengthStyle;
}) => {
  const small = { ...style, small: true };
  return (
    <>
      {mark.users.map(({ who, ownM, givesM }, i) => {
        const athlete = nameOf.get(who.athleteId);
        const plan = mark.users.length > 1 ? fromShared(who, mark.atM)! : who.plan!;
        return (
          <tr key={who.athleteId}>
            {i === 0 && (
              <td rowSpan={mark.users.length} className="squad-mark">
                <Length m={toTape(mark.atM, style)} style={style} big />
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

/** One approach solved for a whole squad, a line each, sorted for setting out. */
export const SquadSheet = () => {
  const { id } = useParams();
  const approaches = useApproaches();
  const athletes = useAthletes();
  const catalogue = useCatalogue();
  return (
    <Loaded query={approaches} what="Getting the approach …">
      {(list) => {
        const approach = list.find((one) => one.id === id);
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
