import { dayIn } from '@gravek/core/days';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import { isSequence } from '@gravek/contract/choices';
import type { Approach, ApproachSummary } from '@gravek/contract/plan';
import { useRef, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, sentenceOf } from '../../api/client';
import { useApproaches, useAthletes, useClubMovements, useWrite } from '../../api/queries';
import { dayName } from '../../controls/dates';
import { Empty, Loaded, together } from '../../controls/Notice';
import { PageHead } from '../../controls/PageHead';
import { tell } from '../../controls/toasts';
import { useAddress } from '../../controls/useAddress';
import { usePutAway } from '../../controls/usePutAway';
import { useLengthStyle, useMayPlan, useMember } from '../../member/member';
import { useCatalogue } from '../../parts/catalogue/useCatalogue';

const startMarks = ({ startM }: ApproachSummary, style: LengthStyle): string => {
  if (!startM) return '–';
  const write = (m: number): string => formatLength(m, style);
  return startM.to - startM.from < 0.005
    ? write(startM.from)
    : `${write(startM.from)} – ${write(startM.to)}`;
};

const List = ({ list, athletes }: { list: ApproachSummary[]; athletes: Athlete[] }) => {
  const [away, setAway] = useState(false);
  const { query, set } = useAddress();
  const navigate = useNavigate();
  const copies = useRef<Record<string, string>>({});
  const write = useWrite((body: object) => api.post<Approach>('/approaches', body), 'approaches');
  const { unit } = useLengthStyle();
  const style: LengthStyle = { unit: unit === 'shoes' ? 'metric' : unit };
  const mayPlan = useMayPlan();
  const { timeZone } = useMember().club;
  const putAway = usePutAway('approaches');
  const catalogue = useCatalogue();
  const nameOf = new Map(athletes.map((athlete) => [athlete.id, athlete.name]));
  const squadOf = new Map(athletes.map((athlete) => [athlete.id, athlete.squad]));
  const here = list.filter((approach) => approach.archived === away);
  const words = (query.get('q') ?? '').toLowerCase().split(/\s+/).filter(Boolean);
  const movement = query.get('movement') ?? '';
  const shown = here.filter((approach) => {
    const people = approach.athleteIds.map((id) => `${nameOf.get(id)} ${squadOf.get(id)}`);
    const text = [approach.name, catalogue.nameOf(approach.movement), ...people]
      .join(' ')
      .toLowerCase();
    return (
      words.every((word) => text.includes(word)) &&
      (movement === '' || approach.movement === movement)
    );
  });
  const movements = [...new Set(here.map((approach) => approach.movement))]
    .map((code) => ({ code, name: catalogue.nameOf(code) }))
    .sort((a, b) => a.name.localeCompare(b.name));
  const duplicate = async (approach: ApproachSummary): Promise<void> => {
    const { name, movement, choices, athleteIds } = approach;
    // A press after a lost answer is the same copy.
    const id = (copies.current[approach.id] ??= uuid());
    const copy = { id, name: `${name.slice(0, 73)}, copy`, movement, choices, athleteIds };
    try {
      await write.mutateAsync(copy);
      delete copies.current[approach.id];
      void navigate(`/approaches/${id}`);
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return (
    <div className="stack">
      <div className="row-line">
        <Form.Control
          style={{ maxWidth: 300 }}
          type="search"
          placeholder="Search name, movement, athlete, squad"
          aria-label="Search approaches"
          value={query.get('q') ?? ''}
          onChange={(event) => set('q', event.target.value)}
        />
        <Form.Select
          style={{ width: 'auto' }}
          aria-label="Movement"
          value={movement}
          onChange={(event) => set('movement', event.target.value)}
        >
          <option value="">every movement</option>
          {movements.map(({ code, name }) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </Form.Select>
        <Form.Check
          type="switch"
          id="away"
          label="Put away"
          checked={away}
          onChange={(event) => setAway(event.target.checked)}
        />
        <span className="quiet small-text ms-auto">
          {counted(shown.length, 'approach', 'approaches')}
        </span>
      </div>
      {shown.length === 0 ? (
        here.length > 0 ? (
          <Empty title="No approach matches.">Change the search or the movement.</Empty>
        ) : (
          <Empty title={away ? 'Nothing is put away.' : 'No approach yet.'}>
            {!away && 'Plan a run-up for an athlete; it can then be run in a session.'}
          </Empty>
        )
      ) : (
        <div className="table-scroll">
          <table className="grid-table">
            <thead>
              <tr>
                <th>Approach</th>
                <th>Movement</th>
                <th className="num">Steps</th>
                <th>Start mark</th>
                <th>Athletes</th>
                <th>Saved</th>
                {mayPlan && <td />}
              </tr>
            </thead>
            <tbody>
              {shown.map((approach) => {
                const { choices, misfits } = approach;
                const steps = isSequence(choices) ? approach.steps : choices.steps;
                return (
                  <tr key={approach.id}>
                    <td>
                      <Link className="row-link" to={`/approaches/${approach.id}`}>
                        {approach.name}
                      </Link>
                    </td>
                    <td>
                      {catalogue.nameOf(approach.movement)}
                      {!isSequence(choices) && (
                        <span className="quiet small-text">, to the {choices.target}</span>
                      )}
                    </td>
                    <td className="num">
                      <span className="figure">{steps ?? '–'}</span>
                    </td>
                    <td>
                      <span className="figure">{startMarks(approach, style)}</span>{' '}
                      {!isSequence(choices) && (
                        <span className="quiet small-text">
                          {choices.distanceM === null ? 'each their own' : 'fixed'}
                        </span>
                      )}
                    </td>
                    <td>
                      {approach.athleteIds.map((id) => nameOf.get(id)?.split(' ')[0]).join(', ')}
                      {misfits.length > 0 && (
                        <div className="field-message">
                          does not fit {misfits.map((id) => nameOf.get(id)).join(', ')}
                        </div>
                      )}
                    </td>
                    <td className="quiet">
                      {dayName(dayIn(timeZone, new Date(approach.savedAt)))}
                    </td>
                    {mayPlan && !away && (
                      <td>
                        <button
                          type="button"
                          className="btn btn-sm btn-outline-dark"
                          aria-label={`Copy ${approach.name}`}
                          disabled={write.isPending}
                          onClick={() => void duplicate(approach)}
                        >
                          Copy
                        </button>
                      </td>
                    )}
                    {away && mayPlan && (
                      <td>
                        <button
                          type="button"
                          className="btn btn-sm btn-outline-dark"
                          onClick={() =>
                            void putAway(
                              `/approaches/${approach.id}`,
                              `${approach.name} is back.`,
                              false,
                            )
                          }
                        >
                          Bring back
                        </button>
                      </td>
                    )}
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
};

export const Approaches = () => {
  // Names that came later would push down the rows that somebody is about to press.
  const query = together(useApproaches(), useAthletes(), useClubMovements());
  const mayPlan = useMayPlan();
  return (
    <>
      <PageHead title="Approaches" over="How many steps, how long, from where">
        {mayPlan && (
          <>
            <Link className="btn btn-outline-dark" to="/movements">
              Plan another movement
            </Link>
            <Link className="btn btn-primary" to="/approaches/new">
              Plan a run-up
            </Link>
          </>
        )}
      </PageHead>
      <Loaded query={query} what="Getting the approaches …">
        {([list, athletes]) => <List list={list} athletes={athletes} />}
      </Loaded>
    </>
  );
};
