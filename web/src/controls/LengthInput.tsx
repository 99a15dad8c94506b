import { parseBodyLength, parseLength } from '@gravek/core/lengthText';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';

type Props = {
  valueM: number | null;
  style: LengthStyle;
  /** null: the field was emptied, where that is allowed */
  onLength: (lengthM: number | null) => void;
  /** what is wrong with the text as it stands, or null, and the text itself */
  onMessage: (message: string | null, text: string) => void;
  /** text that could not be read when it was typed, kept beside the value */
  kept?: string | undefined;
  optional?: boolean;
  /** a measure of the body: 186 is read as centimetres */
  ofBody?: boolean;
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
  kept,
  optional = false,
  ofBody = false,
  ...rest
}: Props) => {
  const parse = ofBody ? parseBodyLength : parseLength;
  // null: nothing is being typed, and the value is shown as it is usually written
  const [typed, setTyped] = useState<string | null>(kept ?? null);

  const take = (text: string): void => {
    setTyped(text);
    if (optional && text.trim() === '') {
      onMessage(null, text);
      onLength(null);
      return;
    }
    const read = parse(text, style);
    onMessage(read.ok ? null : read.message, text);
    if (read.ok) onLength(read.lengthM);
  };

  return (
    <Form.Control
      {...rest}
      value={typed ?? written(valueM, style)}
      autoComplete="off"
      // What is selected, to be typed over, must not change under the hand.
      onFocus={() => {
        if (valueM !== null) setTyped((before) => before ?? written(valueM, style));
      }}
      onChange={(event) => take(event.target.value)}
      onBlur={() => {
        // Text that could not be read stays, so that it can be mended.
        if (typed === null) return;
        if ((optional && typed.trim() === '') || parse(typed, style).ok) setTyped(null);
      }}
    />
  );
};
