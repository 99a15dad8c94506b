/** A few choices side by side, one of them pressed. */
export const Segments = <T extends string>({
  label,
  options,
  value,
  onChoose,
}: {
  label: string;
  options: readonly { value: T; label: React.ReactNode }[];
  value: T;
  onChoose: (value: T) => void;
}) => (
  <div className="segments" role="group" aria-label={label}>
    {options.map((option) => (
      <button
        key={option.value}
        type="button"
        aria-pressed={option.value === value}
        onClick={() => onChoose(option.value)}
      >
        {option.label}
      </button>
    ))}
  </div>
);
