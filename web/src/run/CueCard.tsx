import type { Fault } from '@gravek/contract/movement';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';

const NOTE_MAX = 200;

/** The one cue, another one for it, and a note on the rep. */
export const CueCard = ({
  said,
  cue,
  faults,
  note,
  onCue,
  onNote,
}: {
  /** what the coach says, or that there is nothing to say */
  said: string;
  /** code of the fault that is cued */
  cue: string | null;
  /** those whose cues may be given in its place */
  faults: readonly Fault[];
  /** null where none is written */
  note: string | null;
  onCue: (fault: string | null) => void;
  onNote: (note: string | null) => void;
}) => {
  const [choosing, setChoosing] = useState(false);
  return (
    <div className="cue-card">
      <div className="row-line">
        <span className="figure-label">The one cue</span>
        <button
          type="button"
          className="cue-change ms-auto"
          aria-expanded={note !== null}
          onClick={() => onNote(note === null ? '' : null)}
        >
          Note
        </button>
        <button
          type="button"
          className="cue-change"
          aria-expanded={choosing}
          onClick={() => setChoosing(!choosing)}
        >
          {choosing ? 'Keep it' : 'Change'}
        </button>
      </div>
      {note !== null && (
        <Form.Control
          aria-label="Note on this rep"
          maxLength={NOTE_MAX}
          autoFocus
          value={note}
          placeholder="goes with the next answer"
          onChange={(event) => onNote(event.target.value)}
        />
      )}
      {choosing ? (
        <Form.Select
          aria-label="Another cue"
          value={cue ?? ''}
          onChange={(event) => {
            onCue(event.target.value || null);
            setChoosing(false);
          }}
        >
          <option value="">none: watch, say nothing</option>
          {faults.map((fault) => (
            <option key={fault.code} value={fault.code}>
              {fault.cue}
            </option>
          ))}
        </Form.Select>
      ) : (
        <div className="cue-words">{said}</div>
      )}
    </div>
  );
};
