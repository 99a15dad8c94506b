import type { Choices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import {
  barredBy,
  cautionsOf,
  demandOf,
  holding,
  whyBarred,
} from '@gravek/library/session/restrictions';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useMayPlan, useMember } from '../../member/member';
import { useTitle } from '../../controls/useTitle';
import { Conflict, DraftBack } from '../../controls/Conflict';
import { AddToSession } from './AddToSession';
import type { usePlan } from './usePlan';

type Plan = ReturnType<typeof usePlan>;

/** Name, athlete, the figures that answer first, and what can be done with a plan. */
export const PlanHead = ({
  plan,
  athlete,
  athletes,
  movement,
  saved,
  onAthlete,
  onList,
  onSave,
  children,
}: {
  plan: Pick<Plan, 'draft' | 'served' | 'saving'> & { rename: (name: string) => void };
  athlete: Athlete;
  athletes: readonly Athlete[];
  movement: Movement;
  saved: boolean;
  onAthlete: (id: string) => void;
  /** puts somebody on the plan, or takes them off it */
  onList: (ids: readonly string[], on: boolean) => void;
  onSave: () => void;
  children: React.ReactNode;
}) => {
  useTitle(`${plan.draft.name}, ${athlete.name}`);
  const mayPlan = useMayPlan();
  const { draft, served } = plan;
  const onPlan = athletes.filter((athlete) => draft.athleteIds.includes(athlete.id));
  const others = athletes.filter(
    (athlete) => !draft.athleteIds.includes(athlete.id) && !athlete.archived,
  );
  const squads = [...new Set(others.map((other) => other.squad).filter(Boolean))].sort();
  const listed = draft.athleteIds.includes(athlete.id);
  return (
    <header className="planner-head">
      <h1 className="visually-hidden">Approach being planned</h1>
      <div className="planner-title">
        <Form.Control
          aria-label="Name of the approach"
          className="plan-name"
          value={draft.name}
          disabled={!mayPlan}
          onChange={(event) => plan.rename(event.target.value)}
        />
        {served.name && <div className="field-message">{served.name}</div>}
        <Form.Select
          aria-label="Athlete"
          className="plan-athlete"
          value={athlete.id}
          onChange={(event) => onAthlete(event.target.value)}
        >
          {onPlan.length > 0 && (
            <optgroup label="On this approach">
              {onPlan.map((athlete) => (
                <option key={athlete.id} value={athlete.id}>
                  {athlete.name}
                </option>
              ))}
            </optgroup>
          )}
          <optgroup label="Others">
            {others.map((other) => (
              <option key={other.id} value={other.id}>
                {other.name}
              </option>
            ))}
          </optgroup>
        </Form.Select>
        {mayPlan && (draft.version !== null || draft.athleteIds.length > 1) && (
          <Button
            variant="link"
            className="p-0 small-text no-print"
            onClick={() => onList([athlete.id], !listed)}
          >
            {listed
              ? `Take ${athlete.name.split(' ')[0]} off this approach`
              : `Put ${athlete.name.split(' ')[0]} on this approach`}
          </Button>
        )}
        {mayPlan && squads.length > 0 && (
          <Form.Select
            aria-label="Put a whole squad on it"
            size="sm"
            className="no-print mt-1"
            value=""
            onChange={(event) =>
              onList(
                others
                  .filter((other) => other.squad === event.target.value)
                  .map((other) => other.id),
                true,
              )
            }
          >
            <option value="">Put a whole squad on it …</option>
            {squads.map((squad) => (
              <option key={squad} value={squad}>
                {squad}, {others.filter((other) => other.squad === squad).length} more
              </option>
            ))}
          </Form.Select>
        )}
      </div>
      {children}
      <div className="page-acts ms-auto d-flex gap-2 no-print">
        {saved && mayPlan && <AddToSession plan={draft} movement={movement} athletes={athletes} />}
        {mayPlan && (
          <Button disabled={plan.saving} onClick={onSave}>
            {plan.saving ? 'Saving …' : 'Save'}
          </Button>
        )}
      </div>
    </header>
  );
};

/** What a coach must know before using the plan: conflicts, drafts, estimates, restrictions. */
export const PlanNotes = ({
  plan,
  athlete,
  movement,
  choices,
  estimated,
  inForm,
}: {
  plan: Pick<Plan, 'conflict' | 'takeTheirs' | 'dropDraft' | 'served'>;
  athlete: Athlete;
  movement: Movement;
  choices: Choices;
  /** what was never measured, as a sentence; null when all was */
  estimated: string | null;
  /** what is missing is asked for in the athlete's form, not by a measured run */
  inForm: boolean;
}) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const barred = barredBy(demandOf(movement, choices), athlete.restrictions, today);
  const reduced = holding(athlete.restrictions, today).find(({ kind }) => kind === 'reduced');
  return (
    <div className="stack mb-2" style={{ gap: 8 }}>
      {choices.ground && <div className="print-only">At {choices.ground.name}</div>}
      <Conflict {...plan.conflict} />
      {plan.served.movement && <div className="field-message">{plan.served.movement}</div>}
      {plan.takeTheirs && (
        <div className="note" role="status">
          Somebody has saved this approach since you opened it.{' '}
          <Button size="sm" variant="outline-dark" onClick={plan.takeTheirs}>
            Show theirs
          </Button>
        </div>
      )}
      {plan.dropDraft && mayPlan && <DraftBack onDrop={plan.dropDraft} />}
      {estimated && (
        <div className="note">
          <span className="tag tag-estimate">estimate</span> {estimated}{' '}
          <Link to={`/athletes/${athlete.id}${inForm ? '?measure' : ''}`}>Measure</Link> before
          setting out to the centimetre.
        </div>
      )}
      {barred && (
        <div className="note note-wrong">
          {whyBarred(athlete.name, barred)} Sessions will not let this run.
        </div>
      )}
      {reduced && (
        <div className="note">
          {whyBarred(athlete.name, reduced)} Sessions give {Math.round(reduced.share * 100)} % of
          the reps, counted.
        </div>
      )}
      <ul className="cautions small-text mb-0" aria-label="Cautions">
        {cautionsOf(movement, choices).map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
    </div>
  );
};
