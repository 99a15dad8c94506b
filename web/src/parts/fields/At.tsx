import type { LengthStyle } from '@gravek/core/units';
import { useId } from 'react';
import Form from 'react-bootstrap/Form';
import { Field } from '../../controls/Field';
import { LengthInput } from '../../controls/LengthInput';
import { NumberInput } from '../../controls/NumberInput';
import { useAt, useFields } from './fields';

/** Fields of the editor, each for the value at one path of the movement. */
export type At = { at: string; label: string };

export const TextAt = ({
  at,
  label,
  hint,
  type = 'text',
  suggestions = [],
  placeholder,
  onChange,
}: At & {
  hint?: string;
  placeholder?: string;
  /** what else changes with it, in place of its own change */
  onChange?: (text: string) => void;
  /** a time of day; a day, null where it is left empty */
  type?: 'text' | 'time' | 'date';
  /** words to choose from, beside any other */
  suggestions?: readonly string[];
}) => {
  const { value, message, set } = useAt<string | null | undefined>(at);
  const listId = useId();
  return (
    <>
      <Field label={label} message={message} {...(hint ? { hint } : {})}>
        <Form.Control
          type={type}
          placeholder={placeholder}
          value={value ?? ''}
          {...(suggestions.length > 0 ? { list: listId } : {})}
          onChange={({ target: { value: text } }) =>
            onChange ? onChange(text) : set(text || (type === 'date' ? null : ''))
          }
        />
      </Field>
      {suggestions.length > 0 && (
        <datalist id={listId}>
          {suggestions.map((word) => (
            <option key={word} value={word} />
          ))}
        </datalist>
      )}
    </>
  );
};

export const WordsAt = ({ at, label, rows = 2 }: At & { rows?: number }) => {
  const { value, message, set } = useAt<string>(at);
  return (
    <Field label={label} message={message}>
      <Form.Control
        as="textarea"
        rows={rows}
        value={value}
        onChange={(event) => set(event.target.value)}
      />
    </Field>
  );
};

/** A list of short texts, one a line. */
export const LinesAt = ({ at, label, rows = 3 }: At & { rows?: number }) => (
  <ListAt at={at} label={label} hint="One a line." split={'\n'} rows={rows} />
);

/** A list of short words on one line. */
export const WordListAt = ({ at, label }: At) => (
  <ListAt at={at} label={label} hint="Separate with commas." split="," />
);

const ListAt = ({
  at,
  label,
  hint,
  split,
  rows,
}: At & { hint: string; split: string; rows?: number }) => {
  const { value = [], message, set } = useAt<string[] | undefined>(at);
  const { problems } = useFields();
  const inside = Object.entries(problems).find(([path]) => path.startsWith(`${at}[`))?.[1];
  return (
    <Field label={label} message={message ?? inside} hint={hint}>
      <Form.Control
        {...(rows ? { as: 'textarea', rows } : {})}
        value={value.join(split)}
        onChange={(event) => set(event.target.value === '' ? [] : event.target.value.split(split))}
        onBlur={() => set(value.map((text) => text.trim()).filter(Boolean))}
      />
    </Field>
  );
};

export const ChoiceAt = ({
  at,
  label,
  options,
  none,
  usual = null,
  hint,
  onChange,
}: At & {
  options: readonly (readonly [string | number, string])[];
  hint?: string;
  none?: string;
  /** where a movement leaves it out */
  usual?: string | null;
  /** what else changes with it, in place of its own change */
  onChange?: (value: string) => void;
}) => {
  // What a movement may leave out is not there at all.
  const { value: chosen, message, set } = useAt<string | number | null | undefined>(at);
  const value = chosen ?? usual;
  const gone = value !== null && !options.some(([code]) => code === value);
  const choose = (text: string): void =>
    set(options.find(([code]) => String(code) === text)?.[0] ?? null);
  return (
    <Field label={label} message={message} {...(hint ? { hint } : {})}>
      <Form.Select
        value={value ?? ''}
        onChange={(event) => (onChange ?? choose)(event.target.value)}
      >
        {none !== undefined && <option value="">{none}</option>}
        {gone && <option value={value}>(gone)</option>}
        {options.map(([code, name]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </Form.Select>
    </Field>
  );
};

export const NumberAt = ({
  at,
  label,
  unit = '',
  decimals = 2,
  scale = 1,
  usual = 0,
  optional = false,
  disabled = false,
}: At & {
  unit?: string;
  decimals?: number;
  scale?: number;
  /** where a movement leaves it out */
  usual?: number;
  /** null where it is left empty */
  optional?: boolean;
  disabled?: boolean;
}) => {
  const { value = usual, message, set, kept, say } = useAt<number | null | undefined>(at);
  return (
    <Field label={unit ? `${label}, ${unit}` : label} message={message}>
      <NumberInput
        value={value}
        scale={scale}
        decimals={decimals}
        kept={kept}
        onEmpty={optional ? () => set(null) : undefined}
        disabled={disabled}
        onNumber={set}
        onMessage={say}
      />
    </Field>
  );
};

/** A length in metres, in the unit of whoever looks; null where it may be left empty and is. */
export const LengthAt = ({
  at,
  label,
  optional = false,
  ofBody = false,
  style: givenStyle,
}: At & {
  optional?: boolean;
  /** a measure of the body: 186 is read as centimetres */
  ofBody?: boolean;
  /** another than that of whoever looks */
  style?: LengthStyle;
}) => {
  const { value, message, set, kept, say } = useAt<number | null>(at);
  const { style } = useFields();
  return (
    <Field label={label} message={message}>
      <LengthInput
        valueM={value}
        style={givenStyle ?? style}
        optional={optional}
        ofBody={ofBody}
        kept={kept}
        onLength={set}
        onMessage={say}
      />
    </Field>
  );
};

export const FlagAt = ({ at, label }: At) => {
  const { value = false, set } = useAt<boolean | undefined>(at);
  const id = useId();
  return (
    <Form.Check
      type="switch"
      id={id}
      label={label}
      checked={value}
      onChange={() => set(!value)}
      className="align-self-end"
    />
  );
};
