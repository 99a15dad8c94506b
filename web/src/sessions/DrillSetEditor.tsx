import {
  bodyOf,
  checkRules,
  compareStepCounts,
  formatLength,
  type LengthStyle,
} from '@gravek/core';
import {
  isSequence,
  straightAsk,
  type Approach,
  type Athlete,
  type DrillSet,
  type NamedRuleSet,
} from '@gravek/contract';
import { barredBy, laidOut, outlineOf, solvePlan, whyBarred } from '@gravek/library';
import Form from 'react-bootstrap/Form';
import { Field } from '../controls/Field';
import { NumberInput } from '../controls/NumberInput';
import { Segments } from '../controls/Segments';
import { useRuleSets, type Catalogue } from '../movements/useCatalogue';

type Props = {
  set: DrillSet;
  index: number;
  date: string;
  movements: Catalogue;
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

/** Where an athlete starts on an approach and with which foot, or why it cannot be run. */
const fitOf = (
  movements: Catalogue,
  approach: Approach,
  athlete: Athlete,
  style: LengthStyle,
): { mark: string; fits: boolean } => {
  const { choices } = approach;
  const body = bodyOf(athlete);
  const outline = outlineOf(solvePlan(movements.of(approach.movement), choices, body));
  if (outline) {
    const mark =
      outline.startM === null
        ? `${outline.firstFoot} foot first`
        : formatLength(outline.startM, style);
    return { mark: body.estimated.includes('steps') ? `${mark}, estimate` : mark, fits: true };
  }
  if (isSequence(choices)) return { mark: 'no step to take', fits: false };
  const ask = straightAsk(choices, body, body.model);
  const { recommended } = compareStepCounts({ ...ask, checkMarks: [] }, 1, 40);
  return {
    mark: recommended ? `does not fit; ${recommended} steps would` : 'does not fit',
    fits: false,
  };
};

/** What the plan breaks of the step rules that it is held to, each with the athletes it is about. */
const brokenRules = (
  movements: Catalogue,
  approach: Approach,
  athletes: readonly Athlete[],
  rules: NamedRuleSet | undefined,
): { why: string; names: string[] }[] => {
  const { choices, movement } = approach;
  if (!isSequence(choices) || !rules) return [];
  const found = new Map<string, string[]>();
  for (const one of athletes) {
    const { footfalls } = laidOut(movements.of(movement), bodyOf(one), choices);
    for (const { why } of checkRules(footfalls, rules)) {
      found.set(why, [...(found.get(why) ?? []), one.name.split(' ')[0]!]);
    }
  }
  return [...found].map(([why, names]) => ({ why, names }));
};

/** One drill set: what is run, by whom, how often, with how much rest. */
export const DrillSetEditor = ({
  set,
  index,
  date,
  movements,
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
  const ruleSets = useRuleSets();
  const held = approach && isSequence(approach.choices) ? approach.choices.ruleSet : null;
  const rules = ruleSets.find((one) => one.id === held);
  const broken = approach
    ? brokenRules(
        movements,
        approach,
        athletes.filter((one) => chosen.has(one.id)),
        rules,
      )
    : [];
  const people = athletes
    .filter((one) => !one.archived || chosen.has(one.id))
    .map((one) => ({
      one,
      planned: approach?.athleteIds.includes(one.id) ?? false,
      barred: approach ? barredBy(movements.of(approach.movement), one.restrictions, date) : null,
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
      approach && on
        ? fitOf(movements, approach, one, { ...style, shoeM: one.shoeM ?? undefined })
        : null;
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
                      !barredBy(movements.of(next.movement), one.restrictions, date),
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
        <span className="form-label mb-0">Side</span>
        <Segments
          label="Side"
          value={sideChoice(set.sides)}
          onChoose={(value) => onSet({ sides: [...SIDES[value]] })}
          options={[
            { value: 'own', label: 'own side' },
            { value: 'other', label: 'other side' },
            { value: 'both', label: 'both' },
          ]}
        />
        {messages[at('sides')] && <span className="field-message">{messages[at('sides')]}</span>}
      </div>
      {broken.length > 0 && (
        <div className="span-12 note note-wrong" role="status">
          <strong>{rules?.name}:</strong>{' '}
          {broken.map(({ why, names }) => `${why} (${names.join(', ')})`).join(' ')}
        </div>
      )}
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
            {whyBarred(one.name, why!)}
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
