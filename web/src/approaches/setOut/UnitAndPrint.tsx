import type { Athlete } from '@gravek/contract/athlete';
import type { LengthUnit } from '@gravek/core/units';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useSettings } from '../../member/settings';
import { UNIT_NAMES, UNITS } from '../../member/unitNames';

/** In which unit the plan is written, and what to do with it on paper. */
export const UnitAndPrint = ({
  athlete,
  unit,
  onLeave,
}: {
  athlete: Athlete;
  unit: LengthUnit;
  /** absent when the plan cannot be put away */
  onLeave: (() => void) | undefined;
}) => {
  const setUnit = useSettings((settings) => settings.setUnit);
  return (
    <div className="row-line no-print">
      <Form.Select
        aria-label="Write lengths in"
        style={{ width: 'auto' }}
        value={unit}
        onChange={(event) => setUnit(event.target.value as LengthUnit)}
      >
        {UNITS.map((unit) => (
          <option key={unit} value={unit} disabled={unit === 'shoes' && !athlete.shoeM}>
            {UNIT_NAMES[unit]}
          </option>
        ))}
      </Form.Select>
      <Button variant="outline-dark" onClick={() => window.print()}>
        Print
      </Button>
      {onLeave && (
        <Button variant="link" onClick={onLeave}>
          Put away
        </Button>
      )}
    </div>
  );
};
