import type { Movement } from '@gravek/contract/movement';
import { drillOf } from '@gravek/library/movement/byCode';
import Form from 'react-bootstrap/Form';
import { partName } from './partName';

/** The whole, or the part of one of the drills. */
export const PartChoice = ({
  movement,
  drill: code,
  explained = false,
  disabled = false,
  onChoose,
}: {
  movement: Movement;
  /** code of a drill; null for the whole */
  drill: string | null;
  /** how the drill goes is said under it */
  explained?: boolean;
  disabled?: boolean;
  onChoose: (drill: string | null) => void;
}) => {
  const drill = explained && code !== null ? drillOf(movement, code) : undefined;
  return (
    <label className="choice">
      <span className="form-label">Part</span>
      <Form.Select
        value={code ?? ''}
        disabled={disabled}
        onChange={(event) => onChoose(event.target.value || null)}
      >
        <option value="">the whole</option>
        {movement.drills.map((drill) => (
          <option key={drill.code} value={drill.code}>
            {drill.name}
          </option>
        ))}
      </Form.Select>
      {drill && (
        <span className="small-text quiet">
          {partName(movement, drill.part)}. {drill.how}
        </span>
      )}
    </label>
  );
};
