import { useState } from 'react';
import Form from 'react-bootstrap/Form';

type Props = {
  value: number | null;
  /** what one unit of the value is on screen: 100 for a percentage */
  scale?: number;
  decimals?: number;
  onNumber: (value: number) => void;
  /** where it may be left empty: it was emptied */
  onEmpty?: (() => void) | undefined;
  disabled?: boolean;
  /** what is wrong with the text as it stands, or null, and the text itself */
  onMessage: (message: string | null, text: string) => void;
  /** text that could not be read when it was typed, kept beside the value */
  kept?: string | undefined;
  id?: string;
  'aria-label'?: string;
  'aria-describedby'?: string;
  'aria-invalid'?: boolean;
  width?: string;
};

/** A figure typed by hand; a comma is as good as a point, and what cannot be read stays to be mended. */
export const NumberInput = ({
  value,
  scale = 1,
  decimals = 1,
  onNumber,
  onEmpty,
  onMessage,
  kept,
  width,
  ...rest
}: Props) => {
  const written = value === null ? '' : String(Number((value * scale).toFixed(decimals)));
  const [typed, setTyped] = useState<string | null>(kept ?? null);
  const read = (text: string): number => {
    const tidy = text.trim().replace(',', '.').replace('%', '').trim();
    return /^-?\d*\.?\d+$|^-?\d+\.$/.test(tidy) ? Number(tidy) / scale : NaN;
  };
  return (
    <Form.Control
      {...rest}
      style={width ? { width } : undefined}
      inputMode="decimal"
      autoComplete="off"
      value={typed ?? written}
      onChange={(event) => {
        setTyped(event.target.value);
        if (onEmpty && event.target.value.trim() === '') {
          onMessage(null, '');
          onEmpty();
          return;
        }
        const number = read(event.target.value);
        onMessage(Number.isNaN(number) ? 'Write a number.' : null, event.target.value);
        if (!Number.isNaN(number)) onNumber(number);
      }}
      onBlur={() => {
        const isEmpty = onEmpty !== undefined && typed?.trim() === '';
        if (typed !== null && (isEmpty || !Number.isNaN(read(typed)))) setTyped(null);
      }}
    />
  );
};
