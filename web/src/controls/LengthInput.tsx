import { formatLength, parseLength, type LengthStyle } from '@gravek/core';
import { useEffect, useState } from 'react';
import Form from 'react-bootstrap/Form';

type Props = {
  valueM: number | null;
  style: LengthStyle;
  /** null: the field was emptied, where that is allowed */
  onLength: (lengthM: number | null) => void;
  /** what is wrong with the text as it stands, or null */
  onMessage: (message: string | null) => void;
  optional?: boolean;
  disabled?: boolean;
  id?: string;
  'aria-label'?: string;
  'aria-describedby'?: string;
  'aria-invalid'?: boolean;
  placeholder?: string;
};

const written = (valueM: number | null, style: LengthStyle): string =>
  valueM === null ? '' : formatLength(valueM, style);

/**
 * A length in any form that coaches write. The text stays as typed while it is worked on; on leaving
 * the field it is written the usual way.
 */
export const LengthInput = ({
  valueM,
  style,
  onLength,
  onMessage,
  optional = false,
  ...rest
}: Props) => {
  const [text, setText] = useState(() => written(valueM, style));
  const [editing, setEditing] = useState(false);
  const { unit, shoeM, small } = style;

  useEffect(() => {
    if (!editing) setText(written(valueM, { unit, shoeM, small }));
  }, [editing, valueM, unit, shoeM, small]);

  const take = (typed: string): void => {
    setText(typed);
    if (optional && typed.trim() === '') {
      onMessage(null);
      onLength(null);
      return;
    }
    const read = parseLength(typed, style);
    onMessage(read.ok ? null : read.message);
    if (read.ok) onLength(read.lengthM);
  };

  return (
    <Form.Control
      {...rest}
      value={text}
      autoComplete="off"
      onFocus={() => setEditing(true)}
      onChange={(event) => take(event.target.value)}
      onBlur={() => {
        // Text that could not be read stays, so that it can be mended.
        if ((optional && text.trim() === '') || parseLength(text, style).ok) setEditing(false);
      }}
    />
  );
};
