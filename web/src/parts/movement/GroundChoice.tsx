import type { OnGround } from '@gravek/contract/ground';
import { isStale, takenFrom } from '@gravek/library/planning/onGround';
import { useId } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useChosenGround } from '../../member/chosenGround';

/** Where it is set out; nothing where the club keeps no ground. */
export const GroundChoice = ({
  ground,
  disabled = false,
  onGround,
}: {
  ground: OnGround | null | undefined;
  disabled?: boolean;
  /** absent where it goes by the one that is chosen on this device */
  onGround?: (ground: OnGround | null) => void;
}) => {
  const id = useId();
  const { grounds, choose } = useChosenGround();
  const current = grounds.find((other) => other.id === ground?.groundId);
  if (grounds.length === 0 && !ground) return null;
  const take = (groundId: string): void => {
    const next = grounds.find((ground) => ground.id === groundId);
    choose(next?.id ?? null);
    onGround?.(next ? takenFrom(next) : null);
  };
  return (
    <div className="choice">
      <label className="form-label" htmlFor={id}>
        Ground
      </label>
      <Form.Select
        id={id}
        value={ground?.groundId ?? ''}
        disabled={disabled}
        onChange={(event) => take(event.target.value)}
      >
        <option value="">nowhere in particular</option>
        {ground && !current && <option value={ground.groundId}>{ground.name}, put away</option>}
        {grounds.map((ground) => (
          <option key={ground.id} value={ground.id}>
            {ground.name}
          </option>
        ))}
      </Form.Select>
      {onGround && ground && current && isStale(ground, current) && (
        <div className="small-text" role="status">
          {current.name} has been changed since.{' '}
          <Button
            size="sm"
            variant="outline-dark"
            disabled={disabled}
            onClick={() => onGround(takenFrom(current))}
          >
            Take it as it is now
          </Button>
        </div>
      )}
    </div>
  );
};
