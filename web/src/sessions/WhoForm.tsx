import type { LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import { barredBy, whyBarred } from '@gravek/library/session/restrictions';
import { fitOf, mayRun } from '@gravek/library/session/sessionFit';
import { demandOfSet, type Base } from '@gravek/library/session/work';
import Form from 'react-bootstrap/Form';
import { counted } from '@gravek/core/words';

type Props = {
  set: DrillSet;
  base: Base | null;
  /** those that the plan is for */
  plannedIds: readonly string[];
  date: string;
  athletes: readonly Athlete[];
  style: LengthStyle;
  message: string | undefined;
  onSet: (change: Partial<DrillSet>) => void;
  /** puts these on all sets; null where they are */
  onAll: (() => void) | null;
};

/** Who takes part, in the order of their turns: one by one, by squad or by position. */
export const WhoForm = ({
  set,
  base,
  plannedIds,
  date,
  athletes,
  style,
  message,
  onSet,
  onAll,
}: Props) => {
  const chosen = new Set(set.athleteIds);
  const turns = new Map(set.athleteIds.map((id, i) => [id, i + 1]));
  const loads = base ? demandOfSet(base, set) : [];
  const people = athletes
    .filter((athlete) => !athlete.archived || chosen.has(athlete.id))
    .map((athlete) => ({
      athlete,
      planned: plannedIds.includes(athlete.id),
      barred: barredBy(loads, athlete.restrictions, date),
    }))
    .sort(
      (a, b) =>
        Number(b.planned) - Number(a.planned) || a.athlete.name.localeCompare(b.athlete.name),
    );
  const barred = people.filter(
    (person) => person.barred && (person.planned || chosen.has(person.athlete.id)),
  );
  const toggle = (id: string): void =>
    onSet({
      athleteIds: chosen.has(id)
        ? set.athleteIds.filter((athleteId) => athleteId !== id)
        : [...set.athleteIds, id],
    });
  const pick = ({ athlete, barred: why }: (typeof people)[number]) => {
    const on = chosen.has(athlete.id);
    const fit =
      base?.movement && base.choices && on
        ? fitOf(base.movement, { choices: base.choices }, athlete, {
            ...style,
            shoeM: athlete.shoeM ?? undefined,
          })
        : null;
    return (
      <button
        key={athlete.id}
        type="button"
        className={why ? 'pick barred' : 'pick'}
        aria-pressed={on}
        disabled={why !== null && !on}
        onClick={() => toggle(athlete.id)}
      >
        {athlete.name}
        {athlete.archived && ', archived'}
        {turns.has(athlete.id) && (
          <span className="figure quiet-turn" aria-hidden>
            {' '}
            {turns.get(athlete.id)}
          </span>
        )}
        {fit && (
          <span className="d-block small-text">
            {fit.fits ? <span className="figure">{fit.mark}</span> : fit.mark}
          </span>
        )}
      </button>
    );
  };
  const near = people.filter((person) => person.planned || chosen.has(person.athlete.id));
  const others = people.filter((person) => !person.planned && !chosen.has(person.athlete.id));
  // Whoever may run it and is not on it yet, by squad and by position.
  const open = mayRun(loads, athletes, date).filter((athlete) => !chosen.has(athlete.id));
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
        .filter((athlete) =>
          kind === 'squad' ? athlete.squad === name : athlete.positions.includes(name),
        )
        .map((athlete) => athlete.id),
    }))
    .sort((a, b) => b.ids.length - a.ids.length || a.name.localeCompare(b.name));
  return (
    <div>
      <div className="row-line mb-1">
        <span className="form-label mb-0">Athletes, numbered by turn</span>
        <Form.Select
          aria-label="Put a squad or position on it"
          size="sm"
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
        {set.athleteIds.length > 0 && onAll && (
          <button type="button" className="btn btn-link p-0 small-text" onClick={onAll}>
            these in all sets
          </button>
        )}
        {set.athleteIds.length > 0 && (
          <button
            type="button"
            className="btn btn-link p-0 small-text"
            onClick={() => onSet({ athleteIds: [] })}
          >
            take all off
          </button>
        )}
      </div>
      <div className="picks">{near.map(pick)}</div>
      {message && (
        <div className="field-message" role="alert">
          {message}
        </div>
      )}
      {barred.map(({ athlete, barred: why }) => (
        <div key={athlete.id} className="field-message">
          {whyBarred(athlete.name, why!)}
        </div>
      ))}
      {others.length > 0 && (
        <details className="mt-2" open={plannedIds.length === 0}>
          <summary className="quiet small-text">{counted(others.length, 'other')}</summary>
          <div className="picks mt-2">{others.map(pick)}</div>
        </details>
      )}
    </div>
  );
};
