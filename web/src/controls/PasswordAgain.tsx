import { passwordAgain } from '@gravek/contract/account';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { answerAgain } from '../api/again';
import { api } from '../api/client';
import { Conflict } from './Conflict';
import { Field } from './Field';
import { useCheckedForm } from './form';

/** Asks for the password before what cannot be taken back; what waited goes on by itself. */
export const PasswordAgain = () => {
  const { register, errors, busy, over, onSubmit } = useCheckedForm<{ password: string }>(
    passwordAgain,
    { defaultValues: { password: '' } },
    async (values) => {
      await api.post('/confirmed', values);
      answerAgain(true);
    },
  );
  return (
    <Modal show onHide={() => answerAgain(false)} aria-label="Your password again" size="sm">
      <Form noValidate onSubmit={onSubmit}>
        <Modal.Body className="stack">
          <h2 className="mb-0">Your password again</h2>
          <p className="small-text quiet mb-0">
            So that nobody does this on a device that you left open. It holds for ten minutes.
          </p>
          <Conflict problem={over} />
          <Field label="Password" message={errors.password?.message}>
            <Form.Control
              type="password"
              autoComplete="current-password"
              autoFocus
              {...register('password')}
            />
          </Field>
          <div className="row-line">
            <Button type="submit" disabled={busy}>
              Go on
            </Button>
            <Button variant="outline-dark" onClick={() => answerAgain(false)}>
              Cancel
            </Button>
          </div>
        </Modal.Body>
      </Form>
    </Modal>
  );
};
