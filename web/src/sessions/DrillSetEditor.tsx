import { type LengthStyle, type Side } from '@gravek/core';
import {
  isSequence,
  type ApproachSummary,
  type Athlete,
  type DrillSet,
  type OnGround,
} from '@gravek/contract';
import {
  atPace,
  barredBy,
  brokenRules,
  cautionsOf,
  demandOf,
  fitOf,
  hasPaces,
  mayRun,
  setOn,
  sideWord,
  whyBarred,
} from '@gravek/library';
import Form from 'react-bootstrap/Form';
import { Field } from '../controls/Field';
import { NumberInput } from '../controls/NumberInput';
import { Segments } from '../controls/Segments';
import { PaceChoice } from '../movements/PaceChoices';
import { useRuleSets, type Catalogue } from '../movements/useCatalogue';
import { counted } from '../controls/dates';

type Props = {
  set: DrillSet;
  index: number;
  date: string;
  movements: Catalogue;
  approaches: readonly ApproachSummary[];
  athletes: readonly Athlete[];
  /** where the session is; null for elsewhere */
  ground: OnGround | null;
  style: LengthStyle;
  messages: Record<string, string | null | undefined>;
  onSet: (change: Partial<DrillSet>) => void;
  onMessage: (path: string, message: string | null) => void;
};

const SIDES = { own: ['own'], other: ['other'], both: ['own', 'other'] } as const;
type SideChoice = keyof typeof SIDES;

const sideChoice = (sides: readonly string[]): SideChoice =>
  sides.length === 2 ? 'both' : sides[0] === 'other' ? 'other' : 'own';

/** One drill set: what is run, by whom, how often, with how much rest. */
export const DrillSetEditor = ({
  set,
  index,
  date,
  movements,
  approaches,
  athletes,
  ground,
  style,
  messages,
  onSet,
  onMessage,
}: Props) => {
  const at = (field: string): string => `drillSets[${index}].${field}`;
  const named = approaches.find((approach) => approach.id === set.approachId);
  const movement = named && movements.of(named.movement);
  // As the set runs it.
  const approach = named &&
    movement && {
      ...named,
      choices: atPace(movement, setOn(named.choices, ground), set.pace),
    };
  const chosen = new Set(set.athleteIds);
  const ruleSets = useRuleSets();
  const held = approach && isSequence(approach.choices) ? approach.choices.ruleSet : null;
  const rules = ruleSets.find((set) => set.id === held);
  const broken =
    approach && movement
      ? brokenRules(
          movement,
          approach,
          athletes.filter((athlete) => chosen.has(athlete.id)),
          rules,
        )
      : [];
  const people = athletes
    .filter((athlete) => !athlete.archived || chosen.has(athlete.id))
    .map((athlete) => ({
      one: athlete,
      planned: approach?.athleteIds.includes(athlete.id) ?? false,
      barred:
        approach && movement
          ? barredBy(demandOf(movement, approach.choices), athlete.restrictions, date)
          : null,
    }))
    .sort((a, b) => Number(b.planned) - Number(a.planned) || a.one.name.localeCompare(b.one.name));
  /** One word for all of the set, where it is one. */
  const sideOf = (which: Side): string => {
    const words = new Set(
      movement
        ? athletes
            .filter((athlete) => chosen.has(athlete.id))
            .map((athlete) => sideWord(movement, athlete, which))
        : [],
    );
    if (words.size === 1) return [...words][0]!;
    return which === 'own' ? 'each one’s own side' : 'each one’s other side';
  };
  const toggle = (id: string): void =>
    onSet({
      athleteIds: chosen.has(id)
        ? set.athleteIds.filter((one) => one !== id)
        : [...set.athleteIds, id],
    });
  const barred = people.filter(
    (person) => person.barred && (person.planned || chosen.has(person.one.id)),
  );
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
      approach && movement && on
        ? fitOf(movement, approach, one, {
            ...style,
            shoeM: one.shoeM ?? undefined,
          })
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
  const planned = people.filter((person) => person.planned || chosen.has(person.one.id));
  const others = people.filter((person) => !person.planned && !chosen.has(person.one.id));
  // Whoever may run it and is not on it yet, by squad and by position.
  const open =
    movement && approach
      ? mayRun({ movement, choices: approach.choices }, athletes, date).filter(
          (athlete) => !chosen.has(athlete.id),
        )
      : [];
  const groups = [
    ...new Map(
      open.flatMap((athlete) => [
        ...(athlete.squad ? [[athlete.squad, 'squad'] as const] : []),
        ...athlete.positions.map((position) => [position, 'position'] as const),
      ]),
    ).entries(),
  ]
    .map(([name, kind]) => ({
      name,
      ids: open
        .filter((one) => (kind === 'squad' ? one.squad === name : one.positions.includes(name)))
        .map((one) => one.id),
    }))
    .sort((a, b) => b.ids.length - a.ids.length || a.name.localeCompare(b.name));
  return (
    <div className="set-editor">
      <div className="span-4">
        <Field label="Approach" message={messages[at('approachId')] ?? undefined}>
          <Form.Select
            value={set.approachId}
            onChange={(event) => {
              const next = approaches.find((approach) => approach.id === event.target.value);
              onSet({
                approachId: event.target.value,
                pace: 1,
                athleteIds: next
                  ? mayRun({ ...next, movement: movements.of(next.movement) }, athletes, date)
                      .filter((athlete) => next.athleteIds.includes(athlete.id))
                      .map((athlete) => athlete.id)
                  : [],
              });
            }}
          >
            {!approach && <option value={set.approachId}>Choose one</option>}
            {approaches.map((approach) => (
              <option key={approach.id} value={approach.id}>
                {approach.name}
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
            { value: 'own', label: sideOf('own') },
            { value: 'other', label: sideOf('other') },
            { value: 'both', label: 'both' },
          ]}
        />
        {approach && movement && hasPaces(movement, approach.choices) && (
          <PaceChoice pace={set.pace} onPace={(pace) => onSet({ pace })} />
        )}
        {messages[at('sides')] && <span className="field-message">{messages[at('sides')]}</span>}
      </div>
      {broken.length > 0 && (
        <div className="span-12 note note-wrong" role="status">
          <strong>{rules?.name}:</strong>{' '}
          {broken.map(({ why, names }) => `${why} (${names.join(', ')})`).join(' ')}
        </div>
      )}
      {approach &&
        movement &&
        // What the surface asks is said once, above all sets.
        cautionsOf(movement, { ...approach.choices, ground: null }).map((caution) => (
          <div key={caution} className="span-12 caution small-text">
            {caution}
          </div>
        ))}
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
        {movement && approach && (
          <Form.Select
            aria-label="Put a squad or position on it"
            size="sm"
            className="mt-2"
            style={{ width: 'auto' }}
            value=""
            onChange={(event) => {
              const group = groups[Number(event.target.value)];
              if (group) onSet({ athleteIds: [...set.athleteIds, ...group.ids] });
            }}
          >
            <option value="">Put a squad or position on it …</option>
            {groups.map(({ name, ids }, i) => (
              <option key={name} value={i}>
                {name}, {ids.length} more
              </option>
            ))}
          </Form.Select>
        )}
        {others.length > 0 && (
          <details className="mt-2">
            <summary className="quiet small-text">{counted(others.length, 'other')}</summary>
            <div className="picks mt-2">{others.map(pick)}</div>
          </details>
        )}
      </div>
    </div>
  );
};
