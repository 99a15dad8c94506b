import { groupBy } from '@gravek/core/session/repLog';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { OnGround } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { ChosenSet, Reason, SetChoice } from '@gravek/library/session/chooseBlocks';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { sentenceOf } from '../api/client';
import { useNeeds } from '../api/queries';
import { minutes as inMinutes } from '../controls/dates';
import { Field } from '../controls/Field';
import { NumberInput } from '../controls/NumberInput';
import { useSettled } from '../controls/useSettled';
import { fetchDocuments } from '../parts/catalogue/documents';
import { bodiesOf, codesOf } from './useWork';
import type { ChooseAsk } from './worker/session.worker';
import { askWork } from './worker/sessionWork';

const NAMES_SHOWN = 4;
const SETTLES_MS = 250;
const MOST_MINUTES = 600;

/** Those of the session; a squad, by its name; or everybody. */
type Whose = 'session' | 'all' | { squad: string };

const asWhose = (value: string): Whose =>
  value === 'session' || value === 'all' ? value : { squad: value.slice('squad:'.length) };
/** In the order in which they are run. */
const setsOf = ({ blocks }: SetChoice): DrillSet[] =>
  blocks.flatMap(({ sets }) => sets.map(({ set }) => set));

const valueOf = (whose: Whose): string =>
  typeof whose === 'string' ? whose : `squad:${whose.squad}`;

/** With the minutes and lanes there are, the blocks that do most for these athletes, and why. */
export const ChooseSets = ({
  date,
  presentIds,
  leftMin,
  lanes: groundLanes,
  ground,
  athletes,
  plans,
  clubMovements,
  onTake,
  onClose,
}: {
  date: string;
  /** athletes of the session so far */
  presentIds: readonly string[];
  /** of the slot, or what is usual */
  leftMin: number;
  lanes: number;
  ground: OnGround | null;
  athletes: readonly Athlete[];
  plans: ApproachSummary[];
  clubMovements: readonly Movement[];
  onTake: (sets: DrillSet[]) => void;
  onClose: () => void;
}) => {
  const needs = useNeeds(date);
  const active = useMemo(() => athletes.filter((athlete) => !athlete.archived), [athletes]);
  const bodies = useMemo(() => bodiesOf(active), [active]);
  const squads = useMemo(
    () => [...new Set(active.map((athlete) => athlete.squad))].sort(),
    [active],
  );
  const [whose, setWhose] = useState<Whose>(
    presentIds.length > 0 ? 'session' : squads[0] !== undefined ? { squad: squads[0] } : 'all',
  );
  const [minutes, setMinutes] = useState(leftMin);
  const [lanes, setLanes] = useState(groundLanes);
  const [wrong, setWrong] = useState<Record<string, string | null>>({});
  const [chosen, setChosen] = useState<{ ask: ChooseAsk; choice: SetChoice } | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const ask = useMemo((): ChooseAsk | null => {
    if (!needs.data) return null;
    const people = active.filter((athlete) =>
      whose === 'all'
        ? true
        : whose === 'session'
          ? presentIds.includes(athlete.id)
          : athlete.squad === whose.squad,
    );
    const ids = new Set(people.map((person) => person.id));
    return {
      needs: needs.data,
      athletes: people,
      bodies: [...bodies].filter(([id]) => ids.has(id)),
      plans,
      clubMovements: [...clubMovements],
      ground,
      lanes: Math.min(20, Math.max(1, Math.round(lanes))),
      on: date,
      seconds: 60 * Math.min(MOST_MINUTES, Math.max(0, minutes)),
    };
  }, [
    needs.data,
    active,
    whose,
    presentIds,
    bodies,
    plans,
    clubMovements,
    ground,
    lanes,
    date,
    minutes,
  ]);
  const settled = useSettled(ask, SETTLES_MS);
  useEffect(() => {
    if (!settled) return undefined;
    let over = false;
    askWork((work) => work.choose(settled))
      .then(async (choice) => {
        await fetchDocuments(codesOf(setsOf(choice), settled.plans));
        return choice;
      })
      .then(
        (choice) => {
          if (!over) setChosen({ ask: settled, choice });
        },
        (error: unknown) => {
          if (!over) setFailed(sentenceOf(error));
        },
      );
    return () => {
      over = true;
    };
  }, [settled]);

  const firstName = (id: string): string =>
    athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? '?';
  const names = (ids: readonly string[]): string => {
    const shown = ids.slice(0, NAMES_SHOWN).map(firstName).join(', ');
    return ids.length > NAMES_SHOWN ? `${shown} and ${ids.length - NAMES_SHOWN} more` : shown;
  };
  const reason = ({ what, athleteIds }: Reason): string => `${names(athleteIds)}: ${what}`;
  const take = (made: SetChoice): void =>
    onTake(
      setsOf(made).map((set) =>
        lanes === groundLanes || set.lanes !== null ? set : { ...set, lanes: chosen!.ask.lanes },
      ),
    );
  const setLines = ({ name, reasons, joining }: ChosenSet): React.ReactNode => (
    <>
      <strong>{name}</strong>
      <ul className="plain-points small-text">
        {reasons.map((other) => (
          <li key={`${other.kind}${other.what}`}>{reason(other)}</li>
        ))}
        {joining.length > 0 && <li>{names(joining)}: nothing due, joining in</li>}
      </ul>
    </>
  );
  const choice = chosen?.choice ?? null;
  // What was chosen for what was asked before is shown, and not put in.
  const reckoning = chosen?.ask !== ask;
  return (
    <section className="panel stack choose" aria-label="Choose for me">
      <div className="set-fields">
        <Field label="For">
          <Form.Select
            value={valueOf(whose)}
            onChange={(event) => setWhose(asWhose(event.target.value))}
          >
            {presentIds.length > 0 && (
              <option value="session">the {counted(presentIds.length, 'athlete')} of it</option>
            )}
            {squads.map((squad) => (
              <option key={squad} value={`squad:${squad}`}>
                {squad || 'without a squad'}
              </option>
            ))}
            <option value="all">everybody</option>
          </Form.Select>
        </Field>
        <Field label="Minutes" message={wrong.minutes ?? undefined}>
          <NumberInput
            value={minutes}
            decimals={0}
            onNumber={setMinutes}
            onMessage={(message) => setWrong({ ...wrong, minutes: message })}
          />
        </Field>
        <Field label="Lanes" message={wrong.lanes ?? undefined}>
          <NumberInput
            value={lanes}
            decimals={0}
            onNumber={setLanes}
            onMessage={(message) => setWrong({ ...wrong, lanes: message })}
          />
        </Field>
        <div className="row-line align-self-end">
          <Button
            disabled={reckoning || choice === null || choice.blocks.length === 0}
            onClick={() => choice && take(choice)}
          >
            Put {choice && setsOf(choice).length === 1 ? 'it' : 'them'} in
          </Button>
          <Button variant="outline-dark" onClick={onClose}>
            Close
          </Button>
        </div>
      </div>
      {failed ?? (needs.isError && sentenceOf(needs.error))}
      {choice === null ? (
        <span className="quiet" role="status">
          Choosing …
        </span>
      ) : (
        <div className={reckoning ? 'stack stale' : 'stack'} aria-busy={reckoning}>
          {choice.blocks.length === 0 ? (
            <span className="quiet">
              {choice.leftOut.length === 0
                ? 'Nothing calls for a set: no cue, no test due, no rung to change.'
                : 'Nothing fits into the time.'}
            </span>
          ) : (
            <>
              <h3 className="mb-0">
                {counted(choice.blocks.length, 'block')} in {inMinutes(choice.seconds)}
              </h3>
              <ol className="chosen-sets">
                {choice.blocks.map(({ seconds, sets }) => (
                  <li key={sets[0]!.set.id}>
                    <span className="figure">{inMinutes(seconds)}</span>
                    <div className="chosen-block">
                      {sets.map((chosenSet) => (
                        <div key={chosenSet.set.id}>{setLines(chosenSet)}</div>
                      ))}
                    </div>
                  </li>
                ))}
              </ol>
            </>
          )}
          {[...groupBy(choice.leftOut, ({ why }) => why)].map(([why, some]) => (
            <div key={why} className="quiet small-text">
              Left out, {why}: {some.map(reason).join(' · ')}
            </div>
          ))}
        </div>
      )}
    </section>
  );
};
