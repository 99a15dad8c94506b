import type { Body } from '@gravek/core/layout/body';
import type { Side } from '@gravek/core/session/repLog';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import { sideWord } from '@gravek/library/movement/sides';
import Form from 'react-bootstrap/Form';
import { Segments } from '../controls/Segments';

/** Whose lengths a movement is drawn with, and on which side. */
export const ForWhom = ({
  movement,
  body,
  athletes,
  athleteId,
  side,
  onAthlete,
  onSide,
}: {
  movement: Pick<Movement, 'writtenFor'>;
  body: Body;
  athletes: readonly Athlete[];
  /** empty for a usual body */
  athleteId: string;
  side: Side;
  onAthlete: (id: string) => void;
  onSide: (side: Side) => void;
}) => (
  <>
    <label className="choice">
      <span className="form-label">Lengths of</span>
      <Form.Select value={athleteId} onChange={(event) => onAthlete(event.target.value)}>
        <option value="">a usual body</option>
        {athletes
          .filter((athlete) => !athlete.archived)
          .map((athlete) => (
            <option key={athlete.id} value={athlete.id}>
              {athlete.name}
            </option>
          ))}
      </Form.Select>
    </label>
    <div className="choice">
      <span className="form-label">Side</span>
      <Segments
        label="Side"
        value={side}
        onChoose={onSide}
        options={[
          { value: 'own', label: sideWord(movement, body, 'own') },
          { value: 'other', label: sideWord(movement, body, 'other') },
        ]}
      />
    </div>
  </>
);
