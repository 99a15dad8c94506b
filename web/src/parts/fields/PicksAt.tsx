import type { Foot } from '@gravek/core/feet';
import { useId } from 'react';
import Form from 'react-bootstrap/Form';
import type { At } from './At';
import { useAt } from './fields';

/** Some of a list, pressed. */
export const PicksAt = <T extends string | number>({
  at,
  label,
  options,
  empty,
  usual = [],
}: At & {
  options: readonly (readonly [T, string])[];
  empty?: string;
  /** where a movement leaves it out */
  usual?: readonly T[];
}) => {
  const { value = usual, message, set } = useAt<readonly T[] | undefined>(at);
  return (
    <div role="group" aria-label={label}>
      <div className="form-label">{label}</div>
      {options.length === 0 && <div className="quiet small-text">{empty}</div>}
      <div className="picks">
        {options.map(([code, name]) => (
          <button
            key={code}
            type="button"
            className="pick"
            aria-pressed={value.includes(code)}
            onClick={() =>
              set(
                value.includes(code) ? value.filter((picked) => picked !== code) : [...value, code],
              )
            }
          >
            {name}
          </button>
        ))}
      </div>
      {message && (
        <div className="field-message" role="alert">
          {message}
        </div>
      )}
    </div>
  );
};

/** A turn or an arrival that may be there or not. */
export const MaybeAt = ({
  at,
  label,
  fresh,
  none = null,
  children,
}: At & {
  fresh: () => unknown;
  /** what it is when it is not there */
  none?: null | undefined;
  children: React.ReactNode;
}) => {
  const { value = null, message, set } = useAt<unknown>(at);
  const id = useId();
  return (
    <fieldset className="edit-group span-12">
      <Form.Check
        type="switch"
        id={id}
        label={label}
        checked={value !== null}
        onChange={() => set(value === null ? fresh() : none)}
      />
      {value !== null && <div className="edit-grid">{children}</div>}
      {message && (
        <div className="field-message" role="alert">
          {message}
        </div>
      )}
    </fieldset>
  );
};

export const FEET: readonly (readonly [Foot, string])[] = [
  ['left', 'left'],
  ['right', 'right'],
];
