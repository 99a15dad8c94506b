import { bareUnit } from '@gravek/core/units';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { TypedGates } from './device';

/** The times of a run, typed as the gates show them. */
export const GateTimes = ({
  gates,
  why,
  onChange,
}: {
  gates: TypedGates;
  /** why they cannot be */
  why: string | null;
  onChange: (gates: TypedGates) => void;
}) => {
  // Nobody is told of a figure that is still being typed.
  const [typing, setTyping] = useState(false);
  return (
    <div className="gates" onFocus={() => setTyping(true)} onBlur={() => setTyping(false)}>
      <div className="gate-line">
        <span className="quiet">Gates at</span>
        <Form.Control
          aria-label={`Gates stand at, ${bareUnit(gates.style)}`}
          size="sm"
          inputMode="text"
          value={gates.distances}
          onChange={(event) => onChange({ ...gates, distances: event.target.value })}
        />
        <span className="quiet">{bareUnit(gates.style)}</span>
      </div>
      <div className="gate-line">
        <span className="quiet">Times</span>
        <Form.Control
          aria-label="Times, seconds"
          size="sm"
          inputMode="text"
          placeholder="1.31 2.05 –"
          value={gates.times}
          onChange={(event) => onChange({ ...gates, times: event.target.value })}
        />
        <span className="quiet">s</span>
      </div>
      {why && !typing && (
        <div className="note note-wrong small-text" role="alert">
          {why}
        </div>
      )}
    </div>
  );
};
