import { passwordChange, type PasswordChange } from '@gravek/contract/account';
import { type Me } from '@gravek/contract/club';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, sentenceOf } from '../api/client';
import { forgetClub } from '../api/door';
import { Conflict } from '../controls/Conflict';
import { Field } from '../controls/Field';
import { useCheckedForm } from '../controls/form';
import { opened } from '../controls/opened';
import { tell } from '../controls/toasts';
import { useMember } from '../member/member';
import { queue } from '../phone/store';
import { Devices } from './Devices';

const ChangePassword = ({ onDone }: { onDone: () => void }) => {
  const { register, errors, busy, over, onSubmit } = useCheckedForm<PasswordChange>(
    passwordChange,
    { defaultValues: { current: '', next: '' } },
    async (values) => {
      await api.put('/password', values);
      tell('The new password holds. Other devices have to sign in anew.');
      onDone();
    },
  );
  return (
    <Form noValidate className="stack" onSubmit={onSubmit}>
      <Conflict problem={over} />
      <Field label="Password now" message={errors.current?.message}>
        <Form.Control type="password" autoComplete="current-password" {...register('current')} />
      </Field>
      <Field
        label="New password"
        message={errors.next?.message}
        hint="At least 10 characters; a few words of your own are best."
      >
        <Form.Control type="password" autoComplete="new-password" {...register('next')} />
      </Field>
      <div className="row-line">
        <Button type="submit" size="sm" disabled={busy}>
          Keep it
        </Button>
        <Button size="sm" variant="outline-dark" onClick={onDone}>
          Close
        </Button>
      </div>
    </Form>
  );
};

/** Opens another of the own clubs; reps of this one wait on the device until it is open again. */
const openClub = async ({ id, name }: Me['clubs'][number], here: string): Promise<void> => {
  const waiting = await queue.where('clubId').equals(here).count();
  if (
    waiting > 0 &&
    !window.confirm(
      `${waiting === 1 ? 'One rep of this club waits' : `${waiting} reps of this club wait`} to be sent. What waits stays on this device until this club is open again. Open ${name}?`,
    )
  ) {
    return;
  }
  try {
    await api.post('/switch', { clubId: id });
  } catch (error) {
    tell(sentenceOf(error));
    return;
  }
  await forgetClub();
  window.location.assign('/');
};

const SecondStep = opened(async () => (await import('./SecondStep')).SecondStep);

/** What belongs to the person, whichever club is open. */
export const Account = () => {
  const { person, club, clubs } = useMember();
  const [open, setOpen] = useState<'password' | 'step' | null>(null);
  const others = clubs.filter(({ id }) => id !== club.id);
  return (
    <section className="panel stack" aria-label="Your account">
      <h2 className="mb-0">Your account</h2>
      <strong>{person}</strong>
      {others.map((other) => (
        <div key={other.id} className="row-line">
          <span>{other.name}</span>
          <Button
            size="sm"
            variant="outline-dark"
            className="ms-auto"
            onClick={() => void openClub(other, club.id)}
          >
            Open this club
          </Button>
        </div>
      ))}
      <Devices />
      {open === 'password' && <ChangePassword onDone={() => setOpen(null)} />}
      {open === 'step' && <SecondStep onClose={() => setOpen(null)} />}
      <div className="row-line">
        {open !== 'password' && (
          <Button size="sm" variant="outline-dark" onClick={() => setOpen('password')}>
            Change your password
          </Button>
        )}
        {open !== 'step' && (
          <Button size="sm" variant="outline-dark" onClick={() => setOpen('step')}>
            Second step when signing in
          </Button>
        )}
      </div>
    </section>
  );
};
