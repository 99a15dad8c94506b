import { useId, type ReactElement, cloneElement } from 'react';

type Control = ReactElement<{ id?: string; 'aria-describedby'?: string; 'aria-invalid'?: boolean }>;

/** A labelled control with its message right under it. */
export const Field = ({
  label,
  message,
  hint,
  children,
}: {
  label: string;
  message?: string | undefined;
  hint?: string;
  children: Control;
}) => {
  const id = useId();
  return (
    <div className={message ? 'has-message' : undefined}>
      <label className="form-label" htmlFor={id}>
        {label}
      </label>
      {cloneElement(children, {
        id,
        ...(message ? { 'aria-invalid': true, 'aria-describedby': `${id}-message` } : {}),
      })}
      {hint && !message && <div className="small-text quiet">{hint}</div>}
      {message && (
        <div className="field-message" id={`${id}-message`} role="alert">
          {message}
        </div>
      )}
    </div>
  );
};
