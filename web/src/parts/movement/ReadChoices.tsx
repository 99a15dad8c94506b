import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement, MovementPhase } from '@gravek/contract/movement';
import { hasEffect } from '@gravek/library/planning/otherWays';
import { phasesOn } from '@gravek/library/planning/branches';
import Form from 'react-bootstrap/Form';

type Chosen = Pick<SequenceChoices, 'reads' | 'schools'>;

const Read = ({
  phase,
  value,
  disabled,
  onChoose,
}: {
  phase: MovementPhase & { read: NonNullable<MovementPhase['read']> };
  value: string | undefined;
  disabled: boolean;
  onChoose: (code: string) => void;
}) => {
  const taken = phase.read.options.find((option) => option.code === value) ?? phase.read.options[0];
  return (
    <label className="choice">
      <span className="form-label">Read: {phase.read.watch}</span>
      <Form.Select
        value={taken?.code}
        disabled={disabled}
        onChange={(event) => onChoose(event.target.value)}
      >
        {phase.read.options.map((option) => (
          <option key={option.code} value={option.code}>
            {option.name}
          </option>
        ))}
      </Form.Select>
      <span className="small-text quiet">when {taken?.when}</span>
    </label>
  );
};

/** By which school a movement is taught, where that changes anything. */
export const SchoolChoices = ({
  movement,
  chosen,
  disabled = false,
  onChoose,
}: {
  movement: Movement;
  /** school → way of teaching */
  chosen: Readonly<Record<string, string>>;
  disabled?: boolean;
  onChoose: (schools: Record<string, string>) => void;
}) => (
  <>
    {movement.schools
      .filter((school) => school.options.some(hasEffect))
      .map((school) => (
        <label key={school.code} className="choice">
          <span className="form-label">{school.question}</span>
          <Form.Select
            value={chosen[school.code] ?? school.options[0]?.code}
            disabled={disabled}
            onChange={(event) => onChoose({ ...chosen, [school.code]: event.target.value })}
          >
            {school.options.map((option) => (
              <option key={option.code} value={option.code}>
                {option.name}
              </option>
            ))}
          </Form.Select>
        </label>
      ))}
  </>
);

/** Which exit is taken at each read on the way, and by which school it is taught. */
export const ReadChoices = ({
  movement,
  chosen,
  disabled = false,
  onChoose,
}: {
  movement: Movement;
  chosen: Chosen;
  disabled?: boolean;
  onChoose: (change: Partial<Chosen>) => void;
}) => {
  const reads = phasesOn(movement, chosen).filter(
    (phase): phase is Parameters<typeof Read>[0]['phase'] => phase.read !== null,
  );
  return (
    <>
      {reads.map((phase) => (
        <Read
          key={phase.code}
          phase={phase}
          value={chosen.reads[phase.code]}
          disabled={disabled}
          onChoose={(code) => onChoose({ reads: { ...chosen.reads, [phase.code]: code } })}
        />
      ))}
      <SchoolChoices
        movement={movement}
        chosen={chosen.schools}
        disabled={disabled}
        onChoose={(schools) => onChoose({ schools })}
      />
    </>
  );
};
