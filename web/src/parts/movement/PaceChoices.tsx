import { PACES } from '@gravek/contract/drillSet';
import type { MovementPhase } from '@gravek/contract/movement';
import { type Rung, RUNGS } from '@gravek/contract/rungs';
import { RUNG_NAMES } from '@gravek/library/session/setWords';
import Form from 'react-bootstrap/Form';

const PART_NAMES: Record<number, string> = {
  1: 'all of it',
  0.75: 'three quarters',
  0.5: 'half',
  0.25: 'a quarter',
};

const Parts = () =>
  PACES.map((part) => (
    <option key={part} value={part}>
      {PART_NAMES[part]}
    </option>
  ));

/** How much of the plan's speed each run on the way is run at; the short steps stay as they are. */
export const SpeedsByPhase = ({
  path,
  speeds,
  disabled,
  onSpeeds,
}: {
  path: readonly MovementPhase[];
  speeds: Readonly<Record<string, number>>;
  disabled: boolean;
  onSpeeds: (speeds: Record<string, number>) => void;
}) => (
  <>
    {path
      .filter((phase) => phase.steps.kind === 'build-up')
      .map((phase) => (
        <label key={phase.code} className="choice">
          <span className="form-label">{phase.name}: of that speed</span>
          <Form.Select
            value={speeds[phase.code] ?? 1}
            disabled={disabled}
            onChange={(event) => {
              const { [phase.code]: _before, ...rest } = speeds;
              const part = Number(event.target.value);
              onSpeeds(part === 1 ? rest : { ...rest, [phase.code]: part });
            }}
          >
            <Parts />
          </Form.Select>
        </label>
      ))}
  </>
);

/** How far up the ladder it is run: contact begins with the pad. */
export const RungChoice = ({
  rung,
  rungs = RUNGS,
  disabled,
  onRung,
}: {
  rung: Rung | undefined;
  /** those of the drill, where one is chosen */
  rungs?: readonly Rung[];
  disabled: boolean;
  onRung: (rung: Rung) => void;
}) => (
  <label className="choice">
    <span className="form-label">Rung</span>
    <Form.Select
      value={rung ?? 'full'}
      disabled={disabled}
      onChange={(event) => onRung(event.target.value as Rung)}
    >
      {RUNGS.filter((other) => rungs.includes(other) || other === (rung ?? 'full')).map((rung) => (
        <option key={rung} value={rung}>
          {RUNG_NAMES[rung]}
        </option>
      ))}
    </Form.Select>
  </label>
);
