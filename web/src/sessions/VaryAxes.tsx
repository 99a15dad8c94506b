import { useState } from 'react';

/** What is on of an axis, one chip a value. */
export const Axis = <T extends string | number>({
  label,
  values,
  on,
  name,
  least = 0,
  onChange,
}: {
  label: string;
  values: readonly T[];
  on: readonly T[];
  name: (value: T) => string;
  /** so many stay on */
  least?: number;
  onChange: (on: T[]) => void;
}) => (
  <div className="axis" role="group" aria-label={label}>
    <span className="form-label mb-0">{label}</span>
    {/* What the movement does not have any more can still be taken out. */}
    {[...values, ...on.filter((value) => !values.includes(value))].map((value) => {
      const pressed = on.includes(value);
      return (
        <button
          key={value}
          type="button"
          className="pick"
          aria-pressed={pressed}
          disabled={pressed && on.length <= least}
          onClick={() =>
            onChange(
              pressed
                ? on.filter((chosen) => chosen !== value)
                : [
                    ...values.filter((other) => other === value || on.includes(other)),
                    ...on.filter((chosen) => !values.includes(chosen)),
                  ],
            )
          }
        >
          {name(value)}
        </button>
      );
    })}
  </div>
);

/** So many spots a set may have, and so long may the name of one be. */
const MOST_SPOTS = 12;
const LONGEST_SPOT = 30;

/** Spots on the ground by the coach's own names; makes are kept apart by them. */
export const Spots = ({
  knownSpots,
  spots,
  onChange,
}: {
  /** of the movement's place: there it is drawn where it is */
  knownSpots: readonly string[];
  spots: readonly string[];
  onChange: (spots: string[]) => void;
}) => {
  const [typed, setTyped] = useState('');
  const typedSpots = typed
    .replace(/[^\p{L}\p{N} .,’'-]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, LONGEST_SPOT)
    .trim();
  const add = (): void => {
    if (typedSpots !== '' && !spots.includes(typedSpots)) onChange([...spots, typedSpots]);
    setTyped('');
  };
  return (
    <div className="axis" role="group" aria-label="Spots">
      <span className="form-label mb-0">Spots</span>
      {[...knownSpots, ...spots.filter((spot) => !knownSpots.includes(spot))].map((spot) => {
        const isOn = spots.includes(spot);
        return (
          <button
            key={spot}
            type="button"
            className="pick"
            aria-pressed={isOn}
            aria-label={knownSpots.includes(spot) ? undefined : `${spot}, take out`}
            disabled={!isOn && spots.length >= MOST_SPOTS}
            onClick={() =>
              onChange(isOn ? spots.filter((other) => other !== spot) : [...spots, spot])
            }
          >
            {spot}
          </button>
        );
      })}
      {spots.length < MOST_SPOTS && (
        <input
          className="form-control form-control-sm spot-input"
          aria-label="Another spot"
          placeholder="left wing"
          maxLength={LONGEST_SPOT}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={add}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            add();
          }}
        />
      )}
    </div>
  );
};
