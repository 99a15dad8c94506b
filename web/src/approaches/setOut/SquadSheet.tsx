import { bodyOf } from '@gravek/core/layout/body';
import { currentModel } from '@gravek/core/runup/currentModel';
import type { StraightChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import { isSequence } from '@gravek/contract/choices';
import type { Approach } from '@gravek/contract/plan';
import { straightAsk } from '@gravek/library/planning/solvePlan';
import type { SquadAsk, SquadLine } from '@gravek/library/planning/squad';
import { barredBy, demandOf, whyBarred } from '@gravek/library/session/restrictions';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useParams } from 'react-router';
import { useApproach, useAthletes } from '../../api/queries';
import { useDraft } from '../../controls/draft';
import { LengthInput } from '../../controls/LengthInput';
import { Empty, Loaded } from '../../controls/Notice';
import { PageHead } from '../../controls/PageHead';
import { useLengthStyle, useMember } from '../../member/member';
import { type Catalogue, useCatalogue } from '../../parts/catalogue/useCatalogue';
import { plannerWork } from '../../parts/planning/plannerWork';
import { around, draftName, type PlanDraft } from '../plan/draft';
import { Lines } from './SquadLines';

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
