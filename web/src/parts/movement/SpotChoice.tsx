import type { OnGround } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import { spotsOf, type SpotChoice as Chosen } from '@gravek/library/planning/place';
import { useId } from 'react';
import Form from 'react-bootstrap/Form';

/** Where in its place a movement is done, and on which side of it; nothing where it has no place. */
export const SpotChoice = ({
  movement,
  ground,
  spot,
  disabled = false,
  onSpot,
}: {
  movement: Pick<Movement, 'place'>;
  ground: OnGround | null | undefined;
  spot: Chosen | null | undefined;
  disabled?: boolean;
  onSpot: (spot: Chosen | null) => void;
}) => {
  const id = useId();
  const spots = spotsOf(movement, ground);
  if (spots.length === 0) return null;
  const isNamedBySide = movement.place!.spots.some(({ twin }) => !twin);
  const at = spots.findIndex(
    ({ choice }) => choice.code === spot?.code && choice.side === spot.side,
  );
  return (
    <div className="choice">
      <label className="form-label" htmlFor={id}>
        Spot
      </label>
      <Form.Select
        id={id}
        aria-describedby={isNamedBySide ? `${id}-hint` : undefined}
        value={at}
        disabled={disabled}
        onChange={(event) => onSpot(spots[Number(event.target.value)]?.choice ?? null)}
      >
        <option value={-1}>as usual, on the own side</option>
        {spots.map(({ name }, i) => (
          <option key={name} value={i}>
            {name}
          </option>
        ))}
      </Form.Select>
      {isNamedBySide && (
        <span id={`${id}-hint`} className="small-text quiet">
          Left and right as one faces it
        </span>
      )}
    </div>
  );
};
