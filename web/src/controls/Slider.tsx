import Form from 'react-bootstrap/Form';

/** A figure that is tried out: a slider with what it stands at. */
export const Slider = ({
  label,
  value,
  min,
  max,
  step,
  written,
  disabled,
  onValue,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  written: React.ReactNode;
  disabled: boolean;
  onValue: (value: number) => void;
}) => (
  <label className="slider-row">
    <span className="slider-head">
      <span>{label}</span>
      <span>{written}</span>
    </span>
    <Form.Range
      aria-label={label}
      min={min}
      max={max}
      step={step}
      value={value}
      disabled={disabled}
      onChange={(event) => onValue(Number(event.target.value))}
    />
  </label>
);
