import {
  compareStepCounts,
  currentModel,
  formatLength,
  solveStraight,
  type LengthStyle,
} from '@gravek/core';
import { straightAsk, type Approach, type Athlete, type DrillSet } from '@gravek/contract';
import { barredBy, movementOf } from '@gravek/library';
import Form from 'react-bootstrap/Form';
import { RESTRICTION_NAMES } from '../athletes/restrictions';
import { Field } from '../controls/Field';
import { NumberInput } from '../controls/NumberInput';
import { Segments } from '../controls/Segments';

type Props = {
  set: DrillSet;
  index: number;
  date: string;
  approaches: readonly Approach[];
  athletes: readonly Athlete[];
  style: LengthStyle;
  messages: Record<string, string | null | undefined>;
  onSet: (change: Partial<DrillSet>) => void;
  onMessage: (path: string, message: string | null) => void;
};

const SIDES = { own: ['own'], other: ['other'], both: ['own', 'other'] } as const;
type SideChoice = keyof typeof SIDES;

const sideChoice = (sides: readonly string[]): SideChoice =>
  sides.length === 2 ? 'both' : sides[0] === 'other' ? 'other' : 'own';

/** Start mark of an athlete on an approach, or why there is none. */
const fitOf = (
  approach: Approach,
  athlete: Athlete,
  style: LengthStyle,
): { mark: string; fits: boolean } => {
  const { model, source } = currentModel(athlete);
  const ask = straightAsk(approach.choices, { takeoffFoot: athlete.takeoffFoot }, model);
  const result = solveStraight(ask);
  if (result.feasible) {
    const mark = formatLength(result.distanceM, style);
    return { mark: source === 'estimate' ? `${mark}, estimate` : mark, fits: true };
  }
  const { recommended } = compareStepCounts({ ...ask, checkMarks: [] }, 1, 40);
  return {
    mark: recommended ? `does not fit; ${recommended} steps would` : 'does not fit',
    fits: false,
  };
};

/** One drill set: what is run, by whom, how often, with how much rest. */
export const DrillSetEditor = ({
  set,
  index,
  date,
  approaches,
  athletes,
  style,
  messages,
  onSet,
  onMessage,
}: Props) => {
  const at = (field: string): string => `drillSets[${index}].${field}`;
  const approach = approaches.find((one) => one.id === set.approachId);
  const chosen = new Set(set.athleteIds);
  const people = athletes
    .filter((one) => !one.archived || chosen.has(one.id))
    .map((one) => ({
      one,
      planned: approach?.athleteIds.includes(one.id) ?? false,
      barred: approach ? barredBy(movementOf(approach.movement), one.restrictions, date) : null,
    }))
    .sort((a, b) => Number(b.planned) - Number(a.planned) || a.one.name.localeCompare(b.one.name));
  const toggle = (id: string): void =>
    onSet({
      athleteIds: chosen.has(id)
        ? set.athleteIds.filter((one) => one !== id)
        : [...set.athleteIds, id],
    });
  const barred = people.filter((one) => one.barred && (one.planned || chosen.has(one.one.id)));
  const number = (field: 'sets' | 'reps' | 'restS' | 'setRestS', label: string) => (
    <Field label={label} message={messages[at(field)] ?? undefined}>
      <NumberInput
        value={set[field]}
        decimals={0}
        onNumber={(value) => onSet({ [field]: value })}
        onMessage={(message) => onMessage(at(field), message)}
      />
    </Field>
  );
  const pick = ({ one, barred: why }: (typeof people)[number]) => {
    const on = chosen.has(one.id);
    const fit =
      approach && on ? fitOf(approach, one, { ...style, shoeM: one.shoeM ?? undefined }) : null;
    return (
      <button
        key={one.id}
        type="button"
        className={why ? 'pick barred' : 'pick'}
        aria-pressed={on}
        disabled={why !== null && !on}
        onClick={() => toggle(one.id)}
      >
        {one.name}
        {one.archived && ', archived'}
        {fit && (
          <span className="d-block small-text">
            {fit.fits ? <span className="figure">{fit.mark}</span> : fit.mark}
          </span>
        )}
      </button>
    );
  };
  const planned = people.filter((one) => one.planned || chosen.has(one.one.id));
  const others = people.filter((one) => !one.planned && !chosen.has(one.one.id));
  return (
    <div className="set-editor">
      <div className="span-4">
        <Field label="Approach" message={messages[at('approachId')] ?? undefined}>
          <Form.Select
            value={set.approachId}
            onChange={(event) => {
              const next = approaches.find((one) => one.id === event.target.value);
              onSet({
                approachId: event.target.value,
                athleteIds: athletes
                  .filter(
                    (one) =>
                      next?.athleteIds.includes(one.id) &&
                      !one.archived &&
                      !barredBy(movementOf(next.movement), one.restrictions, date),
                  )
                  .map((one) => one.id),
              });
            }}
          >
            {!approach && <option value={set.approachId}>Choose one</option>}
            {approaches.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Form.Select>
        </Field>
      </div>
      <div className="span-2">{number('sets', 'Sets')}</div>
      <div className="span-2">{number('reps', 'Reps a side')}</div>
      <div className="span-2">{number('restS', 'Rest, s')}</div>
      <div className="span-2">{number('setRestS', 'Set rest, s')}</div>
      <div className="span-12 row-line">
        <span className="form-label mb-0">Take-off from</span>
        <Segments
          label="Take-off from"
          value={sideChoice(set.sides)}
          onChoose={(value) => onSet({ sides: [...SIDES[value]] })}
          options={[
            { value: 'own', label: 'own foot' },
            { value: 'other', label: 'other foot' },
            { value: 'both', label: 'both' },
          ]}
        />
        {messages[at('sides')] && <span className="field-message">{messages[at('sides')]}</span>}
      </div>
      <div className="span-12">
        <div className="form-label">Athletes, in the order of their turns</div>
        <div className="picks">{planned.map(pick)}</div>
        {messages[at('athleteIds')] && (
          <div className="field-message" role="alert">
            {messages[at('athleteIds')]}
          </div>
        )}
        {barred.map(({ one, barred: why }) => (
          <div key={one.id} className="field-message">
            {one.name} cannot run this until {why!.until}: {RESTRICTION_NAMES[why!.kind]}.
          </div>
        ))}
        {others.length > 0 && (
          <details className="mt-2">
            <summary className="quiet small-text">{others.length} others</summary>
            <div className="picks mt-2">{others.map(pick)}</div>
          </details>
        )}
      </div>
    </div>
  );
};
