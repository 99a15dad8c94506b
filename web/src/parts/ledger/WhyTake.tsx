import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { Field } from '../../controls/Field';

/** The end of a form in which a coach decides otherwise than the figures: why, and the press. */
export const WhyTake = ({
  reason,
  message,
  take,
  busy,
  onDone,
}: {
  reason: UseFormRegisterReturn;
  message: string | undefined;
  /** what the press says */
  take: string;
  busy: boolean;
  onDone: () => void;
}) => (
  <>
    <Field label="Why" message={message}>
      <Form.Control {...reason} placeholder="what you saw" />
    </Field>
    <div className="row-line">
      <Button type="submit" disabled={busy}>
        {take}
      </Button>
      <Button variant="link" onClick={onDone}>
        Leave it
      </Button>
    </div>
  </>
);
