import Form from 'react-bootstrap/Form';

const readMarks = (text: string): number[] | null => {
  const parts = text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  return parts.every((part) => Number.isInteger(part) && part > 0) ? [...new Set(parts)] : null;
};

export const MarksInput = ({
  id,
  marks,
  invalid,
  onMarks,
  onMessage,
}: {
  id: string;
  marks: readonly number[];
  invalid: object;
  onMarks: (marks: number[]) => void;
  onMessage: (message: string | null) => void;
}) => (
  <Form.Control
    id={id}
    key={marks.join()}
    defaultValue={marks.join(', ')}
    placeholder="steps out, such as 4, 6"
    autoComplete="off"
    {...invalid}
    onBlur={(event) => {
      const read = readMarks(event.target.value);
      onMessage(read ? null : 'Write how many steps out each mark lies, such as 4, 6.');
      if (read && read.join() !== marks.join()) onMarks(read);
    }}
  />
);
