import { bodyOf } from '@gravek/core/layout/body';
import type { LengthStyle } from '@gravek/core/units';
import type { Choices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import { isSequence } from '@gravek/contract/choices';
import type { DrillSet, TargetKind } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import type { ApproachSummary } from '@gravek/contract/plan';
import { phasesOn } from '@gravek/library/planning/branches';
import { steadyTarget } from '@gravek/library/planning/steadyCadence';
import { cautionsOf } from '@gravek/library/session/restrictions';
import type { SetFigures } from '@gravek/library/session/sessionFigures';
import { brokenRules } from '@gravek/library/session/sessionFit';
import { KNOWN_FROM, makeRate, type Makes } from '@gravek/library/session/sessionTime';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field } from '../controls/Field';
import { Length } from '../controls/Figure';
import { useRuleSets } from '../parts/catalogue/useCatalogue';
import { ChoiceAt, FlagAt, NumberAt, TextAt } from '../parts/fields/At';
import { TARGET_NAMES } from '../parts/intoSession/setNames';
import { RotationView } from './RotationView';
import { StandForm } from './StandForm';
import { VaryForm } from './VaryForm';
import { WhoForm } from './WhoForm';

/** Of a run that is not steady, steps a minute. */
const USUAL_TEMPO_SPM = 180;

/** Steps a minute that are called where the first of a set holds the own target of the week. */
const tempoOf = (
  movement: Movement | null,
  choices: Choices | null,
  [first]: readonly Athlete[],
): number => {
  const cadence = choices && isSequence(choices) ? choices.cadence : null;
  const steady = movement && first ? steadyTarget(movement, cadence, bodyOf(first)) : null;
  return Math.round(steady?.cadenceSpm ?? USUAL_TEMPO_SPM);
};

const AMOUNTS: Record<TargetKind, string | null> = {
  attempts: null,
  makes: 'Makes',
  touches: 'Touches a rep',
  seconds: 'Seconds a rep',
  metres: 'Metres a rep',
  minutes: 'Minutes a rep',
};

/** What an amount begins with. */
const USUAL: Record<TargetKind, number> = {
  attempts: 1,
  makes: 3,
  touches: 20,
  seconds: 3,
  metres: 10,
  minutes: 5,
};

type Props = {
  set: DrillSet;
  index: number;
  figures: SetFigures;
  date: string;
  plans: readonly ApproachSummary[];
  athletes: readonly Athlete[];
  makesOf: (athleteId: string, movement: string) => Makes | undefined;
  lanes: number;
  inGroups: boolean;
  last: boolean;
  style: LengthStyle;
  messages: Record<string, string | null | undefined>;
  onSet: (change: Partial<DrillSet>) => void;
  /** puts its athletes on all sets; null where they are */
  onAll: (() => void) | null;
  onMove: (by: number) => void;
  onTakeOut: () => void;
};

/** A drill set opened in its line: what is done, what varies, until when, how people stand, who. */
export const SetForm = ({
  set,
  index,
  figures,
  date,
  plans,
  athletes,
  makesOf,
  lanes,
  inGroups,
  last,
  style,
  messages,
  onSet,
  onAll,
  onMove,
  onTakeOut,
}: Props) => {
  const at = (field: string): string => `drillSets[${index}].${field}`;
  const message = (field: string): string | undefined => messages[at(field)] ?? undefined;
  const { base, restShort } = figures;
  const { work } = set;
  const plan = work.kind === 'plan' ? plans.find((plan) => plan.id === work.approachId) : undefined;
  const chosen = athletes.filter((athlete) => set.athleteIds.includes(athlete.id));
  const ruleSets = useRuleSets();
  const { movement = null, choices = null } = base ?? {};
  const ruleSetId = choices && isSequence(choices) ? choices.ruleSet : null;
  const rules = ruleSets.find((set) => set.id === ruleSetId);
  const broken = movement && choices ? brokenRules(movement, { choices }, chosen, rules) : [];
  const canRead =
    movement !== null &&
    choices !== null &&
    isSequence(choices) &&
    phasesOn(movement, choices).some((phase) => phase.read);
  const number = (field: 'sets' | 'reps' | 'amount' | 'restS' | 'setRestS', label: string) => (
    <NumberAt at={at(field)} label={label} decimals={0} />
  );
  const rates = set.athleteIds.map((id) => makesOf(id, movement?.code ?? ''));
  const ratesKnown = rates.filter((rate) => rate && rate.tried >= KNOWN_FROM);
  const mean =
    ratesKnown.reduce((sum, makes) => sum + makeRate(makes), 0) / Math.max(1, ratesKnown.length);
  return (
    <section className="set-form" aria-label={`Drill set ${index + 1}`}>
      <div className="set-fields">
        {work.kind === 'plan' && (
          <Field label="Approach" message={message('work')}>
            <Form.Select
              value={work.approachId}
              onChange={(event) =>
                onSet({ work: { kind: 'plan', approachId: event.target.value } })
              }
            >
              {!plan && <option value={work.approachId}>Choose one</option>}
              {plans.map((approach) => (
                <option key={approach.id} value={approach.id}>
                  {approach.name}
                </option>
              ))}
            </Form.Select>
          </Field>
        )}
        {work.kind === 'movement' && (
          <ChoiceAt
            at={at('work.drill')}
            label="Part or drill"
            none="the whole"
            options={(movement?.drills ?? []).map(({ code, name }) => [code, name])}
          />
        )}
        {work.kind === 'warm-up' && <TextAt at={at('work.name')} label="What is done" />}
        <ChoiceAt
          at={at('target')}
          label="Until"
          options={Object.entries(TARGET_NAMES)}
          onChange={(chosen) => {
            const target = chosen as TargetKind;
            const reps = target === 'makes' ? Math.max(set.reps, USUAL.makes * 2) : set.reps;
            onSet({ target, reps, amount: USUAL[target] });
          }}
        />
        {AMOUNTS[set.target] && number('amount', AMOUNTS[set.target]!)}
        {number('reps', set.target === 'makes' ? 'On after tries' : 'Reps of each')}
        {number('sets', 'Rounds')}
        {number('restS', 'Rest, s')}
        {number('setRestS', 'Round rest, s')}
      </div>
      {restShort && (
        <div className="note small-text" role="status">
          {restShort.metres >= 1 ? (
            <>
              For <Length m={restShort.metres} style={style} /> at{' '}
              {Math.round(100 * restShort.speed)} % of full speed
            </>
          ) : (
            'Here'
          )}{' '}
          about {restShort.restS} s of rest are usual.{' '}
          <button
            type="button"
            className="btn btn-link p-0 small-text align-baseline"
            onClick={() => onSet({ restS: restShort.restS })}
          >
            Rest {restShort.restS} s
          </button>
        </div>
      )}
      {set.target === 'makes' && set.stand !== 'stations' && (
        <div>
          <FlagAt
            at={at('retryMissed')}
            label="at the end of a round, once more through what was missed"
          />
        </div>
      )}
      {set.target === 'makes' && (
        <div className="small-text quiet">
          {ratesKnown.length > 0
            ? `By own rates, about ${Math.round(100 * mean)} % made, of ${ratesKnown.length} of ${set.athleteIds.length} athletes; half is taken for the others.`
            : 'Nobody has ten counted tries yet: half is taken to be made.'}
        </div>
      )}
      {base && <VaryForm set={set} base={base} people={chosen} onSet={onSet} />}
      {message('struck') && (
        <div className="field-message" role="alert">
          {message('struck')}
        </div>
      )}
      <StandForm
        set={set}
        lanes={lanes}
        inGroups={inGroups}
        canRead={canRead}
        tempoSpm={tempoOf(movement, choices, chosen)}
        at={`drillSets[${index}]`}
        onSet={onSet}
      />
      <RotationView set={set} time={figures.time} athletes={athletes} />
      {broken.length > 0 && (
        <div className="note note-wrong" role="status">
          <strong>{rules?.name}:</strong>{' '}
          {broken.map(({ why, names }) => `${why} (${names.join(', ')})`).join(' ')}
        </div>
      )}
      {movement &&
        choices &&
        // What the surface asks is said once, above all sets.
        cautionsOf(movement, { ...choices, ground: null }).map((caution) => (
          <div key={caution} className="caution small-text">
            {caution}
          </div>
        ))}
      <WhoForm
        set={set}
        base={base}
        plannedIds={plan?.athleteIds ?? []}
        date={date}
        athletes={athletes}
        style={style}
        message={message('athleteIds')}
        onSet={onSet}
        onAll={onAll}
      />
      <div className="row-line">
        <Button
          size="sm"
          variant="outline-dark"
          aria-label={`Drill set ${index + 1} earlier`}
          disabled={index === 0}
          onClick={() => onMove(-1)}
        >
          Earlier
        </Button>
        <Button
          size="sm"
          variant="outline-dark"
          aria-label={`Drill set ${index + 1} later`}
          disabled={last}
          onClick={() => onMove(1)}
        >
          Later
        </Button>
        <Button size="sm" variant="outline-dark" onClick={onTakeOut}>
          Take out
        </Button>
      </div>
    </section>
  );
};
